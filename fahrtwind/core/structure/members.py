"""Fit one section of equally spaced members to readings, some of which are false.

Model: a true reading lands on one of the members of a lattice x = a + p·k, each as likely as any other, with the
noise of its kind; a false one lands anywhere on the roof. A finer lattice has more members to choose from, so each
true reading is worth less: that is what keeps half the true pitch from winning. Candidates come from pairs of
readings, are refined by weighted regression (the weight is the probability of being true) and ranked by likelihood.
A pilot hole that went through skin only speaks against any member at that spot.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.declare import given, is_recording, scope
from fahrtwind.core.formulas.members import member_position, member_uncertainty
from fahrtwind.core.job.document import Reading
from fahrtwind.core.tables.readings import BUILD_SCATTER_MM, RELIABILITY

FloatArray = npt.NDArray[np.float64]
PITCH_RANGE_MM = (250.0, 1400.0)
LEAST_READINGS = 3
LEAST_DISTINCT_MEMBERS = 3
DOUBT_LOG_RATIO = 3.0
"""An alternative spacing within a factor of about 20 in likelihood is still named."""
THROUGH_REACH_MM = 15.0
REFINED = 24
ROUNDS = 12
NEIGHBOURS = 12


@dataclass(frozen=True, slots=True)
class Rejected:
    reading: str
    x_mm: float
    off_mm: float
    reason: str


@dataclass(frozen=True, slots=True)
class Member:
    """One rib or truss: position, one standard deviation, 95 % band and the readings it rests on."""

    number: int
    x_mm: float
    sigma_mm: float
    band_low_mm: float
    band_high_mm: float
    readings: tuple[str, ...]
    status: Literal["read", "inferred"]


@dataclass(frozen=True, slots=True)
class Alternative:
    pitch_mm: float
    first_mm: float
    probability: float


@dataclass(frozen=True, slots=True)
class MemberFit:
    """What the readings say. ``members`` is empty while the spacing is not known."""

    status: Literal["not known", "in doubt", "settled"]
    reason: str
    remedy: str
    pitch_mm: float | None
    pitch_sigma_mm: float | None
    members: tuple[Member, ...]
    rejected: tuple[Rejected, ...]
    contradictions: tuple[str, ...]
    alternatives: tuple[Alternative, ...]


@dataclass(frozen=True, slots=True)
class _Data:
    """Readings as arrays: positions, sigmas, false shares (all of shape (n,)) and through-holes (m,)."""

    ids: tuple[str, ...]
    x: FloatArray
    sigma: FloatArray
    false_share: FloatArray
    through: FloatArray
    through_ids: tuple[str, ...]
    span: float


@dataclass(frozen=True, slots=True)
class _Lattice:
    first: float
    pitch: float
    score: float
    inlier: FloatArray
    covariance: FloatArray


def fit_members(readings: tuple[Reading, ...], roof_length_mm: float) -> MemberFit:
    """Members along a roof from readings. Cached: the same readings give the same fit at once."""
    active = tuple(r for r in readings if not r.struck)
    key = tuple((r.id, r.x.mm, r.kind, r.sigma.mm if r.sigma else None) for r in active)
    fit, best = _fit(key, roof_length_mm)
    if best is not None and is_recording():
        _explain(fit, best)
    return fit


@lru_cache(maxsize=256)
def _fit(key: tuple[tuple[str, float, str, float | None], ...], span: float) -> tuple[MemberFit, _Lattice | None]:
    data = _arrays(key, span)
    if len(data.x) < LEAST_READINGS:
        missing = LEAST_READINGS - len(data.x)
        return _unknown(
            f"{len(data.x)} usable readings: a spacing cannot be told yet.", f"Take at least {missing} more along the roof."
        ), None
    lattices = sorted((_refine(data, a, p) for a, p in _candidates(data)), key=lambda lattice: -lattice.score)
    lattices = [lattice for lattice in lattices if _members_hit(data, lattice) >= LEAST_DISTINCT_MEMBERS]
    if not lattices or lattices[0].score <= _nothing_score(data):
        return _unknown(
            "No regular spacing explains these readings better than chance.",
            "Read three neighbouring members surely (seen, rivet row or magnet), then add more.",
        ), None
    return _as_fit(data, lattices), lattices[0]


def _arrays(key: tuple[tuple[str, float, str, float | None], ...], span: float) -> _Data:
    hits = [k for k in key if k[2] != "pilot_through"]
    through = [k for k in key if k[2] == "pilot_through"]
    trust = [RELIABILITY[k[2]] for k in hits]  # type: ignore[index]
    return _Data(
        ids=tuple(k[0] for k in hits),
        x=np.array([k[1] for k in hits], dtype=float),
        sigma=np.array([k[3] if k[3] is not None else t.sigma_mm for k, t in zip(hits, trust, strict=True)], dtype=float),
        false_share=np.array([t.false_share for t in trust], dtype=float),
        through=np.array([k[1] for k in through], dtype=float),
        through_ids=tuple(k[0] for k in through),
        span=span,
    )


def _candidates(data: _Data) -> list[tuple[float, float]]:
    """(first, pitch) pairs suggested by pairs of readings, best by a quick score."""
    order = np.argsort(data.x)
    x = data.x[order]
    pairs = [(x[i], x[j] - x[i]) for i in range(len(x)) for j in range(i + 1, min(i + 1 + NEIGHBOURS, len(x)))]
    seeds = {
        (round(float(gap) / k, 0), round(float(start), 0))
        for start, gap in pairs
        for k in range(1, 1 + int(gap / PITCH_RANGE_MM[0]))
        if PITCH_RANGE_MM[0] <= gap / k <= PITCH_RANGE_MM[1]
    }
    if not seeds:
        return []
    pitch, first = np.array(sorted(seeds)).T
    scores = np.concatenate([
        _scores(data, first[i : i + 2000], pitch[i : i + 2000]) for i in range(0, len(pitch), 2000)
    ])  # fmt: skip
    best, kept = np.argsort(-scores), list[tuple[float, float]]()
    for i in best:
        if all(abs(pitch[i] - p) > 4 or abs(_wrap(first[i] - a, p)) > 15 for a, p in kept):
            kept.append((float(first[i]), float(pitch[i])))
        if len(kept) == REFINED:
            break
    return kept


def _wrap(offset: float, pitch: float) -> float:
    return offset - pitch * round(offset / pitch)


def _densities(data: _Data, first: FloatArray, pitch: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Probability densities (c, n) of each reading being true, and (n,) false, for c lattices."""
    off = data.x - first[:, None]
    off = off - pitch[:, None] * np.round(off / pitch[:, None])
    spread = np.hypot(data.sigma, BUILD_SCATTER_MM)
    count = np.maximum(data.span / pitch[:, None], 1.0)
    true = (1 - data.false_share) / count * np.exp(-0.5 * (off / spread) ** 2) / (spread * np.sqrt(2 * np.pi))
    return true, data.false_share / data.span


def _scores(data: _Data, first: FloatArray, pitch: FloatArray) -> FloatArray:
    true, false = _densities(data, first, pitch)
    score: FloatArray = np.log(true + false).sum(axis=1)
    if len(data.through):
        off = data.through - first[:, None]
        off = off - pitch[:, None] * np.round(off / pitch[:, None])
        score = score + np.log(1 - 0.98 * np.exp(-0.5 * (off / THROUGH_REACH_MM) ** 2)).sum(axis=1)
    return score


def _nothing_score(data: _Data) -> float:
    return float(-len(data.x) * np.log(data.span))


def _refine(data: _Data, first: float, pitch: float) -> _Lattice:
    """Weighted least squares of position on count, weights renewed from the probability of being true."""
    covariance = np.zeros((2, 2))
    variance = data.sigma**2 + BUILD_SCATTER_MM**2
    for _ in range(ROUNDS):
        true, false = _densities(data, np.array([first]), np.array([pitch]))
        inlier = true[0] / (true[0] + false)
        count = np.round((data.x - first) / pitch)
        weight = inlier / variance
        design = np.stack([np.ones_like(count), count], axis=1)
        normal = design.T @ (design * weight[:, None])
        if np.linalg.cond(normal) > 1e12:
            break
        covariance = np.linalg.inv(normal)
        first, pitch = (float(v) for v in covariance @ (design.T @ (weight * data.x)))
        if not PITCH_RANGE_MM[0] <= pitch <= PITCH_RANGE_MM[1]:
            return _Lattice(first, max(pitch, 1.0), -np.inf, np.zeros_like(data.x), covariance)
    residual = data.x - first - pitch * np.round((data.x - first) / pitch)
    freedom = max(float(inlier.sum()) - 2, 1.0)
    inflation = max(1.0, float((inlier * residual**2 / variance).sum()) / freedom)
    shift = float(np.floor(first / pitch))  # count members from the first one on the roof
    move = np.array([[1.0, -shift], [0.0, 1.0]])
    covariance = move @ (covariance * inflation) @ move.T
    first -= shift * pitch
    score = float(_scores(data, np.array([first]), np.array([pitch]))[0])
    return _Lattice(first, pitch, score, inlier, covariance)


def _members_hit(data: _Data, lattice: _Lattice) -> int:
    if not np.isfinite(lattice.score):
        return 0
    return len(set(np.round((data.x - lattice.first) / lattice.pitch)[lattice.inlier > 0.5].tolist()))


def _as_fit(data: _Data, lattices: list[_Lattice]) -> MemberFit:
    best = lattices[0]
    others = _alternatives(lattices)
    members = _members(data, best)
    contradictions = tuple(
        reading for reading, x in zip(data.through_ids, data.through, strict=True)
        if abs(_wrap(x - best.first, best.pitch)) <= THROUGH_REACH_MM
    )  # fmt: skip
    doubt = bool(others) or bool(contradictions)
    named = " or ".join(f"{a.pitch_mm:.0f} mm" for a in others)
    return MemberFit(
        status="in doubt" if doubt else "settled",
        reason=f"A spacing of {named} explains the readings nearly as well." if others
        else ("A pilot hole went through where a member should be." if contradictions else ""),
        remedy="Read one more spot halfway between two members, and one where only this spacing has a member." if doubt else "",
        pitch_mm=best.pitch, pitch_sigma_mm=float(np.sqrt(best.covariance[1, 1])),
        members=members, rejected=_rejected(data, best), contradictions=contradictions, alternatives=others,
    )  # fmt: skip


def _alternatives(lattices: list[_Lattice]) -> tuple[Alternative, ...]:
    best, rivals = lattices[0], list[_Lattice]()
    for other in lattices[1:]:
        differs = (
            abs(other.pitch - best.pitch) > 0.02 * best.pitch
            or abs(_wrap(other.first - best.first, best.pitch)) > 0.1 * best.pitch
        )
        seen = any(
            abs(other.pitch - r.pitch) < 0.02 * r.pitch and abs(_wrap(other.first - r.first, r.pitch)) < 30 for r in rivals
        )
        if differs and not seen and best.score - other.score < DOUBT_LOG_RATIO:
            rivals.append(other)
    weights = np.exp([r.score - best.score for r in (best, *rivals)])
    shares = weights / weights.sum()
    return tuple(Alternative(r.pitch, r.first, float(s)) for r, s in zip(rivals, shares[1:], strict=True))


def _members(data: _Data, best: _Lattice) -> tuple[Member, ...]:
    counts = np.round((data.x - best.first) / best.pitch)
    members = []
    for k in range(int(np.floor((data.span - best.first) / best.pitch)) + 1):
        x, sigma = _position(best, k)
        read = tuple(i for i, c, w in zip(data.ids, counts, best.inlier, strict=True) if c == k and w > 0.5)
        members.append(Member(k + 1, x, sigma, x - 1.96 * sigma, x + 1.96 * sigma, read, "read" if read else "inferred"))
    return tuple(members)


def _position(best: _Lattice, k: int) -> tuple[float, float]:
    first = given(best.first, "inferred", "fit to the readings")
    pitch = given(best.pitch, "inferred", "fit to the readings")
    c = best.covariance
    x = member_position(first, pitch, float(k))
    sigma = member_uncertainty(
        given(float(c[0, 0]), "inferred", "fit to the readings"), given(float(c[0, 1]), "inferred", "fit to the readings"),
        given(float(c[1, 1]), "inferred", "fit to the readings"), float(k), given(BUILD_SCATTER_MM, "default", "common practice"),
    )  # fmt: skip
    return float(x), float(sigma)


def _rejected(data: _Data, best: _Lattice) -> tuple[Rejected, ...]:
    out = []
    for reading, x, weight in zip(data.ids, data.x, best.inlier, strict=True):
        if weight <= 0.5:
            off = _wrap(float(x) - best.first, best.pitch)
            where = "behind" if off > 0 else "in front of"
            out.append(Rejected(reading, float(x), off, f"{abs(off):.0f} mm {where} the nearest member: not one of this spacing"))
    return tuple(out)


def _unknown(reason: str, remedy: str) -> MemberFit:
    return MemberFit("not known", reason, remedy, None, None, (), (), (), ())


def _explain(fit: MemberFit, best: _Lattice) -> None:
    for member in fit.members:
        with scope("structure", f"member {member.number}"):
            _position(best, member.number - 1)
