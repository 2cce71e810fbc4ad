"""Rails: beams beside published values, what must hold whatever the numbers are, and what edits do."""

from __future__ import annotations

from dataclasses import replace
from math import pi

import numpy as np
import pytest

from fahrtwind.core.edits import (
    PutInFrame,
    PutOnPosts,
    PutOnRack,
    PutOnRails,
    RemoveEntry,
    SetValue,
    apply_edits,
)
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.job.carrier import Rails
from fahrtwind.core.job.document import Job
from fahrtwind.core.stations.hold.carriers.forced import forced_of
from fahrtwind.core.stations.hold.carriers.rails import Profile, clamps_of, profile_of, share_rail
from fahrtwind.core.stations.hold.carriers.sharing import Lines, _rails
from fahrtwind.core.stations.hold.carriers.verdict import CarrierVerdict, _rail_verdict
from fahrtwind.core.stations.hold.frame.model import FloatArray
from fahrtwind.core.stations.hold.loads import CASES
from fahrtwind.core.stations.hold.sharing import share_shear
from fahrtwind.core.stations.survey.crown import CrownSurface
from tests.conftest import changed

RAIL = Profile(4.17e9, 1.0, 1.0, 1.0, "")
FEET = np.array([150.0, 1250.0, 2350.0, 3450.0])
CLAMPS = np.array([200.0, 1190.0, 1240.0, 2230.0])
EACH = np.full(4, 300.0)


@pytest.mark.parametrize(
    ("third", "lost", "pulls", "moment"),
    [
        (2000, 0, [289.3, 649.5, 271.1, -10.0], 20_357),
        (50, 0, [264.9, 735.3, 172.7, 27.0], 53_692),
        (2000, 1, [0, 1296.8, -155.5, 58.7], 336_000),
        (2000, 2, [533.6, 0, 837.4, -171.0], 257_948),
        (2000, 3, [222.1, 885.9, 0, 92.0], None),
        (2000, 4, [287.0, 664.3, 248.8, 0], None),
    ],
)
def test_a_rail_on_four_feet(third: float, lost: int, pulls: list[float], moment: float | None) -> None:
    """3,600 mm, EI 4.17·10⁹ N·mm², feet of 2,000 N/mm, four clamps of 300 N: worked with a frame library."""
    shared = share_rail(RAIL, FEET, np.array([2000.0, 2000.0, third, 2000.0]), CLAMPS)
    assert EACH @ shared.pulls[lost] == pytest.approx(pulls, abs=0.06)
    if moment is not None:
        assert np.abs(EACH @ shared.moments[lost]).max() == pytest.approx(moment, abs=1)


def test_stiff_feet_give_the_three_moment_equation() -> None:
    """Two equal spans, a load in each middle: 5/16, 11/8, 5/16 of P, M = 3/16 · P · L (any beam table)."""
    shared = share_rail(RAIL, np.array([0.0, 1000, 2000]), np.full(3, 1e9), np.array([500.0, 1500]))
    load = np.full(2, 1000.0)
    assert load @ shared.pulls[0] == pytest.approx([312.5, 1375, 312.5], rel=1e-4)
    assert np.abs(load @ shared.moments[0]).max() == pytest.approx(3 / 16 * 1000 * 1000, rel=1e-4)


@pytest.fixture
def on_rails(sound: Job) -> Job:
    return apply_edits(sound, [PutOnRails(panels=("p1", "p3"))])


def verdict(job: Job) -> CarrierVerdict:
    found = evaluate(job).findings
    assert not found.silent
    return found.carriers[0]


@pytest.mark.parametrize("sense", [1.0, -1.0])
def test_a_rail_yields_where_the_first_of_all_situations_bends_it(on_rails: Job, sense: float) -> None:
    """Every situation, place and stiffness by itself, on the straight line of its moment; pulled up, and with
    all forces turned round.
    """
    seen, carrier = visit(on_rails), on_rails.carriers[0]
    forces, whole, air = seen.of("carrier_forces", carrier), seen.of("profile", carrier), seen["air"]
    made = replace(whole, moment_nominal_n_mm=whole.moment_nominal_n_mm / 20)
    down = Lines(*(sense * part for part in (forces.down.constant, forces.down.per_pa, forces.down.typical)))
    for rail, spans in forces.rails.items():
        found = []
        for span in spans:
            still, per_pa = (part[:, span.clamps] @ span.moments[0] for part in (down.constant, down.per_pa))
            for m, slope in zip(still.ravel(), per_pa.ravel(), strict=True):
                found += [
                    (made.moment_nominal_n_mm - way * m) / (way * slope) for way in (1, -1) if way * slope > 0
                ]
        speed = (2 * max(min(found), 0.0) / air.density_kg_m3) ** 0.5 - air.gust_m_s
        told, *_ = _rail_verdict(rail, spans, replace(forces, down=down), made, air)
        assert told.let_go_m_s == pytest.approx(min(speed, 90.0)) and told.let_go_m_s < 90.0


def test_panels_on_rails_stand_on_members_and_everything_follows(on_rails: Job) -> None:
    carrier, found = on_rails.carriers[0], evaluate(on_rails).findings
    inside = [m for m in found.members.members if carrier.start.mm <= m.x_mm <= carrier.end.mm]
    feet = [f for f in found.feet if f.panel == carrier.id]
    assert len(feet) == 2 * len(inside) and {f.landing for f in feet} == {"member"}
    lying = [p for p in on_rails.panels if p.carrier]
    assert [p.id for p in lying] == ["p1", "p3"] and all(not p.feet and p.stand_off.mm == 80 for p in lying)
    marks = [m for m in found.marks if m.panel == carrier.id]
    assert carrier.hold.school == "screws" and len(marks) == len(feet) * carrier.hold.count
    bought = {m.item: m.needed for m in found.materials}
    assert bought["panel clamp with bolt"] == 8
    assert bought["rail 6060-T66, tube 40 mm × 40 mm × 3 mm"] == 2
    run = (carrier.end.mm - carrier.start.mm) / 1000
    area = 40**2 - 34**2
    assert found.carriers[0].mass_kg == pytest.approx(2 * run * area * 2700e-6)


def test_forces_along_of_all_panels_on_a_carrier_add_up(on_rails: Job) -> None:
    """Each panel's by itself about its own middle, added as vectors; panels at unlike distances from the
    middle of the feet, one foot lost at a time. On two feet a rail holds nothing once one is lost.
    """
    job = changed(on_rails, panels__p3__x="2800 mm", panels__p3__y="-520 mm")
    seen, carrier = visit(job), job.carriers[0]
    feet = seen.of("feet_of_carrier", carrier)
    forces = seen.of("carrier_forces", carrier)
    x, y = np.array([f.x_mm for f in feet]), np.array([f.y_mm for f in feet])
    aft, across = 0.0, 0.0
    for part in (c for c in seen["all_carried"] if c.carrier == carrier.id):
        alone = share_shear(x - part.rect.centre[0], y - part.rect.centre[1], part.along)
        aft = aft + alone.along_n[..., None] - alone.twist_n_mm[..., None] * alone.y_mm[:, None]
        across = across + alone.across_n[..., None] + alone.twist_n_mm[..., None] * alone.x_mm[:, None]
    sizes = np.hypot(aft, across) * alone.present[:, None]
    n = len(CASES)
    assert forces.road.along_constant[:, :n] == pytest.approx(sizes[:, :n])
    assert forces.road.along_per_pa[:, :1] == pytest.approx(sizes[:, n : n + 1])
    assert forces.parked.along_per_pa[:, 0] == pytest.approx(sizes[:, n + 1])
    last = sorted({f.x_mm for f in feet})[1]
    short = visit(changed(job, carriers__b1__end=f"{last + 200} mm"))
    held = short.of("carrier_forces", short["carriers"][0])
    assert not held.road.stable[1:].any() and np.isfinite(held.road.pull_per_pa).all()


@pytest.mark.parametrize("unlike", ["feet", "stiffness", "clamps"])
def test_each_rail_is_worked_out_by_what_is_its_own(on_rails: Job, unlike: str) -> None:
    """Two rails that differ in where they stand, how stiff, or where they are clamped, each by itself."""
    seen, carrier = visit(on_rails), on_rails.carriers[0]
    profile, feet = seen.of("profile", carrier), seen.of("feet_of_carrier", carrier)
    clamps = tuple(c for part in seen["all_carried"] for c in part.clamps)
    second = np.array([f.foot.startswith("r2m") for f in feet])
    stiffness = np.where(second & (unlike == "stiffness"), 300.0, 900.0)
    if unlike == "feet":
        feet = tuple(
            replace(f, x_mm=f.x_mm + 40.0 * i * own)
            for i, (f, own) in enumerate(zip(feet, second, strict=True))
        )
    if unlike == "clamps":
        clamps = tuple(replace(c, x_mm=c.x_mm + 30.0 * c.foot.startswith("r2")) for c in clamps)
    assert isinstance(carrier, Rails)
    pulls, _ = _rails(carrier, profile, feet, stiffness, clamps)
    for rail in carrier.rails:
        own = [i for i, f in enumerate(feet) if f.foot.startswith(f"{rail.id}m")]
        on = [i for i, c in enumerate(clamps) if c.line == rail.id]
        places = np.array([feet[i].x_mm for i in own]), np.array([clamps[i].x_mm for i in on])
        alone = share_rail(profile, places[0], stiffness[own], places[1])
        assert pulls[0][np.ix_(on, own)] == pytest.approx(alone.pulls[0])
        assert pulls[own[1] + 1][np.ix_(on, own)] == pytest.approx(alone.pulls[2])


def test_feet_of_a_carrier_bear_what_the_clamps_hand_down(on_rails: Job) -> None:
    """In every case and model the pulls of the feet add up to those of the clamps, and so do their moments:
    a rail hands on what it gets.
    """
    told = verdict(on_rails)
    profile = profile_of(on_rails.carriers[0])
    rng = np.random.default_rng(5)
    for _ in range(20):
        feet = np.sort(rng.uniform(0, 4000, 5)) + np.arange(5)
        clamps, load = rng.uniform(-100, 4100, 6), rng.uniform(-400, 900, 6)
        shared = share_rail(profile, feet, rng.uniform(2, 3000, 5), clamps)
        for pull in load @ shared.pulls:
            assert pull.sum() == pytest.approx(load.sum(), abs=1e-5)
            assert pull @ feet == pytest.approx(load @ clamps, abs=1e-2)
    assert told.let_go_m_s >= told.safe_m_s >= 0 and told.let_go_m_s >= told.lost_let_go_m_s


def test_weaker_is_never_safer(on_rails: Job) -> None:
    walls = [
        verdict(changed(on_rails, carriers__b1__section__wall=f"{t} mm")).safe_m_s for t in (0.8, 1.5, 3, 5)
    ]
    assert walls == sorted(walls) and walls[0] < walls[-1]
    every = [verdict(changed(on_rails, carriers__b1__every=n)).safe_m_s for n in (3, 1)]
    assert every[0] < every[1]
    tall = [verdict(changed(on_rails, carriers__b1__height=f"{h} mm")).safe_m_s for h in (20, 60, 120)]
    assert tall == sorted(tall, reverse=True)


def test_a_thin_rail_on_far_feet_bends_before_its_feet_go(on_rails: Job) -> None:
    """A flat bar of a rail, feet at every third member: what yields is the rail, and the snag says so."""
    thin = apply_edits(
        on_rails,
        [
            SetValue(
                path="carriers.b1.section", value={"kind": "tube", "height": 15, "width": 20, "wall": 1.5}
            ),
            SetValue(path="carriers.b1.every", value=3),
        ],
    )
    told = verdict(thin)
    bent = min(r.let_go_m_s for r in told.rails)
    assert bent == told.let_go_m_s < min(f.let_go_m_s for f in told.feet)
    stops = [s for s in evaluate(thin).snags if s.id in ("carrier-lets-go", "carrier-not-safe")]
    assert stops and "bending" in stops[0].where and stops[0].place == "carriers.b1.section"


def test_mirrored_rails_give_mirrored_verdicts(sound: Job) -> None:
    both = apply_edits(sound, [PutOnRails(panels=("p1", "p2", "p3", "p4"))])
    port, starboard = both.carriers
    assert [r.y.mm for r in port.rails] == [-r.y.mm for r in reversed(starboard.rails)]
    one, other = evaluate(both).findings.carriers
    assert one.let_go_m_s == pytest.approx(other.let_go_m_s, rel=1e-2)


def test_a_carrier_that_goes_leaves_panels_on_feet(on_rails: Job) -> None:
    freed = apply_edits(on_rails, [RemoveEntry(path="carriers.b1")])
    assert not freed.carriers and all(p.feet and p.carrier is None for p in freed.panels)
    raised = apply_edits(on_rails, [SetValue(path="carriers.b1.height", value="70 mm")])
    assert [p.stand_off.mm for p in raised.panels if p.carrier] == [110, 110]
    lonely = apply_edits(on_rails, [SetValue(path="panels.p1.carrier", value=None)])
    assert lonely.panels[0].carrier is None and len(lonely.carriers) == 1
    again = apply_edits(on_rails, [PutOnRails(panels=("p1", "p3"))])
    assert len(again.carriers) == 1, "an empty carrier goes"


def test_sections_by_hand(on_rails: Job) -> None:
    """40×40×3 of 6060-T66: W 5,099 mm³, yield moment 815.8 N·m, 494.4 N·m with 1.65 (published with the load
    path's formulas); an own section by its sheet, and one without values as an error that names the field.
    """
    carrier = on_rails.carriers[0]
    assert isinstance(carrier, Rails)
    tube = profile_of(carrier)
    assert tube.moment_design_n_mm == pytest.approx(494.4e3, rel=1e-3)
    assert tube.stiffness_n_mm2 == pytest.approx(70_000 * (40**4 - 34**4) / 12)
    own = {"kind": "own", "height": 45, "inertia_cm4": 9.0, "modulus_cm3": 4.0, "mass_kg_m": 1.0}
    held = apply_edits(on_rails, [SetValue(path="carriers.b1.section", value=own)])
    assert profile_of(held.carriers[0]).stiffness_n_mm2 == pytest.approx(70_000 * 9e4)
    assert {s.id for s in evaluate(held).snags} >= {"slot-not-rated"}
    bare = apply_edits(on_rails, [SetValue(path="carriers.b1.section", value={"kind": "own"})])
    silent = evaluate(bare).findings.silent
    assert [(s.station, s.place) for s in silent] == [
        ("hold", "carriers.b1.section.inertia_cm4")
    ] and "sheet" in silent[0].remedy


def test_clamps_sit_at_both_edges_on_every_rail_under_the_panel(on_rails: Job) -> None:
    carrier, panel = on_rails.carriers[0], on_rails.panels[0]
    clamps = clamps_of(carrier, panel)
    assert sorted(c.foot for c in clamps) == ["r1front", "r1rear", "r2front", "r2rear"]
    aside = panel.model_copy(update={"y": panel.y.of(panel.y.mm + 400)})
    assert len(clamps_of(carrier, aside)) == 2
    links = {
        k.id: k for v in evaluate(on_rails).findings.verdicts if v.panel == "p1" for k in v.chains[0].links
    }
    assert list(links) == ["frame", "clamp"]
    tongue = 130 * 32 * 9 / (4 * 8)  # f_y · b · t² / 4a: 32 wide, 3 thick, 8 mm from the frame's edge
    assert links["clamp"].pull_nominal_n == pytest.approx(tongue)
    assert links["clamp"].pull_design_n == pytest.approx(tongue / 1.65)
    assert links["clamp"].shear_nominal_n == pytest.approx(0.2 * 0.7 * 6250)
    rail = evaluate(on_rails).findings.carriers[0].chains[0].links[0]
    assert rail.id == "rail" and rail.pull_nominal_n == pytest.approx(pi * 160 * 9)


def test_a_rail_on_a_single_foot_is_refused_with_a_remedy(sound: Job) -> None:
    job = apply_edits(sound, [PutOnRails(panels=("p1",))])
    first = next(f.x_mm for f in evaluate(job).findings.feet if f.panel == "b1")
    short = changed(job, carriers__b1__start=f"{first - 200} mm", carriers__b1__end=f"{first + 200} mm")
    (silent,) = evaluate(short).findings.silent
    assert silent.foreseen and "one foot" in silent.why and silent.remedy


@pytest.mark.parametrize(("x_mm", "where"), [(-1755, "before"), (9500, "behind")])
def test_nothing_is_set_under_a_panel_that_lies_off_the_roof(sound: Job, x_mm: float, where: str) -> None:
    """Its rails would end before they begin."""
    off = apply_edits(sound, [SetValue(path="panels.p1.x", value={"mm": x_mm})])
    both = ("p1", "p2")
    ways = (
        PutOnRails(panels=both),
        PutOnRack(panels=both, points=False),
        PutOnPosts(panels=both),
        PutInFrame(panels=both),
    )
    for way in ways:
        with pytest.raises(InputError, match=f"Front port lies {where} the roof") as caught:
            apply_edits(off, [way])
        assert caught.value.field == "panels.p1.x" and "Move it" in caught.value.remedy
    half = apply_edits(sound, [SetValue(path="panels.p1.x", value={"mm": -400}), PutOnPosts(panels=("p1",))])
    rack = half.carriers[0]
    assert rack.start.mm == 0 < rack.end.mm, "what lies half on it has rails as far as there is roof"


def test_a_straight_rail_over_a_roof_that_curves_wants_shims(sound: Job) -> None:
    """Three feet on a roof that stands h higher under the middle one: a beam of twice the bay pressed up
    there, its ends pull by half of 6 EI h / L³ with stiff feet, less with soft ones. Shims make it straight.
    """
    flat = changed(sound, survey__crown={})
    job = changed(apply_edits(flat, [PutOnRails(panels=("p1",))]), carriers__b1__start="150 mm")
    look = visit(job)
    feet, chains = look.of("feet_of_carrier", job.carriers[0]), look.of("foot_chains", job.carriers[0])
    own = [(f, c) for f, c in zip(feet, chains, strict=True) if f.foot.startswith("r1")][:3]
    stiff = [replace(c, stiffest_n_mm=1e6) for _, c in own]
    x = np.array([f.x_mm for f, _ in own])
    bump = [4.0 if i == 1 else 0.0 for i in range(3)]

    class Bumped(CrownSurface):
        def heights(self, x_mm: FloatArray, y_mm: FloatArray) -> FloatArray:
            return np.interp(x_mm, x, bump)

    roof = Bumped(8000.0, 1150.0, np.zeros(1), np.zeros((1, 1)), 0, 0.0)
    (told,) = forced_of(job.carriers[0], tuple(f for f, _ in own), tuple(stiff), roof)
    bay, ei = (x[2] - x[0]) / 2, profile_of(job.carriers[0]).stiffness_n_mm2
    assert x[1] - x[0] == pytest.approx(bay, rel=0.02)
    assert told.pull_n == pytest.approx(3 * ei * 4.0 / bay**3, rel=0.02)
    assert sum(told.shims_mm) == pytest.approx(8.0, abs=0.1) and told.shims_mm[1] == 0.0
    assert told.foot != own[1][0].foot
    (soft,) = forced_of(job.carriers[0], tuple(f for f, _ in own), tuple(c for _, c in own), roof)
    assert soft.pull_n <= told.pull_n and soft.share == pytest.approx(
        soft.pull_n / min(k.pull_design_n for k in own[0][1].links)
    )
    assert forced_of(job.carriers[0], feet[:2], chains[:2], roof) == ()


def test_shims_are_on_the_list(sound: Job) -> None:
    """The roof falls steeply over its first half metre: rails from 170 mm on want shims there."""
    gaps = {0: 64, 300: 31, 600: 12, 1200: 3, 2500: 1, 4200: 0, 6500: 2, 7900: 9, 8400: 24}
    crown = {"lengthwise": [{"id": f"l{x}", "x": x, "gap": gap} for x, gap in gaps.items()]}
    job = changed(apply_edits(sound, [PutOnRails(panels=("p1", "p3"))]), survey__crown=crown)
    (line,) = [m for m in evaluate(job).findings.materials if m.item.startswith("shims")]
    shims = [mm for own in visit(job)["all_forced"] for told in own for mm in told.shims_mm if mm > 2]
    assert line.needed == len(shims) and f"{max(shims):.0f} mm" in line.item
    assert not any(m.item.startswith("shims") for m in evaluate(sound).findings.materials)
