"""What the finder reads of a job."""

from __future__ import annotations

from typing import NamedTuple

from fahrtwind.core.job.document import Job, Members, Reading, Scan, Trust
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.structure.evidence import KindTrust, KnownFacts, ReadingFact, ScanFact
from fahrtwind.core.stations.structure.members import EvidenceKey
from fahrtwind.core.tables.readings import RELIABILITY

USUALLY_WITHIN_MM = 10.0


class Noted(NamedTuple):
    """What was noted about the members."""

    readings: tuple[Reading, ...]
    scans: tuple[Scan, ...]
    members: Members
    trust: tuple[Trust, ...]
    units: UnitSystem


def evidence_key(job: Job | Noted, span_mm: float) -> EvidenceKey:
    """Readings, scans and known facts, hashable; struck ones do not count. ``span_mm``: length of the
    roof.
    """
    readings = (
        ReadingFact(r.id, r.x.mm, r.kind, r.sigma.mm if r.sigma else None)
        for r in job.readings
        if not r.struck
    )
    scans = (
        ScanFact(s.id, min(s.start.mm, s.end.mm), max(s.start.mm, s.end.mm), s.kind)
        for s in job.scans
        if not s.struck
    )
    m = job.members
    facts = KnownFacts(
        pitch_mm=m.known_pitch.mm if m.known_pitch else None,
        pitch_within_mm=m.known_pitch_within.mm if m.known_pitch_within else USUALLY_WITHIN_MM,
        front_bay_mm=m.known_front_bay.mm if m.known_front_bay else None,
        rear_bay_mm=m.known_rear_bay.mm if m.known_rear_bay else None,
    )
    trust = tuple(_overruled(t) for t in job.trust)
    face = m.face_width.mm if m.face_width else None
    return EvidenceKey(tuple(readings), tuple(scans), facts, span_mm, face, trust, job.units)


def _overruled(trust: Trust) -> KindTrust:
    usual = RELIABILITY[trust.kind]
    return KindTrust(
        trust.kind,
        trust.sigma.mm if trust.sigma else usual.sigma_mm,
        usual.false_share if trust.false_share is None else trust.false_share,
        usual.miss_share if trust.miss_share is None else trust.miss_share,
    )
