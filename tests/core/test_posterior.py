"""The finder's likelihood and weights beside brute force: sums over every subset, numerical integration, all
assignments.
"""

from __future__ import annotations

from itertools import combinations, pairwise

import numpy as np
import pytest
from scipy.integrate import dblquad

from fahrtwind.core.stations.structure.belief import believe, confidence
from fahrtwind.core.stations.structure.candidates import PITCH_RANGE_MM, _finer, candidates
from fahrtwind.core.stations.structure.evidence import (
    AGAIN_RANGE,
    Evidence,
    KnownFacts,
    ReadingFact,
    ScanFact,
    gather,
)
from fahrtwind.core.stations.structure.layouts import (
    every_second_missed,
    odd_end,
    single,
    thinned,
    trimmed,
    two_sections,
)
from fahrtwind.core.stations.structure.members import EvidenceKey
from fahrtwind.core.stations.structure.placing import place
from fahrtwind.core.stations.structure.posterior import (
    NOTICED,
    NOTICED_PRIOR,
    SPOT_NOTICED,
    _belonging,
    _log_prior_density,
    _open_bay_score,
    fit,
    quick_score,
)
from fahrtwind.core.tables.readings import BUILD_SCATTER_MM, ReadingKind
from tests.truth.roofs import synthetic_roof

SPAN = 4000.0


def evidence(
    hits: list[tuple[float, ReadingKind]], scans: tuple[ScanFact, ...] = (), span: float = SPAN
) -> Evidence:
    return gather(
        tuple(ReadingFact(f"r{i}", x, kind) for i, (x, kind) in enumerate(hits)),
        scans,
        KnownFacts(),
        span,
        45.0,
    )


def brute_force(found: Evidence, positions: np.ndarray) -> float:
    """Log likelihood summed over every way to call each thing true or false in every channel, and over the
    attention of the walk.
    """
    nearest = np.abs(found.x[:, None] - positions[None, :]).argmin(axis=1)
    spread = np.hypot(found.sigma, BUILD_SCATTER_MM)
    off = found.x - positions[nearest]
    density = np.exp(-0.5 * (off / spread) ** 2) / (spread * np.sqrt(2 * np.pi))
    total = 0.0
    for attention, prior in zip(NOTICED, NOTICED_PRIOR, strict=True):
        product = 1.0
        for j, position in enumerate(positions):
            for channel in range(found.channels):
                own = np.flatnonzero((nearest == j) & (found.channel == channel))
                chance = attention if channel == 0 else _scan_chance(found, channel)
                if not len(own) and not _looked(found, channel, position):
                    continue
                ways = (1 - chance) * np.prod(found.rate[own])
                for size in range(1, len(own) + 1):
                    for true in combinations(own, size):
                        false = [i for i in own if i not in true]
                        repeats = (1 - found.again) * found.again ** (size - 1)
                        ways += chance * repeats * np.prod(density[list(true)]) * np.prod(found.rate[false])
                product *= ways
        total += prior * product
    return float(np.log(total))


def _scan_chance(found: Evidence, channel: int) -> float:
    return (
        SPOT_NOTICED
        if channel > len(found.scans)
        else 1 - found.trust[found.scans[channel - 1].kind].miss_share
    )


def _looked(found: Evidence, channel: int, position: float) -> bool:
    if channel == 0:
        return any(low <= position <= high for low, high in found.walks)
    return (
        channel <= len(found.scans)
        and found.scans[channel - 1].start_mm <= position <= found.scans[channel - 1].end_mm
    )


@pytest.mark.parametrize("pitch", [600.0, 300.0, 710.0])
def test_likelihood_is_the_sum_over_all_ways_to_be_true_or_false(pitch: float) -> None:
    found = evidence(
        [
            (310, "magnet"),
            (322, "rivet_row"),
            (905, "magnet"),
            (1210, "knock"),
            (1495, "magnet"),
            (2105, "seen"),
            (2130, "knock"),
        ]
    )
    layout = single(305.0, pitch, SPAN, 1.0)
    assert quick_score(found, layout) == pytest.approx(brute_force(found, layout.positions), rel=1e-9)
    searched = evidence(
        [
            (310, "magnet"),
            (905, "magnet"),
            (1210, "pilot_solid"),
            (1495, "knock"),
            (2105, "magnet"),
            (2130, "knock"),
            (3900, "magnet"),
        ],
        (ScanFact("s1", 200.0, 2500.0, "magnet"), ScanFact("s2", 1400.0, 2200.0, "knock")),
    )
    assert sorted(set(searched.channel)) == [0, 1, 2, 3], "a walk, two searches and a spot"
    assert quick_score(searched, layout) == pytest.approx(brute_force(searched, layout.positions), rel=1e-9)


def test_each_reading_s_chance_to_be_true_is_its_share_of_the_ways() -> None:
    found = evidence([(300, "magnet"), (318, "knock"), (900, "magnet"), (1500, "magnet")])
    assert found.rate[1] > 3 * found.rate[0], (
        "a second method is deceived where the first one was, more often than anywhere"
    )
    layout = single(300.0, 600.0, 1600.0, 1.0)
    _, share = _belonging(found, layout)
    i, d, again = 0, 0.65, found.again
    spread = np.hypot(found.sigma, BUILD_SCATTER_MM)
    density = np.exp(-0.5 * ((found.x - 300) / spread) ** 2) / (spread * np.sqrt(2 * np.pi))
    a, b = density[0], density[1]
    f, g = found.rate[0], found.rate[1]
    once = d * (1 - again)
    ways = (1 - d) * f * g + once * (a * g + f * b + again * a * b)
    assert share[i] == pytest.approx(once * (a * g + again * a * b) / ways, rel=1e-9)
    assert share[2] > 0.95


def test_the_weight_is_the_integral_over_the_parameters() -> None:
    """Laplace's approximation beside scipy's numerical integration over first member and pitch."""
    found = evidence(
        [(302, "magnet"), (905, "magnet"), (1498, "rivet_row"), (2104, "magnet"), (2698, "magnet")]
    )
    fitted = fit(found, single(300.0, 600.0, SPAN, 1.0))
    assert fitted is not None
    a0, p0 = fitted.layout.theta
    peak = quick_score(found, fitted.layout)

    def integrand(pitch: float, first: float) -> float:
        layout = single(first, pitch, SPAN, 1.0)
        return float(np.exp(quick_score(found, layout) - peak + _log_prior_density(found, layout)))

    area, _ = dblquad(integrand, a0 - 60, a0 + 60, p0 - 25, p0 + 25, epsabs=1e-12, epsrel=1e-3)
    assert fitted.log_weight == pytest.approx(peak + np.log(area), abs=0.15)


def test_every_story_s_design_gives_the_positions_it_names() -> None:
    base = single(1250.0, 500.0, 3100.0, 1.0)
    assert base.positions == pytest.approx([250, 750, 1250, 1750, 2250, 2750])
    assert odd_end(base, "front", 1, 300.0, 1.0).positions == pytest.approx(
        [450, 750, 1250, 1750, 2250, 2750]
    )
    rear = odd_end(base, "rear", 4, 320.0, 1.0)
    assert rear.positions == pytest.approx([250, 750, 1250, 1750, 2250, 2570])
    both = odd_end(rear, "front", 1, 300.0, 1.0)
    assert (
        both.positions == pytest.approx([450, 750, 1250, 1750, 2250, 2570])
        and both.story == "odd bays at both ends"
    )
    assert thinned(base, 2, "rear", 2, 1.0).positions == pytest.approx([250, 750, 1250, 2250])
    coarse = thinned(base, 3, "front", 3, 1.0)
    assert coarse.positions == pytest.approx([250, 1750, 2250, 2750]) and [
        coarse.pitch_mm(1),
        coarse.pitch_mm(2),
    ] == [1500, 500]
    assert two_sections(250.0, 500.0, 3, 400.0, 3100.0, 1.0).positions == pytest.approx(
        [250, 750, 1250, 1750, 2150, 2550, 2950]
    )
    halved = every_second_missed(base, 1.0)
    assert halved.positions[~halved.silent] == pytest.approx(base.positions)
    assert set(np.round(np.diff(halved.positions))) == {250}
    shifted = single(-10.0, 500.0, 3100.0, 1.0)
    assert len(trimmed(shifted, 3100.0).positions) == len(shifted.positions)
    assert len(trimmed(odd_end(base, "front", 0, 320.0, 1.0), 3100.0).positions) == len(base.positions), (
        "the odd one stood off the roof"
    )


def test_a_scan_without_a_hit_weighs_as_much_as_its_miss_rate_says() -> None:
    hits: list[tuple[float, ReadingKind]] = [(300, "magnet"), (900, "magnet"), (1500, "magnet")]
    layout = single(300.0, 300.0, 1600.0, 1.0)
    scan = ScanFact("s1", 1100.0, 1300.0, "stud_finder")
    bare, searched = (quick_score(evidence(hits, s, 1600.0), layout) for s in ((), (scan,)))
    assert searched - bare == pytest.approx(np.log(0.25), rel=1e-9)


def test_a_hidden_member_between_two_seen_ones_would_have_been_seen() -> None:
    """Members that a search never notices, in open bays looked into from inside: ln 0.15 each, three at most;
    a bay that the ceiling hides, or a hidden member within 60 mm of a seen one, tells nothing.
    """
    layout = every_second_missed(single(300.0, 600.0, SPAN, 1.0), 1.0)
    hidden = layout.positions[layout.silent]
    assert hidden.tolist()[:2] == pytest.approx([0.0, 600.0]) or 600.0 in np.round(hidden)

    def told(hits: list[tuple[float, ReadingKind]]) -> float:
        return _open_bay_score(evidence(hits), layout)

    seen = [(float(x), "seen") for x in layout.positions[~layout.silent]]
    bays = sum(((hidden > a + 60) & (hidden < b - 60)).any() for (a, _), (b, _) in pairwise(seen))
    assert bays >= 4 and told(seen[:2]) == pytest.approx(np.log(0.15))  # type: ignore[arg-type]
    assert told(seen) == pytest.approx(3 * np.log(0.15))  # type: ignore[arg-type]
    assert told([(x, "magnet") for x, _ in seen]) == 0
    assert told([seen[0], (seen[1][0], "magnet")]) == 0  # type: ignore[list-item]
    assert _open_bay_score(evidence(seen), single(300.0, 600.0, SPAN, 1.0)) == 0  # type: ignore[arg-type]


def test_halves_and_thirds_of_a_spacing_are_tried() -> None:
    """A coarse spacing is tried at half and a third, as long as that is a spacing a roof may have."""
    found = evidence([(float(x), "magnet") for x in range(300, 4000, 1200)])
    base = fit(found, single(300.0, 1200.0, SPAN, 1.0))
    assert base is not None
    pitches = sorted(round(float(f.layout.theta[1])) for f in _finer(found, [base]))
    assert pitches == pytest.approx([400, 600], abs=12)
    fine = fit(found, single(300.0, 300.0, SPAN, 1.0))
    assert fine is not None
    low = PITCH_RANGE_MM[0]
    assert len(_finer(found, [fine])) == sum(300 / times >= low for times in (2, 3))


def test_what_is_gathered_of_readings() -> None:
    """Readings of one kind at one place count once; half of the face; three of four things are met again."""
    hits: list[tuple[float, ReadingKind]] = [
        (300, "magnet"),
        (302, "magnet"),
        (900, "magnet"),
        (1500, "knock"),
    ]
    found = evidence(hits)
    assert found.half_face == 22.5 and found.span == SPAN
    assert len(found.x) == 3 and found.x[0] == pytest.approx(301, abs=1)
    alone = evidence([(300, "magnet"), (900, "magnet")])
    twice = evidence([(300, "magnet"), (308, "knock"), (900, "magnet"), (905, "knock")])
    assert alone.again == AGAIN_RANGE[0] and twice.again == pytest.approx(0.5)


def test_the_truth_is_among_the_candidates() -> None:
    met = 0
    for seed in range(60):
        roof = synthetic_roof(seed)
        key = roof.key
        found = gather(key.readings, key.scans, key.facts, key.span_mm, key.face_mm)
        met += any(
            np.abs(fitted.layout.positions[:, None] - roof.members[None, :]).min(axis=0).max() < 40
            for fitted in candidates(found)
        )
    assert met >= 54


def test_confidence_is_a_chance_and_falls_with_distance() -> None:
    roof = synthetic_roof(4, "one spacing")
    belief = believe(gather(roof.key.readings, roof.key.scans, roof.key.facts, roof.key.span_mm, 45.0))
    assert belief is not None
    assert belief.weights.sum() + belief.nothing == pytest.approx(1)
    lead = place(belief.evidence, belief.fits[0])
    near = confidence(belief, lead.x_mm)
    assert ((near >= 0) & (near <= 1)).all() and (confidence(belief, lead.x_mm + 30) <= near).all()
    assert confidence(belief, lead.x_mm + 200).max() < 0.2


def test_a_member_with_own_readings_is_pulled_towards_them_and_is_surer() -> None:
    hits: list[tuple[float, ReadingKind]] = [
        (300 + 600 * i + 8 * (i == 2), "seen") for i in range(6) if i != 4
    ]
    found = evidence(hits)
    fitted = fit(found, single(300.0, 600.0, SPAN, 1.0))
    assert fitted is not None
    placing = place(found, fitted)
    assert placing.line_mm[2] < placing.x_mm[2] < 1508
    assert placing.sigma_mm[4] > placing.sigma_mm[3]
    assert placing.share[4] == 0


def test_the_same_evidence_in_another_order_gives_the_same_key_result() -> None:
    roof = synthetic_roof(11)
    turned = EvidenceKey(
        roof.key.readings[::-1], roof.key.scans, roof.key.facts, roof.key.span_mm, roof.key.face_mm
    )
    one, other = (
        believe(gather(k.readings, k.scans, k.facts, k.span_mm, k.face_mm)) for k in (roof.key, turned)
    )
    assert one is not None and other is not None
    assert other.weights[0] == pytest.approx(one.weights[0], rel=1e-9)
