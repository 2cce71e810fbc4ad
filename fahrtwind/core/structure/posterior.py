"""How well a hypothesis explains the evidence: likelihood, fit and posterior weight.

Model. Each member within reach of the search is noticed with a chance d (unknown, averaged over a grid); a noticed member
gives one reading and with chance ``again`` each time another. A true reading stands off its member by the noise of its
kind, the member off the perfect spacing by the build scatter. False readings fall anywhere at the rate of their kind. A
declared scan misses a member inside it at the rate of its kind; a pilot hole through skin only excludes a member there.
The weight of a hypothesis is its prior times the likelihood integrated over its parameters (Laplace's approximation).
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt
from scipy.special import ndtr

from fahrtwind.core.structure.evidence import Evidence
from fahrtwind.core.structure.layouts import Layout, trimmed
from fahrtwind.core.tables.readings import (
    BUILD_SCATTER_MM,
    PITCH_RANGE_MM,
    USUAL_PITCH_MM,
    USUAL_SPREAD,
    WRONG_FACT_SHARE,
)

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
NOTICED = np.array([0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 0.97])
NOTICED_PRIOR = np.array([0.06, 0.1, 0.15, 0.19, 0.2, 0.16, 0.1, 0.04])
USUALLY_NOTICED = 0.65
ROUNDS = 8
STILL_MM = 0.05
OTHER_SPREAD = 0.35
"""An odd bay or a second pitch that nothing else tells about: like the first pitch, give or take 35 %."""
KNOWN_BAY_SPREAD_MM = 10.0
LARGEST_LOG = 500.0
MOSTLY_FALSE = 0.4
OVERLOOKED = 0.15
"""Chance that someone who sees two members from inside overlooks one between them."""
BARE_END = 4.0
"""Log penalty for each pitch of roof that a hypothesis leaves without a member beyond one whole bay at an end."""


@dataclass(frozen=True, slots=True, eq=False)
class Fitted:
    """A layout with its best parameters, their covariance, the log of its weight, and how the readings belong.

    ``belongs`` (n,) is the member each reading is nearest to, ``true_share`` (n,) the chance that it really is one of it.
    """

    layout: Layout
    covariance: FloatArray
    log_weight: float
    belongs: IntArray
    true_share: FloatArray


def fit(evidence: Evidence, layout: Layout) -> Fitted | None:
    """Fit a layout by reweighted least squares; None where the evidence drives it out of the usual spacings."""
    prior_mean, prior_precision = _parameter_prior(evidence, layout)
    covariance = np.linalg.inv(prior_precision)
    for _ in range(ROUNDS):
        belongs, true_share, _ = _explain(evidence, layout)
        normal, right = _normal_equations(evidence, layout, belongs, true_share)
        covariance = np.linalg.inv(normal + prior_precision)
        theta = covariance @ (right + prior_precision @ prior_mean)
        moved = float(np.abs(layout.design @ (theta - layout.theta)).max())
        layout = replace(layout, theta=theta)
        if not _usual(layout):
            return None
        if moved < STILL_MM:
            break
    layout = trimmed(layout, evidence.span)
    belongs, true_share, score = _explain(evidence, layout)
    volume = 0.5 * float(np.linalg.slogdet(2 * np.pi * covariance)[1])
    weight = np.log(layout.prior) + score + volume + _log_prior_density(evidence, layout)
    return Fitted(layout, np.asarray(covariance, dtype=float), float(weight), belongs, true_share)


def quick_score(evidence: Evidence, layout: Layout) -> float:
    """Likelihood at the layout's own parameters, to sort candidates by."""
    return _explain(evidence, layout)[2]


def log_null(evidence: Evidence, prior: float) -> float:
    """Weight of the readings having nothing to do with members: all of them false, at a higher rate than usual."""
    return float(np.log(prior) + len(evidence.x) * np.log(MOSTLY_FALSE * max(len(evidence.x), 1) / evidence.span))


def _usual(layout: Layout) -> bool:
    low, high = PITCH_RANGE_MM
    pitches = [layout.theta[c] for c in layout.pitch_columns]
    bays = [layout.theta[c] for c in layout.bay_columns]
    return all(low <= p <= high for p in pitches) and all(0.2 * pitches[0] < b < 1.9 * pitches[0] for b in bays)


def _explain(evidence: Evidence, layout: Layout) -> tuple[IntArray, FloatArray, float]:
    """Which member each reading belongs to, the chance that it does, and the log likelihood."""
    positions = layout.positions
    if len(evidence.x) == 0:
        return np.zeros(0, dtype=np.int64), np.zeros(0), 0.0
    belongs = np.clip(np.searchsorted((positions[1:] + positions[:-1]) / 2, evidence.x), 0, len(positions) - 1)
    off = evidence.x - positions[belongs]
    spread = np.hypot(evidence.sigma, BUILD_SCATTER_MM)
    ratio = np.exp(-0.5 * (off / spread) ** 2) / (spread * np.sqrt(2 * np.pi)) / evidence.rate
    ratio = np.where(layout.silent[belongs], 0.0, ratio)
    gain = np.log1p(evidence.again * ratio)
    grown = np.bincount(belongs, gain, minlength=len(positions))
    lifted = np.expm1(np.minimum(grown, LARGEST_LOG))
    hit = (1 - evidence.again) / evidence.again * lifted
    noticed = USUALLY_NOTICED * hit / (1 - USUALLY_NOTICED + USUALLY_NOTICED * hit)
    sure = (lifted[belongs] + 1) / np.maximum(lifted[belongs], 1e-300)
    true_share = np.minimum(noticed[belongs] * evidence.again * ratio / (1 + evidence.again * ratio) * sure, 1.0)
    score = float(np.log(evidence.rate).sum()) + _walk_score(evidence, layout, positions, hit) + _open_bay_score(evidence, layout)
    return belongs, true_share, score + _scan_score(evidence, layout, positions) + _through_score(evidence, positions)


def _walk_score(evidence: Evidence, layout: Layout, positions: FloatArray, hit: FloatArray) -> float:
    """Members noticed and missed along the walked stretch, averaged over how attentive the walk was."""
    if evidence.walked is None:
        return float(np.log1p(hit[hit > 0]).sum()) if len(hit) else 0.0
    low, high = evidence.walked
    seen = (positions >= low) & (positions <= high) & ~layout.silent
    chance = np.log(1 + NOTICED[:, None] * (hit[seen] - 1)).sum(axis=1)
    top = chance.max()
    return float(top + np.log(NOTICED_PRIOR @ np.exp(chance - top)))


def _open_bay_score(evidence: Evidence, layout: Layout) -> float:
    """Members that a search never notices would still have been seen where two members in a row were seen from inside."""
    if not layout.silent.any():
        return 0.0
    hidden, x, score = layout.positions[layout.silent], evidence.x, 0.0
    for i in range(len(x) - 1):
        if evidence.kinds[i] == evidence.kinds[i + 1] == "seen" and ((hidden > x[i] + 60) & (hidden < x[i + 1] - 60)).any():
            score += np.log(OVERLOOKED)
    return float(max(score, 3 * np.log(OVERLOOKED)))


def _scan_score(evidence: Evidence, layout: Layout, positions: FloatArray) -> float:
    score = 0.0
    for scan in evidence.scans:
        miss = evidence.trust[scan.kind].miss_share
        inside = positions[(positions >= scan.start_mm) & (positions <= scan.end_mm)]
        own = evidence.x[[kind == scan.kind for kind in evidence.kinds]]
        if len(own):
            near = np.abs(inside[:, None] - own[None, :]).min(axis=1) < 3 * np.hypot(
                evidence.trust[scan.kind].sigma_mm, BUILD_SCATTER_MM
            )
        else:
            near = np.zeros(len(inside), dtype=bool)
        score += float(near.sum() * np.log(1 - miss) + (~near).sum() * np.log(miss))
    return score


def _through_score(evidence: Evidence, positions: FloatArray) -> float:
    if not len(evidence.through):
        return 0.0
    reliable = 1 - evidence.trust["pilot_through"].false_share
    spread = float(np.hypot(BUILD_SCATTER_MM, evidence.trust["pilot_through"].sigma_mm))
    off = np.abs(evidence.through[:, None] - positions[None, :]).min(axis=1)
    in_member = ndtr((evidence.half_face - off) / spread) - ndtr((-evidence.half_face - off) / spread)
    return float(np.log(1 - reliable * in_member).sum())


def _normal_equations(
    evidence: Evidence, layout: Layout, belongs: IntArray, true_share: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Readings of one member share its deviation from the spacing, so they are pooled before they are weighed."""
    n = len(layout.design)
    precision = np.bincount(belongs, true_share / evidence.sigma**2, minlength=n)
    moment = np.bincount(belongs, true_share / evidence.sigma**2 * evidence.x, minlength=n)
    read = precision > 1e-9
    weight = 1 / (1 / precision[read] + BUILD_SCATTER_MM**2)
    rows = layout.design[read]
    return rows.T @ (rows * weight[:, None]), rows.T @ (weight * moment[read] / precision[read])


def _parameter_prior(evidence: Evidence, layout: Layout) -> tuple[FloatArray, FloatArray]:
    """Mean and precision that keep parameters the readings do not reach: odd bays, known facts."""
    mean, precision = layout.theta.copy(), np.full(len(layout.theta), 1e-8)
    for column in range(2, len(layout.theta)):
        mean[column], spread = _told_by_the_first(evidence, layout)
        precision[column] = 1 / spread**2
    facts = evidence.facts
    if facts.pitch_mm is not None and abs(layout.theta[1] - facts.pitch_mm) < 3 * facts.pitch_within_mm:
        mean[1], precision[1] = facts.pitch_mm, 1 / facts.pitch_within_mm**2
    return mean, np.diag(precision)


def _told_by_the_first(evidence: Evidence, layout: Layout) -> tuple[float, float]:
    """Mean and spread of an odd bay or of a second pitch before any reading: like the first pitch, unless it is known."""
    pitch, facts = float(layout.theta[1]), evidence.facts
    known = {"odd front bay": facts.front_bay_mm, "odd rear bay": facts.rear_bay_mm}.get(layout.story)
    return (pitch, OTHER_SPREAD * pitch) if known is None else (known, KNOWN_BAY_SPREAD_MM)


def _log_prior_density(evidence: Evidence, layout: Layout) -> float:
    """Log density of the parameters before any reading: phase even, pitch usual or as the drawing says, odd bay broad."""
    pitch = float(layout.theta[1])
    total = -np.log(pitch)
    total += _log_usual_pitch(pitch)
    facts = evidence.facts
    if facts.pitch_mm is not None:
        usual = _log_usual_pitch(pitch) + np.log(WRONG_FACT_SHARE)
        told = _log_normal(pitch, facts.pitch_mm, facts.pitch_within_mm) + np.log(1 - WRONG_FACT_SHARE)
        total += float(np.logaddexp(usual, told)) - _log_usual_pitch(pitch)
    bare = (layout.positions[0] / pitch, (evidence.span - layout.positions[-1]) / float(layout.theta[layout.pitch_columns[-1]]))
    total -= BARE_END * sum(max(0.0, end - 1.0) for end in bare)
    for known, story in ((facts.front_bay_mm, "odd front bay"), (facts.rear_bay_mm, "odd rear bay")):
        if known is not None and layout.story != story and abs(known - pitch) > 3 * KNOWN_BAY_SPREAD_MM:
            total += np.log(WRONG_FACT_SHARE)
    for column in range(2, len(layout.theta)):
        total += _log_normal(float(layout.theta[column]), *_told_by_the_first(evidence, layout))
    return float(total)


def _log_usual_pitch(pitch: float) -> float:
    return _log_normal(float(np.log(pitch)), float(np.log(USUAL_PITCH_MM)), USUAL_SPREAD) - float(np.log(pitch))


def _log_normal(x: float, mean: float, spread: float) -> float:
    return float(-0.5 * ((x - mean) / spread) ** 2 - np.log(spread * np.sqrt(2 * np.pi)))
