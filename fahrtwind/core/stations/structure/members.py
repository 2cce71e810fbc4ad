"""Where the members are: every hypothesis weighed, one told, the others named.

The answer is a mixture. Positions and intervals come from the leading story; the confidence of a member is
the chance, over all hypotheses, that a member really stands within ``CLOSE_MM`` of where it is drawn.
"""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length, say_share
from fahrtwind.core.stations.structure.belief import Belief, believe, drawn, members_read, over_all, stories
from fahrtwind.core.stations.structure.evidence import (
    Evidence,
    KindTrust,
    KnownFacts,
    ReadingFact,
    ScanFact,
    gather,
)
from fahrtwind.core.stations.structure.placing import Placing, explain_member, place
from fahrtwind.core.stations.structure.posterior import Fitted
from fahrtwind.core.tables.readings import BUILD_SCATTER_MM

FloatArray = npt.NDArray[np.float64]
LEAST_READINGS = 3
LEAST_MEMBERS_READ = 3
SETTLED, TELLABLE, WORTH_NAMING = 0.95, 0.38, 0.02
OVER_CHANCE, SETTLED_MEMBERS_READ = 9.0, 4
"""Settled needs odds of e⁹ against readings that fell anywhere, and four members read: rows by chance stay in
doubt.
"""
NARROW = 0.005
"""Settled also needs a spacing known to half a per cent: its 95 % interval is then a per cent to either
side.
"""
LEAST_READ_OF_SECTION = 2
MOST_ALTERNATIVES = 4


@dataclass(frozen=True, slots=True)
class Rejected:
    reading: str
    x_mm: float
    off_mm: float
    reason: str


@dataclass(frozen=True, slots=True)
class Member:
    """One rib or truss: position, one standard deviation, 95 % band, the chance that it is there, the
    readings it rests on.
    """

    number: int
    section: int
    x_mm: float
    sigma_mm: float
    band_low_mm: float
    band_high_mm: float
    confidence: float
    readings: tuple[str, ...]
    status: Literal["read", "inferred", "drawn"]


@dataclass(frozen=True, slots=True)
class Section:
    """A run of equal bays: pitch with one standard deviation, first and last member by number."""

    number: int
    pitch_mm: float
    pitch_sigma_mm: float
    first_member: int
    last_member: int


@dataclass(frozen=True, slots=True)
class Alternative:
    """Another story that the readings allow, in words, with the positions it would mean."""

    story: str
    pitch_mm: float
    first_mm: float
    probability: float
    positions_mm: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class MemberFit:
    """What the readings say. ``members`` is empty while the spacing is not known; ``pitch_mm`` is the first
    section's.
    """

    status: Literal["not known", "in doubt", "settled"]
    reason: str
    remedy: str
    story: str
    probability: float
    pitch_mm: float | None
    pitch_sigma_mm: float | None
    sections: tuple[Section, ...]
    members: tuple[Member, ...]
    rejected: tuple[Rejected, ...]
    contradictions: tuple[str, ...]
    alternatives: tuple[Alternative, ...]


def explain_members(key: EvidenceKey) -> None:
    """Record the working of every member's place."""
    fit, belief = _fit(key)
    if belief is not None and fit.members:
        lead = belief.fits[stories(belief)[0][0]]
        placing = place(belief.evidence, lead)
        for member in fit.members:
            explain_member(lead, placing, member.number)


@dataclass(frozen=True, slots=True)
class EvidenceKey:
    readings: tuple[ReadingFact, ...]
    scans: tuple[ScanFact, ...]
    facts: KnownFacts
    span_mm: float
    face_mm: float | None
    trust: tuple[KindTrust, ...] = ()
    units: UnitSystem = "metric"


def fit_members(key: EvidenceKey) -> MemberFit:
    return _fit(key)[0]


def belief_of(key: EvidenceKey) -> Belief | None:
    """The hypotheses behind a fit, for whoever plans the next reading; None where there is nothing to
    weigh.
    """
    return _fit(key)[1]


@lru_cache(maxsize=256)
def _fit(key: EvidenceKey) -> tuple[MemberFit, Belief | None]:
    evidence = gather(key.readings, key.scans, key.facts, key.span_mm, key.face_mm, key.trust)
    belief = believe(evidence)
    if len(evidence.x) < LEAST_READINGS and not drawn(evidence):
        missing = LEAST_READINGS - len(evidence.x)
        fit = not_known(
            f"{len(evidence.x)} usable readings: a spacing cannot be told yet.",
            f"Take at least {missing} more along the roof.",
        )
        return fit, belief
    if belief is None:
        return not_known(
            "No regular spacing explains these readings.",
            "Read three neighbouring members surely (seen, rivet row or magnet), then add more.",
        ), None
    return _told(belief, key.units), belief


def _told(belief: Belief, units: UnitSystem) -> MemberFit:
    groups = stories(belief)
    best, share = groups[0][0], float(sum(belief.weights[i] for i in groups[0]))
    lead = belief.fits[best]
    read = members_read(lead)
    from_drawing = drawn(belief.evidence) and len(read) < LEAST_MEMBERS_READ
    if share < TELLABLE or (len(read) < LEAST_MEMBERS_READ and not from_drawing):
        others = _alternatives(belief, groups)
        return not_known(
            "No regular spacing explains these readings well enough.",
            "Read three neighbouring members surely (seen, rivet row or magnet), then add more.",
            others,
        )
    placing = place(belief.evidence, lead)
    others = _alternatives(belief, groups[1:])
    contradictions = _contradictions(belief.evidence, lead)
    sections = _sections(lead, placing)
    if contradictions:
        reason = "A pilot hole went through where a member should be."
    elif from_drawing:
        reason = "From the drawing, not read on this roof."
    else:
        reason = _doubt(belief, lead, sections, share, others, units)
    return MemberFit(
        status="in doubt" if reason else "settled",
        reason=reason[:1].upper() + reason[1:],
        remedy="Check at the flag: it is the spot that settles most." if reason else "",
        story=lead.layout.story,
        probability=share,
        pitch_mm=sections[0].pitch_mm,
        pitch_sigma_mm=sections[0].pitch_sigma_mm,
        sections=sections,
        members=_members(belief, lead, placing),
        rejected=_rejected(belief.evidence, lead, units),
        contradictions=contradictions,
        alternatives=others,
    )


def _doubt(
    belief: Belief,
    lead: Fitted,
    sections: tuple[Section, ...],
    share: float,
    others: tuple[Alternative, ...],
    units: UnitSystem,
) -> str:
    """Why the picture told is not settled; empty where it is."""
    if others and (share < SETTLED or any(a.story == "every second missed" for a in others)):
        named = " or ".join(f"{_in_words(a, units)} ({say_share(a.probability)})" for a in others[:2])
        return f"{named} is possible too."
    over_chance = float(np.log(max(share, 1e-300) / max(belief.nothing, 1e-300)))
    if share < SETTLED or over_chance < OVER_CHANCE or len(members_read(lead)) < SETTLED_MEMBERS_READ:
        return "Few or contradicting readings: chance can make such a row."
    if any(s.pitch_sigma_mm > NARROW * s.pitch_mm for s in sections):
        return "The spacing is not known closely enough yet."
    if any(
        len([j for j in members_read(lead) if lead.layout.section[j] == s.number]) < LEAST_READ_OF_SECTION
        for s in sections[1:]
    ):
        return "The rear stretch is hardly read."
    return ""


def _members(belief: Belief, lead: Fitted, placing: Placing) -> tuple[Member, ...]:
    mean, sigma = placing.x_mm, placing.sigma_mm
    sure, low, high = over_all(belief, mean)
    edge = belief.evidence.half_face
    members: list[Member] = []
    for k in range(len(mean)):
        things = [
            i
            for i, c, s in zip(belief.evidence.ids, lead.belongs, lead.true_share, strict=True)
            if c == k and s > 0.5
        ]
        if not things and not edge <= mean[k] <= belief.evidence.span - edge:
            continue  # nobody has read it and its face would hang over the roof's edge
        status: Literal["read", "inferred", "drawn"] = (
            "read" if things else "drawn" if drawn(belief.evidence) else "inferred"
        )
        members.append(
            Member(
                len(members) + 1,
                lead.layout.section[k],
                float(mean[k]),
                float(sigma[k]),
                float(low[k]),
                float(high[k]),
                float(sure[k]),
                tuple(r for ids in things for r in ids),
                status,
            )
        )
    return tuple(members)


def _in_words(other: Alternative, units: UnitSystem) -> str:
    every = f"every {say_length(other.pitch_mm, units)}"
    return every if other.story == "one spacing" else f"{every}, {other.story}"


def _sections(lead: Fitted, placing: Placing) -> tuple[Section, ...]:
    numbers = np.array(lead.layout.section)
    found = []
    for number, pitch in enumerate(lead.layout.pitches, start=1):
        own = np.flatnonzero(numbers == number)
        found.append(
            Section(
                number,
                float(placing.theta[pitch.column] * pitch.times),
                float(placing.theta_sigma[pitch.column] * pitch.times),
                int(own[0]) + 1,
                int(own[-1]) + 1,
            )
        )
    return tuple(found)


def _alternatives(belief: Belief, groups: list[list[int]]) -> tuple[Alternative, ...]:
    found = []
    for group in groups:
        share = float(belief.weights[group].sum())
        if share >= WORTH_NAMING:
            layout = belief.fits[group[0]].layout
            found.append(
                Alternative(
                    layout.story,
                    layout.pitch_mm(1),
                    float(layout.positions[0]),
                    share,
                    tuple(float(x) for x in layout.positions),
                )
            )
    return tuple(found[:MOST_ALTERNATIVES])


def _contradictions(evidence: Evidence, lead: Fitted) -> tuple[str, ...]:
    positions = lead.layout.positions
    return tuple(
        reading
        for reading, x in zip(evidence.through_ids, evidence.through, strict=True)
        if float(np.abs(positions - x).min()) <= evidence.half_face - BUILD_SCATTER_MM
    )


def _rejected(evidence: Evidence, lead: Fitted, units: UnitSystem) -> tuple[Rejected, ...]:
    out, positions = [], lead.layout.positions
    for readings, x, member, share in zip(
        evidence.ids, evidence.x, lead.belongs, lead.true_share, strict=True
    ):
        if share <= 0.5:
            off = float(x - positions[member])
            where = "behind" if off > 0 else "in front of"
            why = f"{say_length(abs(off), units)} {where} the nearest member: not one of this spacing"
            out += [Rejected(reading, float(x), off, why) for reading in readings]
    return tuple(out)


def not_known(reason: str, remedy: str, others: tuple[Alternative, ...] = ()) -> MemberFit:
    return MemberFit("not known", reason, remedy, "", 0.0, None, None, (), (), (), (), others)
