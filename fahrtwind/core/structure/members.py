"""Where the members are: every hypothesis weighed, one told, the others named.

The answer is a mixture. Positions and intervals come from the leading story; the confidence of a member is the chance,
over all hypotheses, that a member really stands within ``CLOSE_MM`` of where it is drawn.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
import numpy.typing as npt
from scipy.special import logsumexp, ndtr

from fahrtwind.core.formulas.declare import is_recording
from fahrtwind.core.job.document import Job, Trust
from fahrtwind.core.quantities import say_share
from fahrtwind.core.structure.candidates import candidates
from fahrtwind.core.structure.evidence import Evidence, KindTrust, KnownFacts, ReadingFact, ScanFact, gather
from fahrtwind.core.structure.placing import Placing, explain_member, place
from fahrtwind.core.structure.posterior import Fitted, log_null
from fahrtwind.core.tables.readings import BUILD_SCATTER_MM, NO_SPACING_SHARE, RELIABILITY

FloatArray = npt.NDArray[np.float64]
CLOSE_MM = 15.0
"""A member counts as where it is drawn if it stands within this distance: about the room a foot has on a rib's face."""
LEAST_READINGS = 3
LEAST_MEMBERS_READ = 3
SETTLED, TELLABLE, WORTH_NAMING = 0.90, 0.35, 0.02
OVER_CHANCE, SETTLED_MEMBERS_READ = 9.0, 4
"""Settled needs odds of e⁹ against readings that fell anywhere, and four members read: rows by chance stay in doubt."""
SAME_PITCH, SAME_PLACE_MM = 0.015, 30.0
NEGLIGIBLE, NEGLIGIBLE_SHARE = 12.0, 0.002
MOST_ALTERNATIVES = 4


@dataclass(frozen=True, slots=True)
class Rejected:
    reading: str
    x_mm: float
    off_mm: float
    reason: str


@dataclass(frozen=True, slots=True)
class Member:
    """One rib or truss: position, one standard deviation, 95 % band, the chance that it is there, the readings it rests on."""

    number: int
    section: int
    x_mm: float
    sigma_mm: float
    band_low_mm: float
    band_high_mm: float
    confidence: float
    readings: tuple[str, ...]
    status: Literal["read", "inferred"]


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
    """What the readings say. ``members`` is empty while the spacing is not known; ``pitch_mm`` is the first section's."""

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


@dataclass(frozen=True, slots=True, eq=False)
class Belief:
    """All hypotheses with their weights (sum 1 with ``nothing``, the weight of there being no spacing), best first."""

    evidence: Evidence
    fits: tuple[Fitted, ...]
    weights: FloatArray
    nothing: float


def fit_job_members(job: Job, span_mm: float) -> MemberFit:
    """The members of a job's roof from its readings, scans and known facts; struck ones do not count."""
    fit, belief = _fit(evidence_key(job, span_mm))
    if belief is not None and fit.members and is_recording():
        lead = belief.fits[stories(belief)[0][0]]
        placing = place(belief.evidence, lead)
        for member in fit.members:
            explain_member(lead, placing, member.number)
    return fit


def evidence_key(job: Job, span_mm: float) -> EvidenceKey:
    """What the finder reads of a job, hashable: the same evidence gives the same fit at once."""
    readings = tuple(ReadingFact(r.id, r.x.mm, r.kind, r.sigma.mm if r.sigma else None) for r in job.readings if not r.struck)
    scans = tuple(ScanFact(s.id, min(s.start.mm, s.end.mm), max(s.start.mm, s.end.mm), s.kind) for s in job.scans if not s.struck)
    m = job.members
    facts = KnownFacts(
        m.known_pitch.mm if m.known_pitch else None, m.known_pitch_within.mm if m.known_pitch_within else 10.0,
        m.known_front_bay.mm if m.known_front_bay else None, m.known_rear_bay.mm if m.known_rear_bay else None,
    )  # fmt: skip
    trust = tuple(_overruled(t) for t in job.trust)
    return EvidenceKey(readings, scans, facts, span_mm, m.face_width.mm if m.face_width else None, trust)


def _overruled(trust: Trust) -> KindTrust:
    usual = RELIABILITY[trust.kind]
    return KindTrust(
        trust.kind, trust.sigma.mm if trust.sigma else usual.sigma_mm,
        usual.false_share if trust.false_share is None else trust.false_share,
        usual.miss_share if trust.miss_share is None else trust.miss_share,
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class EvidenceKey:
    readings: tuple[ReadingFact, ...]
    scans: tuple[ScanFact, ...]
    facts: KnownFacts
    span_mm: float
    face_mm: float | None
    trust: tuple[KindTrust, ...] = ()


def fit_members(key: EvidenceKey) -> MemberFit:
    return _fit(key)[0]


def belief_of(key: EvidenceKey) -> Belief | None:
    """The hypotheses behind a fit, for whoever plans the next reading; None where there is nothing to weigh."""
    return _fit(key)[1]


@lru_cache(maxsize=256)
def _fit(key: EvidenceKey) -> tuple[MemberFit, Belief | None]:
    evidence = gather(key.readings, key.scans, key.facts, key.span_mm, key.face_mm, key.trust)
    belief = believe(evidence)
    if len(evidence.x) < LEAST_READINGS:
        missing = LEAST_READINGS - len(evidence.x)
        fit = _unknown(
            f"{len(evidence.x)} usable readings: a spacing cannot be told yet.", f"Take at least {missing} more along the roof."
        )
        return fit, belief
    if belief is None:
        return _unknown(
            "No regular spacing explains these readings.",
            "Read three neighbouring members surely (seen, rivet row or magnet), then add more.",
        ), None
    return _told(belief), belief


def believe(evidence: Evidence) -> Belief | None:
    """Weigh all hypotheses against one another and against there being no spacing at all."""
    fits = sorted(candidates(evidence), key=lambda f: -f.log_weight)
    fits = _distinct([f for f in fits if f.log_weight > fits[0].log_weight - NEGLIGIBLE])
    if not fits:
        return None
    logs = np.array([f.log_weight for f in fits] + [log_null(evidence, NO_SPACING_SHARE)])
    weights = np.exp(logs - logsumexp(logs))
    return Belief(evidence, tuple(fits), weights[:-1], float(weights[-1]))


def _distinct(fits: list[Fitted]) -> list[Fitted]:
    """One hypothesis of each set of positions: candidates that ran into the same place count once."""
    kept: list[Fitted] = []
    for fit in fits:
        here = fit.layout.positions
        twin = any(
            k.layout.story == fit.layout.story and len(k.layout.positions) == len(here)
            and float(np.abs(k.layout.positions - here).max()) < 6.0
            for k in kept
        )  # fmt: skip
        if not twin:
            kept.append(fit)
    return kept


def _told(belief: Belief) -> MemberFit:
    groups = stories(belief)
    best, share = groups[0][0], float(sum(belief.weights[i] for i in groups[0]))
    lead = belief.fits[best]
    read = {int(j) for j, s in zip(lead.belongs, lead.true_share, strict=True) if s > 0.5}
    if share < TELLABLE or len(read) < LEAST_MEMBERS_READ:
        others = _alternatives(belief, groups)
        return _unknown(
            "No regular spacing explains these readings well enough.",
            "Read three neighbouring members surely (seen, rivet row or magnet), then add more.", others,
        )  # fmt: skip
    placing = place(belief.evidence, lead)
    members = _members(belief, lead, placing)
    others = _alternatives(belief, groups[1:])
    contradictions = _contradictions(belief.evidence, lead)
    over_chance = float(np.log(max(share, 1e-300) / max(belief.nothing, 1e-300)))
    by_chance = over_chance < OVER_CHANCE or len(read) < SETTLED_MEMBERS_READ
    doubt = share < SETTLED or by_chance or bool(contradictions or others)
    named = " or ".join(f"{_in_words(a)} ({say_share(a.probability)})" for a in others[:2])
    reason = "A pilot hole went through where a member should be." if contradictions else (
        f"{named} is possible too." if named else "Few or contradicting readings: chance can make such a row." if doubt else "")  # fmt: skip
    return MemberFit(
        status="in doubt" if doubt else "settled", reason=reason[:1].upper() + reason[1:],
        remedy="Check at the flag: it is the spot that settles most." if doubt else "",
        story=lead.layout.story, probability=share, pitch_mm=float(placing.theta[1]),
        pitch_sigma_mm=float(placing.theta_sigma[1]), sections=_sections(lead, placing), members=members,
        rejected=_rejected(belief.evidence, lead), contradictions=contradictions, alternatives=others,
    )  # fmt: skip


def stories(belief: Belief) -> list[list[int]]:
    """Hypotheses that put most members in the same places belong to one story; heaviest story first."""
    groups: list[list[int]] = []
    for i, fit in enumerate(belief.fits):
        home = next((g for g in groups if _same_story(belief.fits[g[0]], fit)), None)
        if home is None:
            groups.append([i])
        else:
            home.append(i)
    return sorted(groups, key=lambda g: -float(belief.weights[g].sum()))


def _same_story(one: Fitted, other: Fitted) -> bool:
    """The same but for the two ends: an unread odd bay is no other spacing."""
    a, b = one.layout.positions, other.layout.positions
    if len(one.layout.pitch_columns) != len(other.layout.pitch_columns) or min(len(a), len(b)) < 2:
        return False
    pitches = zip(one.layout.pitch_columns, other.layout.pitch_columns, strict=True)
    if any(abs(one.layout.theta[i] / other.layout.theta[j] - 1) > SAME_PITCH for i, j in pitches):
        return False
    inner = a[1:-1] if len(a) > 3 else a
    return bool(np.mean(np.abs(inner[:, None] - b[None, :]).min(axis=1) < SAME_PLACE_MM) > 0.8)


def _members(belief: Belief, lead: Fitted, placing: Placing) -> tuple[Member, ...]:
    mean, sigma = placing.x_mm, placing.sigma_mm
    sure = confidence(belief, mean)
    members = []
    for k in range(len(mean)):
        read = tuple(i for i, c, s in zip(belief.evidence.ids, lead.belongs, lead.true_share, strict=True) if c == k and s > 0.5)
        band = 1.96 * float(sigma[k])
        members.append(Member(
            k + 1, lead.layout.section[k], float(mean[k]), float(sigma[k]), float(mean[k]) - band, float(mean[k]) + band,
            float(sure[k]), read, "read" if read else "inferred",
        ))  # fmt: skip
    return tuple(members)


def confidence(belief: Belief, x_mm: FloatArray) -> FloatArray:
    """Chance that a member stands within ``CLOSE_MM`` of each x, over all hypotheses; shape like ``x_mm``."""
    total = np.zeros_like(x_mm)
    for weight, fit in zip(belief.weights, belief.fits, strict=True):
        if weight < NEGLIGIBLE_SHARE:
            continue
        placing = place(belief.evidence, fit)
        nearest = np.abs(x_mm[:, None] - placing.x_mm[None, :]).argmin(axis=1)
        m, s = placing.x_mm[nearest], placing.sigma_mm[nearest]
        total += weight * (ndtr((x_mm + CLOSE_MM - m) / s) - ndtr((x_mm - CLOSE_MM - m) / s))
    return total


def _in_words(other: Alternative) -> str:
    every = f"every {other.pitch_mm:.0f} mm"
    return every if other.story == "one spacing" else f"{every}, {other.story}"


def _sections(lead: Fitted, placing: Placing) -> tuple[Section, ...]:
    numbers = np.array(lead.layout.section)
    found = []
    for number, column in enumerate(lead.layout.pitch_columns, start=1):
        own = np.flatnonzero(numbers == number)
        found.append(Section(
            number, float(placing.theta[column]), float(placing.theta_sigma[column]), int(own[0]) + 1, int(own[-1]) + 1,
        ))  # fmt: skip
    return tuple(found)


def _alternatives(belief: Belief, groups: list[list[int]]) -> tuple[Alternative, ...]:
    found = []
    for group in groups:
        share = float(belief.weights[group].sum())
        if share >= WORTH_NAMING:
            layout = belief.fits[group[0]].layout
            found.append(Alternative(
                layout.story, float(layout.theta[1]), float(layout.positions[0]), share, tuple(float(x) for x in layout.positions),
            ))  # fmt: skip
    return tuple(found[:MOST_ALTERNATIVES])


def _contradictions(evidence: Evidence, lead: Fitted) -> tuple[str, ...]:
    positions = lead.layout.positions
    return tuple(
        reading for reading, x in zip(evidence.through_ids, evidence.through, strict=True)
        if float(np.abs(positions - x).min()) <= evidence.half_face - BUILD_SCATTER_MM
    )  # fmt: skip


def _rejected(evidence: Evidence, lead: Fitted) -> tuple[Rejected, ...]:
    out, positions = [], lead.layout.positions
    for reading, x, member, share in zip(evidence.ids, evidence.x, lead.belongs, lead.true_share, strict=True):
        if share <= 0.5:
            off = float(x - positions[member])
            where = "behind" if off > 0 else "in front of"
            out.append(Rejected(reading, float(x), off, f"{abs(off):.0f} mm {where} the nearest member: not one of this spacing"))
    return tuple(out)


def _unknown(reason: str, remedy: str, others: tuple[Alternative, ...] = ()) -> MemberFit:
    return MemberFit("not known", reason, remedy, "", 0.0, None, None, (), (), (), (), others)
