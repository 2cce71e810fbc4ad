"""How well a hypothesis explains the evidence: likelihood, fit and posterior weight.

Model. A member is noticed by each channel on its own: on a walk with a chance d (unknown, averaged over a
grid), by a declared scan at the rate of its kind, at a spot that somebody tested. A member that a channel
noticed gives it one reading, and with chance ``again`` each time another. A true reading stands off its
member by the noise of its kind, the member off the perfect spacing by the build scatter. False readings fall
anywhere at the rate of their kind. A member inside a scan or a walk that gives no reading was missed there;
beyond them nothing was looked for. A pilot hole through skin only excludes a member there. The weight of a
hypothesis is its prior times the likelihood integrated over its parameters (Laplace's approximation).
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.normal import normal_between
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.structure.evidence import LEAST_FACT_MM, Evidence, KnownFacts
from fahrtwind.core.stations.structure.layouts import Layout, trimmed
from fahrtwind.core.tables.readings import (
    BUILD_SCATTER_MM,
    PITCH_RANGE_MM,
    USUAL_PITCH_MM,
    USUAL_SPREAD,
    WRONG_FACT_SHARE,
)

FloatArray = npt.NDArray[np.float64]
IntArray = npt.NDArray[np.int64]
SQRT_TAU = float(np.sqrt(2 * np.pi))
NOTICED = np.array([0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 0.97])
NOTICED_PRIOR = np.array([0.06, 0.1, 0.15, 0.19, 0.2, 0.16, 0.1, 0.04])
USUALLY_NOTICED = 0.65
ROUNDS = 8
STILL_MM = 0.05
OTHER_SPREAD = 0.35
"""An odd bay that nothing else tells about: like the bays beside it, give or take 35 %."""
SPOT_NOTICED = 0.98
"""A pilot hole over a member is solid, nearly always."""
FACT_REACH = 4.0
"""A known pitch or end bay that the readings put further off than so many deviations is taken for another
vehicle's.
"""
KNOWN_BAY_SPREAD_MM = 10.0
LARGEST_LOG = 500.0
MOSTLY_FALSE = 0.4
OVERLOOKED = 0.15
"""Chance that someone who sees two members from inside overlooks one between them."""
BARE_END = 4.0
"""Log penalty for each pitch of roof that a hypothesis leaves without a member beyond one whole bay at an
end.
"""


@dataclass(frozen=True, slots=True, eq=False)
class Fitted:
    """A layout with its best parameters, their covariance, the log of its weight, and how the readings
    belong.

    ``belongs`` (n,) is the member each reading is nearest to, ``true_share`` (n,) the chance that it really
    is one of it.
    """

    layout: Layout
    covariance: FloatArray
    log_weight: float
    belongs: IntArray
    true_share: FloatArray


def fit(evidence: Evidence, layout: Layout) -> Fitted | None:
    """Fit a layout by reweighted least squares; None where the evidence drives it out of the usual
    spacings.
    """
    precision, pull = parameter_prior(evidence, layout)
    covariance = np.linalg.inv(precision)
    for _ in range(ROUNDS):
        belongs, true_share = _belonging(evidence, layout)
        normal, right = _normal_equations(evidence, layout, belongs, true_share)
        covariance = np.linalg.inv(normal + precision)
        theta = covariance @ (right + pull)
        moved = float(np.abs(layout.design @ (theta - layout.theta)).max())
        layout = replace(layout, theta=theta)
        if not _usual(layout):
            return None
        if moved < STILL_MM:
            break
    layout = trimmed(layout, evidence.span)
    belongs, true_share = _belonging(evidence, layout)
    volume = 0.5 * float(np.linalg.slogdet(2 * np.pi * covariance)[1])
    likelihood = _log_likelihood(evidence, layout)
    weight = np.log(layout.prior) + likelihood + volume + _log_prior_density(evidence, layout)
    return Fitted(layout, np.asarray(covariance, dtype=float), float(weight), belongs, true_share)


def quick_score(evidence: Evidence, layout: Layout) -> float:
    """Likelihood at the layout's own parameters, to sort candidates by. A log, without unit."""
    return _log_likelihood(evidence, layout)


def log_null(evidence: Evidence, prior: float) -> float:
    """Weight of the readings having nothing to do with members: all of them false, at a higher rate than
    usual. A log weight; ``prior`` is the share (0 to 1) it had before any reading.
    """
    bunches = int(evidence.first.sum())
    anywhere = bunches * np.log(MOSTLY_FALSE * max(bunches, 1) / evidence.span)
    return float(np.log(prior) + anywhere + np.log(evidence.rate[~evidence.first]).sum())


def _usual(layout: Layout) -> bool:
    low, high = PITCH_RANGE_MM
    pitches = [layout.pitch_mm(i + 1) for i in range(len(layout.pitches))]
    beside = {"front": pitches[0], "rear": pitches[-1]}
    return all(low <= p <= high for p in pitches) and all(
        0.2 * beside[e] < layout.theta[c] < 1.9 * beside[e] for e, c in layout.bays
    )


def member_scores(evidence: Evidence, layout: Layout) -> FloatArray:
    """What each member adds to the log likelihood, shape (m,), at the usual attention: to rank candidates by,
    not to weigh them.
    """
    positions = layout.positions
    _, _, hit = _hits(evidence, layout, positions)
    covered = _covered(evidence, layout, positions, hit)
    scores: FloatArray = np.where(covered, np.log1p(_chances(evidence) * (hit - 1)), 0.0).sum(axis=1)
    return scores


def _hits(
    evidence: Evidence, layout: Layout, positions: FloatArray
) -> tuple[IntArray, FloatArray, FloatArray]:
    """Member each thing is nearest to (n,), its likelihood ratio of true against false (n,), and what each
    channel found of each member, as the ratio of all ways to be noticed against none, shape (m, channels)."""
    belongs = np.searchsorted((positions[1:] + positions[:-1]) / 2, evidence.x)
    spread = evidence.spread
    off = (evidence.x - positions[belongs]) / spread
    ratio = np.exp(-0.5 * off * off) / (spread * SQRT_TAU * evidence.rate)
    if layout.silent.any():
        ratio = np.where(layout.silent[belongs], 0.0, ratio)
    place, size = belongs * evidence.channels + evidence.channel, len(positions) * evidence.channels
    grown = np.bincount(place, np.log1p(evidence.again * ratio), minlength=size)
    lifted = np.expm1(np.minimum(grown, LARGEST_LOG)).reshape(len(positions), evidence.channels)
    return belongs, ratio, (1 - evidence.again) / evidence.again * lifted


def _chances(evidence: Evidence) -> FloatArray:
    """That each channel notices a member, shape (channels,); of a walk the usual attention."""
    scans = (1 - evidence.trust[s.kind].miss_share for s in evidence.scans)
    return np.array([USUALLY_NOTICED, *scans, SPOT_NOTICED])


def _covered(
    evidence: Evidence, layout: Layout, positions: FloatArray, hit: FloatArray
) -> npt.NDArray[np.bool_]:
    """Which members each channel looked at, shape (m, channels): a walk and a scan at every member inside
    them; whatever found something has looked there.
    """
    covered: npt.NDArray[np.bool_] = hit > 0
    for low, high in evidence.walks:
        covered[:, 0] |= (positions >= low) & (positions <= high) & ~layout.silent
    for i, scan in enumerate(evidence.scans, start=1):
        covered[:, i] |= (positions >= scan.start_mm) & (positions <= scan.end_mm)
    return covered


def _belonging(evidence: Evidence, layout: Layout) -> tuple[IntArray, FloatArray]:
    """Which member each thing belongs to, and the chance that it does."""
    if len(evidence.x) == 0:
        return np.zeros(0, dtype=np.int64), np.zeros(0)
    belongs, ratio, hit = _hits(evidence, layout, layout.positions)
    chance, again = _chances(evidence)[evidence.channel], evidence.again
    own = hit[belongs, evidence.channel]
    noticed = chance * own / (1 - chance + chance * own)
    lifted = own * again / (1 - again)
    sure = (lifted + 1) / np.maximum(lifted, 1e-300)
    return belongs, np.minimum(noticed * again * ratio / (1 + again * ratio) * sure, 1.0)


def _log_likelihood(evidence: Evidence, layout: Layout) -> float:
    positions = layout.positions
    if len(evidence.x) == 0 and not evidence.scans:
        return _through_score(evidence, positions)
    _, _, hit = _hits(evidence, layout, positions)
    covered = _covered(evidence, layout, positions, hit)
    walked = np.log1p(NOTICED[:, None] * (hit[covered[:, 0], 0] - 1)).sum(axis=1)
    top = walked.max()
    score = float(np.log(evidence.rate).sum() + top + np.log(NOTICED_PRIOR @ np.exp(walked - top)))
    chance = _chances(evidence)[1:]
    score += float(np.where(covered[:, 1:], np.log1p(chance * (hit[:, 1:] - 1)), 0.0).sum())
    return score + _open_bay_score(evidence, layout) + _through_score(evidence, positions)


def _open_bay_score(evidence: Evidence, layout: Layout) -> float:
    """Members that a search never notices would still have been seen where two members in a row were seen
    from inside.
    """
    if not layout.silent.any():
        return 0.0
    hidden, x, score = layout.positions[layout.silent], evidence.x, 0.0
    for i in range(len(x) - 1):
        if (
            evidence.kinds[i] == evidence.kinds[i + 1] == "seen"
            and ((hidden > x[i] + 60) & (hidden < x[i + 1] - 60)).any()
        ):
            score += np.log(OVERLOOKED)
    return float(max(score, 3 * np.log(OVERLOOKED)))


def _through_score(evidence: Evidence, positions: FloatArray) -> float:
    if not len(evidence.through):
        return 0.0
    reliable = 1 - evidence.trust["pilot_through"].false_share
    spread = float(np.hypot(BUILD_SCATTER_MM, evidence.trust["pilot_through"].sigma_mm))
    off = np.abs(evidence.through[:, None] - positions[None, :]).min(axis=1)
    in_member = normal_between((-evidence.half_face - off) / spread, (evidence.half_face - off) / spread)
    return float(np.log(1 - reliable * in_member).sum())


def _normal_equations(
    evidence: Evidence, layout: Layout, belongs: IntArray, true_share: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Readings of one member share its deviation from the spacing, so they are pooled before they are
    weighed.
    """
    n = len(layout.design)
    precision = np.bincount(belongs, true_share / evidence.sigma**2, minlength=n)
    moment = np.bincount(belongs, true_share / evidence.sigma**2 * evidence.x, minlength=n)
    read = precision > 1e-9
    weight = 1 / (1 / precision[read] + BUILD_SCATTER_MM**2)
    rows = layout.design[read]
    return rows.T @ (rows * weight[:, None]), rows.T @ (weight * moment[read] / precision[read])


def parameter_prior(evidence: Evidence, layout: Layout) -> tuple[FloatArray, FloatArray]:
    """Precision, and precision times mean, of the parameters before any reading: broad, but for odd bays
    and known facts. Precision (p, p) in 1/mm², its product with the mean (p,) in 1/mm.
    """
    mean, precision = layout.theta.copy(), np.full(len(layout.theta), 1e-8)
    for end, column in layout.bays:
        mean[column] = layout.pitch_mm(1 if end == "front" else len(layout.pitches))
        precision[column] = 1 / (OTHER_SPREAD * mean[column]) ** 2
    facts = evidence.facts
    for column in layout.free_pitches:
        spread = pitch_spread(facts)
        if facts.pitch_mm is not None and abs(layout.theta[column] - facts.pitch_mm) < FACT_REACH * spread:
            mean[column], precision[column] = facts.pitch_mm, 1 / spread**2
        elif column != 1:
            precision[column] = 1 / (OTHER_SPREAD * mean[column]) ** 2
    whole, pull = np.diag(precision), precision * mean
    for row, told in ((layout.design[0], facts.front_bay_mm), (layout.design[-1], _rear_member(evidence))):
        if told is not None and abs(row @ layout.theta - told) < FACT_REACH * KNOWN_BAY_SPREAD_MM:
            whole = whole + np.outer(row, row) / KNOWN_BAY_SPREAD_MM**2
            pull = pull + row * told / KNOWN_BAY_SPREAD_MM**2
    return whole, pull


def pitch_spread(facts: KnownFacts) -> float:
    """One standard deviation of a known pitch: “give or take” is said of nearly all cases, so it is two of
    them. In mm.
    """
    return max(facts.pitch_within_mm, LEAST_FACT_MM) / 2


def _rear_member(evidence: Evidence) -> float | None:
    bay = evidence.facts.rear_bay_mm
    return None if bay is None else evidence.span - bay


def _log_prior_density(evidence: Evidence, layout: Layout) -> float:
    """Log density of the parameters before any reading: phase even, pitches usual or as the drawing says, odd
    bays broad.
    """
    total = -float(np.log(layout.theta[1]))
    facts = evidence.facts
    for column in layout.free_pitches:
        total += _log_pitch(float(layout.theta[column]), facts)
    ends = (layout.positions[0], evidence.span - layout.positions[-1])
    for end, told, pitch in zip(
        ends,
        (facts.front_bay_mm, facts.rear_bay_mm),
        (layout.pitch_mm(1), layout.pitch_mm(len(layout.pitches))),
        strict=True,
    ):
        if told is None:
            total -= BARE_END * max(0.0, float(end) / pitch - 1.0)
        else:
            even = -float(np.log(layout.theta[1])) + np.log(WRONG_FACT_SHARE)
            known = _log_normal(float(end), told, KNOWN_BAY_SPREAD_MM) + np.log(1 - WRONG_FACT_SHARE)
            total += float(np.logaddexp(even, known)) + float(np.log(layout.theta[1]))
    for end, column in layout.bays:
        pitch = layout.pitch_mm(1 if end == "front" else len(layout.pitches))
        total += _log_normal(float(layout.theta[column]), pitch, OTHER_SPREAD * pitch)
    return float(total)


def _log_pitch(pitch: float, facts: KnownFacts) -> float:
    usual = _log_usual_pitch(pitch)
    if facts.pitch_mm is None:
        return usual
    told = _log_normal(pitch, facts.pitch_mm, pitch_spread(facts)) + float(np.log(1 - WRONG_FACT_SHARE))
    return float(np.logaddexp(usual + np.log(WRONG_FACT_SHARE), told))


def _log_usual_pitch(pitch: float) -> float:
    return _log_normal(float(np.log(pitch)), float(np.log(USUAL_PITCH_MM)), USUAL_SPREAD) - float(
        np.log(pitch)
    )


def _log_normal(x: float, mean: float, spread: float) -> float:
    return float(-0.5 * ((x - mean) / spread) ** 2 - np.log(spread * np.sqrt(2 * np.pi)))
