"""The wiring of Hold: whole chains, load cases and one verdict as arithmetic written out by hand, not as
calls of the formulas.

Each expected number is derived here from the sources named beside it; the values of tables (strengths,
diameters) are written again as numbers, so that a changed table, a dropped factor or a formula in the wrong
place is noticed.
"""

from __future__ import annotations

from itertools import pairwise
from math import ceil, log10, pi, sqrt

import numpy as np
import pytest

from fahrtwind.core.edits import SetValue, SpreadFeet, apply_edits
from fahrtwind.core.evaluate import MEMORY, evaluate
from fahrtwind.core.formulas.verdict import limit_pressure
from fahrtwind.core.job.document import Job, Members, Vehicle
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.panel import FoamTape, PanelModel, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.stations.hold.chain import chain_of
from fahrtwind.core.stations.hold.links import Link
from fahrtwind.core.stations.hold.loads import CASES, case_forces, is_exposed, panel_loads
from fahrtwind.core.stations.hold.schools.bolts import bolt_length_needed_mm
from fahrtwind.core.stations.hold.sharing import share_pull
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.seal.sealant import cartridges_for, seal_plan
from fahrtwind.core.tables.fasteners import BOLTS, SCREWS
from fahrtwind.core.working import working
from tests.conftest import changed

# --- tables once more, by hand
STEEL, ALUMINIUM = (
    270.0,
    160 * 0.7,
)  # EN 10130 DC01; EN AW-5754 taken as 160, knocked down by 0.7 for screw formulas
FRAME = 215.0  # EN AW-6063 T6
G = 9.80665


def vehicle(skin: str, mm: float) -> Vehicle:
    part = {"ply_thickness": mm} if skin == "membrane" else {"skin_thickness": mm}
    return Vehicle.model_validate({"skin": skin, **part})


def members(kind: str, mm: float, depth: float = 60.0) -> Members:
    part = {} if kind == "wood_truss" else {"wall": mm}
    return Members.model_validate({"kind": kind, "face_width": 45, "depth": depth, **part})


HAT, BOX, TRUSS = members("steel_hat", 1.5), members("aluminium_box", 2.0), members("wood_truss", 0, 60.0)
SCREWED = Screws.model_validate(
    {"screw": "#10", "count": 2, "length": 25, "bracket": {"lever": 15, "toe": 30}}
)
BOLTED = ThroughBolts.model_validate(
    {"bolt": "M6", "count": 2, "washer": 25, "bracket": {"lever": 25, "toe": 30}}
)
TAPED = FoamTape.model_validate(
    {"pad_length": 100, "pad_width": 50, "bracket": {"length": 100, "lever": 10, "toe": 40}}
)

# a row of two #10 screws, 3 · 4.826 = 14.5, so 15 mm apart: 37.5 and 22.5 mm from the toe of a 45 mm base
SCREW_ROW = 45 * 37.5 / (37.5**2 + 22.5**2)
# a row of two M6 bolts beside 25 mm washers, 26 mm apart: 43 and 17 mm from the toe of a 55 mm base
BOLT_ROW = 55 * 43 / (43**2 + 17**2)


def four(link: Link) -> tuple[float, float, float, float]:
    return link.pull_nominal_n, link.pull_design_n, link.shear_nominal_n, link.shear_design_n


def base(
    skin: str, mm: float, hold: Screws | ThroughBolts, landing: str = "skin", inside: Members = HAT
) -> Link:
    return {link.id: link for link in chain_of(vehicle(skin, mm), inside, hold, landing).links}["base"]  # type: ignore[arg-type]


def sheet(thickness: float, strength: float, diameter: float = 4.826) -> tuple[float, float, float, float]:
    """AISI S100-16 J4.4.1 pull-out and J4.3.1 tilting, Ω 3.0, for the row of screws."""
    pull = 0.85 * thickness * diameter * strength / SCREW_ROW
    along = 2 * min(4.2 * sqrt(thickness**3 * diameter) * strength, 2.7 * thickness * diameter * strength)
    return pull, pull / 3.0, along, along / 3.0


@pytest.mark.parametrize(
    ("skin", "mm", "inside", "landing", "expected"),
    [
        ("steel", 0.8, HAT, "skin", sheet(0.8, STEEL)),
        ("steel", 0.8, HAT, "perhaps", sheet(0.8, STEEL)),
        ("steel", 0.8, HAT, "unknown", sheet(0.8, STEEL)),
        ("steel", 0.8, HAT, "member", sheet(1.5, STEEL)),
        ("steel", 0.8, BOX, "member", sheet(2.0, ALUMINIUM)),
        ("aluminium", 1.2, HAT, "skin", sheet(1.2, ALUMINIUM)),
        ("aluminium", 1.2, HAT, "member", sheet(1.5, STEEL)),
        ("aluminium", 1.2, BOX, "member", sheet(2.0, ALUMINIUM)),
    ],
)
def test_screws_in_metal(
    skin: str, mm: float, inside: Members, landing: str, expected: tuple[float, ...]
) -> None:
    assert four(base(skin, mm, SCREWED, landing, inside)) == pytest.approx(expected, rel=1e-9)


def wood(thread: float, gravity: float = 0.36, diameter: float = 4.826) -> tuple[float, float, float, float]:
    """NDS 2018 12.2-2 with C_D 1.6 and C_M 0.7; Wood Handbook 8-4 at failure; EN 1995-1-1 (8.9) sideways, γ
    2.0.
    """
    allowed = 2850 * gravity**2 * (diameter / 25.4) * 4.4482216 / 25.4 * thread * 1.6 * 0.7
    failing = 108.25 * gravity**2 * diameter * thread
    core = 1.1 * 0.7 * diameter
    embedment, moment = 0.082 * 290 * core**-0.3, 0.3 * 500 * core**2.6
    along = 2 * min(0.4 * embedment * thread * core, 1.15 * sqrt(2 * moment * embedment * core))
    return failing / SCREW_ROW, min(allowed, failing) / SCREW_ROW, along, along / 2.0


@pytest.mark.parametrize(
    ("skin", "mm", "landing", "thread"),
    [
        ("membrane", 9.5, "member", 25 - 4 - 1 - 9.5),  # screw, foot, layer of sealant, ply above the truss
        ("membrane", 9.5, "skin", 9.5),  # ply only: what is left of the screw is longer than the ply
        ("steel", 0.8, "member", 25 - 4 - 1 - 0.8),
        ("fibreglass", 3.0, "member", 25 - 4 - 1 - 3.0),
    ],
)
def test_screws_in_wood(skin: str, mm: float, landing: str, thread: float) -> None:
    assert four(base(skin, mm, SCREWED, landing, TRUSS)) == pytest.approx(wood(thread), rel=1e-9)


def test_screws_in_laminate() -> None:
    """Punching at half of 20 N/mm² on a 5 mm thread at least, bearing at 60 N/mm², factor 3.0 (judgement)."""
    pull, along = pi * 5.0 * 3.0 * 10.0 / SCREW_ROW, 2 * 2.4 * 4.826 * 3.0 * 60.0
    assert four(base("fibreglass", 3.0, SCREWED)) == pytest.approx(
        (pull, pull / 3, along, along / 3), rel=1e-9
    )


def washers(pull: float, bearing: float, thickness: float) -> tuple[float, float, float, float]:
    along = 2 * 2.4 * 6.0 * min(thickness, 30.0) * bearing
    return pull / BOLT_ROW, pull / BOLT_ROW / 3.0, along, along / 3.0


@pytest.mark.parametrize(
    ("skin", "mm", "inside", "landing", "expected"),
    [
        # AISI S100-16 J4.4.2: 1.5 · t · d_w · F_u with d_w counted up to 19 mm
        ("steel", 1.2, HAT, "skin", washers(1.5 * 1.2 * 19.0 * STEEL, STEEL, 1.2)),
        ("steel", 1.2, HAT, "member", washers(1.5 * 1.5 * 19.0 * STEEL, STEEL, 1.5)),
        ("steel", 1.2, BOX, "member", washers(1.5 * 2.0 * 19.0 * ALUMINIUM, ALUMINIUM, 2.0)),
        ("aluminium", 1.5, HAT, "skin", washers(1.5 * 1.5 * 19.0 * ALUMINIUM, ALUMINIUM, 1.5)),
        # punching on the washer's own edge: laminate 20, ply 1.3 N/mm²; bearing 60 and 7
        ("fibreglass", 4.0, HAT, "skin", washers(pi * 25 * 4.0 * 20.0, 60.0, 4.0)),
        ("membrane", 9.5, HAT, "skin", washers(pi * 25 * 9.5 * 1.3, 7.0, 9.5)),
        ("membrane", 9.5, TRUSS, "member", washers(pi * 25 * 60.0 * 1.3, 7.0, 60.0)),
    ],
)
def test_bolts_and_their_washers(
    skin: str, mm: float, inside: Members, landing: str, expected: tuple[float, ...]
) -> None:
    assert four(base(skin, mm, BOLTED, landing, inside)) == pytest.approx(expected, rel=1e-9)


def test_frame_bracket_and_fastener_links() -> None:
    links = {link.id: link for link in chain_of(vehicle("steel", 0.8), HAT, SCREWED, "member").links}
    assert list(links) == ["frame", "bracket", "fastener", "base"]
    frame = (
        1.5 * 1.5 * 12.0 * FRAME,
        1.5 * 1.5 * 12.0 * FRAME / 3.0,
        2.4 * 6.0 * 1.5 * FRAME,
        2.4 * 6.0 * 1.5 * FRAME / 1.95,
    )
    assert four(links["frame"]) == pytest.approx(frame)  # flange 1.5 mm, M6 washer 12 mm; Ω 3.0 and 1.95
    leg = 170.0 * 60 * 4**2 / (4 * 15)  # f_y · w · t² / 4a, 1.65 on yield
    assert four(links["bracket"]) == pytest.approx(
        (leg, leg / 1.65, 2.4 * 6 * 4 * FRAME, 2.4 * 6 * 4 * FRAME / 1.95)
    )
    core = 0.785398 * (0.7 * 4.826) ** 2  # A2-50: 500 N/mm², factor 2.0; shear 0.6
    screw = (500 * core / SCREW_ROW, 500 * core / SCREW_ROW / 2, 2 * 0.6 * 500 * core, 0.6 * 500 * core)
    assert four(links["fastener"]) == pytest.approx(screw)
    bolts = {link.id: link for link in chain_of(vehicle("steel", 0.8), HAT, BOLTED, "skin").links}
    area = pi / 4 * (6 - 0.9382 * 1.0) ** 2  # M6, A2-70: 700 N/mm²
    assert four(bolts["fastener"]) == pytest.approx(
        (700 * area / BOLT_ROW, 350 * area / BOLT_ROW, 840 * area, 420 * area)
    )


def test_a_row_beside_the_lever_shares_evenly() -> None:
    """Feet at the panel's ends: the row, along the member, runs along the bracket, (a + b)/b over the
    count.
    """
    link = {
        link.id: link for link in chain_of(vehicle("steel", 0.8), HAT, SCREWED, "skin", on_side=False).links
    }["base"]
    assert link.pull_nominal_n == pytest.approx(0.85 * 0.8 * 4.826 * STEEL / (45 / 30 / 2))
    assert link.shear_nominal_n == pytest.approx(sheet(0.8, STEEL)[2])


@pytest.mark.parametrize(("dwell", "bonded"), [(72.0, 1.0), (24.0, 0.9), (1 / 3, 0.5), (48.0, 0.95)])
def test_tape(dwell: float, bonded: float) -> None:
    """83 kPa with a factor of 3 to nominal; edge stress F/A · (1 + 6e/w) with e the lever, 10 mm."""
    hold = TAPED.model_copy(update={"dwell_h": dwell})
    links = {link.id: link for link in chain_of(vehicle("steel", 0.8), HAT, hold, "skin").links}
    whole = 0.249 * 100 * 50 * bonded
    edge = whole / (1 + 6 * 10 / 50)
    assert list(links) == ["frame", "bracket", "tape", "tape edge"]
    assert four(links["tape"]) == pytest.approx((whole, whole / 3, whole, whole / 3))
    assert four(links["tape edge"]) == pytest.approx((edge, edge / 3, whole, whole / 3))


def test_only_the_pad_under_the_base_counts() -> None:
    """A pad of 100 × 200 mm under a base of 35 mm: 107 N design, not 1277."""
    hold = FoamTape.model_validate(
        {"pad_length": 100, "pad_width": 200, "bracket": {"length": 100, "lever": 10, "toe": 25}}
    )
    links = {link.id: link for link in chain_of(vehicle("steel", 0.8), HAT, hold, "skin").links}
    assert (
        links["tape edge"].pull_design_n
        == pytest.approx(0.083 * 100 * 35 / (1 + 60 / 35))
        == pytest.approx(107.0, abs=0.1)
    )
    spring = 0.6 * 100 * 35 / 1.6
    chain = chain_of(vehicle("steel", 0.8), HAT, hold, "skin")
    assert chain.stiffness_n_mm == pytest.approx(spring * 200 / (spring + 200))


def test_stiffness_over_a_member_and_on_skin() -> None:
    assert chain_of(vehicle("steel", 0.8), HAT, SCREWED, "member").stiffness_n_mm == 2000
    assert chain_of(vehicle("steel", 0.8), HAT, SCREWED, "perhaps").stiffness_n_mm == 200
    unknown = Members.model_validate({"kind": "steel_hat", "face_width": 45})  # no wall: nothing to hold in
    assert chain_of(vehicle("steel", 0.8), unknown, SCREWED, "member").stiffness_n_mm == 200


# --- loads
ROOF = Rect(0.0, -1175.0, 8400.0, 2350.0)  # e = b = 2350: strip 235, next zone to 1175, corners 587.5 wide
MODEL = PanelModel.model_validate(
    {"name": "square metre", "length": 1250, "width": 800, "frame_height": 35, "mass": 12, "power": 200}
)


def panel(x: float, y: float, **more: object) -> PlacedPanel:
    return PlacedPanel.model_validate(
        {"id": "p1", "name": "p", "model": MODEL, "x": x, "y": y, "stand_off": 40, **more}
    )


def test_load_cases_are_the_standard_s() -> None:
    """EN 12195-1: 0.8 g forward, 0.5 g rearward and sideways; a bump takes the weight off by as many g as
    assumed.
    """
    assert [c[1:] for c in CASES] == [
        (0, 0, False),
        (0, 0, True),
        (-0.8, 0, False),
        (0.5, 0, False),
        (0, 0.5, False),
        (0, -0.5, False),
    ]
    loads = panel_loads(ROOF, panel(4000, 0), False)
    weight = 12 * G
    assert case_forces(loads, 2.0).tolist() == [
        pytest.approx(row)
        for row in (
            [0, 0, -weight],
            [0, 0, weight],
            [-0.8 * weight, 0, -weight],
            [0.5 * weight, 0, -weight],
            [0, 0.5 * weight, -weight],
            [0, -0.5 * weight, -weight],
        )
    ]


def test_uplift_of_a_panel_behind_the_zones() -> None:
    """c_pe for 1 m², zone I: 0.2. Exposed: 0.8 of ram on 300 mm, never under 1.2; sheltered never under 0.8;
    typical 0.4.
    """
    exposed, sheltered = panel_loads(ROOF, panel(4000, 0), True), panel_loads(ROOF, panel(4000, 0), False)
    assert exposed.cautious_m2 == pytest.approx(1.2 * 1.0)
    assert sheltered.cautious_m2 == pytest.approx(0.8 * 1.0)
    assert exposed.typical_m2 == sheltered.typical_m2 == pytest.approx(0.4 * 1.0)
    assert exposed.cautious_at_mm == pytest.approx((4625, 0))
    assert exposed.drag_m2 == pytest.approx(2.0 * 0.8 * 0.075)  # c_d 2.0, width across, stand-off and frame
    assert exposed.centre_height_mm == 40 + 17.5 and exposed.mass_kg == 12


def test_uplift_at_the_front_by_zones_and_ram() -> None:
    """At x 100, y 0: 135 mm in zone G (2.0), the rest of the ram strip in H (1.2), then H without ram; ram
    0.8 on 300 mm.
    """
    loads = panel_loads(ROOF, panel(100, 0), True)
    width = 0.8
    pieces = [
        (0.135 * width, 2.0 + 0.8),
        (0.165 * width, 1.2 + 0.8),
        (0.775 * width, 1.2),
        (0.175 * width, 1.2),
    ]
    assert loads.cautious_m2 == pytest.approx(sum(a * c for a, c in pieces))
    centres = [100 + 67.5, 235 + 82.5, 400 + 387.5, 1175 + 87.5]
    assert loads.cautious_at_mm[0] == pytest.approx(
        sum(a * c * x for (a, c), x in zip(pieces, centres, strict=True)) / loads.cautious_m2
    )
    assert loads.typical_m2 == pytest.approx(width * (0.135 * 1.4 + 0.94 * 0.4 + 0.175 * 0.4))
    assert loads.worst_zone == "front edge"


def test_the_corner_and_the_area_rule() -> None:
    """In the corner zone, and for 1.7 m²: c = c₁ − (c₁ − c₁₀)·log₁₀ A (EN 1991-1-4 7.2.1)."""
    big = MODEL.model_copy(update={"length": MODEL.length.of(1700.0), "width": MODEL.width.of(1000.0)})
    loads = panel_loads(ROOF, panel(0, -675, model=big), False)
    corner = 2.5 - (2.5 - 1.8) * log10(1.7)
    edge = 2.0 - (2.0 - 1.2) * log10(1.7)
    behind = 1.2 - (1.2 - 0.7) * log10(1.7)
    areas = 0.235 * 0.5875, 0.235 * 0.4125, 0.94 * 1.0, 0.525 * 1.0
    assert loads.cautious_m2 == pytest.approx(
        areas[0] * corner + areas[1] * edge + areas[2] * behind + areas[3] * 0.8
    )


def test_who_is_sheltered() -> None:
    def exposed(gap: float, shift: float = 0.0, front: str = "open") -> bool:
        ahead = panel(1000, shift).model_copy(update={"id": "p0"})
        job = Job.model_validate(
            {
                "name": "n",
                "panels": [ahead, panel(1000 + 1250 + gap, 0)],
                "assumptions": {"front_edge": front},
            }
        )
        return is_exposed(
            job.assumptions, panel_rect(job.panels[1]), tuple(panel_rect(p) for p in job.panels)
        )

    assert not exposed(150) and exposed(151), "a panel 150 mm in front shelters"
    assert not exposed(20, 400) and exposed(20, 401), "over half of the front edge"
    assert not exposed(5000, 0, "faired")


# --- one verdict ---
def by_hand_job(one_panel: Job) -> Job:
    """A square metre on four feet at its corners, tape on steel, far behind the zones, no bump: everything is
    symmetric.
    """
    held = {
        "school": "tape",
        "pad_length": 100,
        "pad_width": 50,
        "temperature": 21,
        "bracket": {"length": 100, "lever": 10, "toe": 40},
    }
    feet = [
        {"id": f"f{i}", "side": side, "along": along, "pinned": True}
        for i, (side, along) in enumerate(
            (("port", 125), ("port", 1125), ("starboard", 125), ("starboard", 1125)), 1
        )
    ]
    whole = panel(4000, 0).model_dump() | {"id": "p3", "hold": held, "feet": feet}
    job = one_panel.model_dump() | {
        "panels": [whole],
        "assumptions": {"front_edge": "faired", "bump_g": 0.0, "gust": {"m_s": 8.0}},
    }
    return Job.model_validate(job)


def test_one_whole_verdict_by_hand(one_panel: Job) -> None:
    job = by_hand_job(one_panel)
    found = evaluate(job)
    plan = found.findings.plan
    assert plan is not None
    rho = 1.225 * (1 - 2.25577e-5 * (job.vehicle.altitude.mm / 1000 if job.vehicle.altitude else 0)) ** 4.2559
    weight = 12 * G

    def speed(pull_cap: float, along_cap: float) -> float:
        """Smallest of all cases: (c·q ± drag moment − weight)/4 over the pull, drag and inertia over the
        force along.
        """
        slowest = 1e9
        height = 57.5
        for _, aft, starboard, _ in CASES:
            for x_sign in (1, -1):
                for y_sign in (1, -1):
                    # moments shared by feet 500 mm fore and aft of the middle and 410 mm to its sides
                    f0 = (
                        -weight / 4
                        - x_sign * aft * weight * height / (4 * 500)
                        - y_sign * starboard * weight * height / (4 * 410)
                    )
                    f1 = 0.8 / 4 - x_sign * 0.12 * height / (4 * 500)
                    s0, s1 = abs(aft + starboard) * weight / 4, 0.12 / 4
                    along = (1 - s0 / along_cap) / (s1 / along_cap)
                    both = (1 - s0 / along_cap - f0 / pull_cap) / (f1 / pull_cap + s1 / along_cap)
                    # inertia across and drag along act at right angles; their plain sum, on the safe side, is
                    # what is counted
                    slowest = min(slowest, max(min(along, both), 0.0))
        return sqrt(2 * slowest / rho) - 8.0

    whole = 0.249 * 100 * 50
    edge = whole / (1 + 60 / 50)
    assert plan.let_go_m_s == pytest.approx(speed(edge, whole), rel=1e-6)
    assert plan.safe_m_s == pytest.approx(speed(edge / 3, whole / 3), rel=1e-6)
    assert plan.density_kg_m3 == pytest.approx(rho) and plan.gust_m_s == 8.0
    assert plan.pressure_pa == pytest.approx(0.5 * rho * (plan.required_m_s + 8.0) ** 2)
    assert {f.weakest for v in found.findings.verdicts for f in v.feet} == {"tape edge"}


def test_a_lost_corner_leaves_the_diagonal() -> None:
    """Three of four equal corner feet: equilibrium alone gives each neighbour half of the pull and the
    opposite foot none.
    """
    x, y = np.array([-500.0, 500.0, -500.0, 500.0]), np.array([-410.0, -410.0, 410.0, 410.0])
    solved = share_pull(x, y, np.full(4, 200.0), np.array([[900.0, 0.0, 0.0]]))
    assert solved.pull_n[0, 0] == pytest.approx([225.0] * 4)
    assert solved.pull_n[1, 0] == pytest.approx([0, 450, 450, 0], abs=1e-9)
    assert solved.pull_n[4, 0] == pytest.approx([0, 450, 450, 0], abs=1e-9)
    uneven = share_pull(x, y, np.array([2000.0, 200, 2000, 200]), np.array([[900.0, 0.0, 0.0]]))
    assert uneven.pull_n[0, 0] == pytest.approx([225.0] * 4), (
        "front and rear stiff alike in pairs: moments still share evenly"
    )


# --- lengths, drills, places ---
def test_pilot_drills_and_clearance_holes() -> None:
    """Shop values, common practice; ISO 273 medium: M5 5.5, M6 6.6, M8 9, M10 11."""
    assert {n: (s.pilot_metal_mm, s.pilot_wood_mm) for n, s in SCREWS.items()} == {
        "#8": (3.0, 2.5),
        "#10": (3.5, 2.8),
        "#12": (4.0, 3.2),
        "#14": (5.0, 4.0),
    }
    assert {n: b.clearance_mm for n, b in BOLTS.items() if n[0] == "M"} == {
        "M5": 5.5,
        "M6": 6.6,
        "M8": 9.0,
        "M10": 11.0,
    }


def test_marks_carry_the_drill_of_what_they_go_into(sound: Job) -> None:
    marks = [m for m in evaluate(sound).findings.marks if m.panel == "p1"]
    screw = sound.panels[0].hold
    assert screw.school == "screws" and {m.pilot_mm for m in marks} == {SCREWS[screw.screw].pilot_metal_mm}
    truss = apply_edits(
        sound, [SetValue(path="members.kind", value="wood_truss"), SetValue(path="members.wall", value=None)]
    )
    assert {m.pilot_mm for m in evaluate(truss).findings.marks if m.into.startswith("member")} == {
        SCREWS[screw.screw].pilot_wood_mm
    }
    wall, skin = sound.members.wall, sound.vehicle.skin_thickness
    assert wall is not None and skin is not None
    assert {m.depth_stop_mm for m in marks} == {skin.mm + wall.mm + 3.0}
    pitch = ceil(3 * SCREWS[screw.screw].diameter_mm)
    pairs = sorted(m.y_mm for m in marks if m.foot == "f1")
    assert [b - a for a, b in pairwise(pairs)] == [pitch] * (screw.count - 1)


def test_bolt_length(sound: Job) -> None:
    """Foot 4, sealant 1, skin, washer 2, nut one diameter, one turn of thread; through the member its wall as
    well.
    """
    skin, wall = sound.vehicle.skin_thickness, sound.members.wall
    assert skin is not None and wall is not None
    assert bolt_length_needed_mm(sound.vehicle, sound.members, BOLTED, False) == pytest.approx(
        4 + 1 + skin.mm + 2 + 6 + 1.0
    )
    assert bolt_length_needed_mm(sound.vehicle, sound.members, BOLTED, True) == pytest.approx(
        4 + 1 + skin.mm + wall.mm + 2 + 6 + 1.0
    )


def test_clear_height_takes_band_and_sag_off(sound: Job) -> None:
    """Sag L/200 of the shorter span between feet (judgement), 1.96 s of the crown: by the working sheet's own
    steps.
    """
    gaps = [{"id": f"g{i}", "y": y, "gap": y * y / 8000} for i, y in enumerate(range(-1000, 1001, 250))]
    job = apply_edits(
        sound,
        [
            SetValue(
                path="survey.crown",
                value={"sections": [{"id": f"s{x}", "x": x, "readings": gaps} for x in (600, 4200, 7000)]},
            )
        ],
    )
    for height in evaluate(job).findings.clear_heights:
        steps = working(job, f"clear height/{height.panel}").steps
        sag = next(s.result for s in steps if s.formula == "panel_sag")
        last = next(s for s in reversed(steps) if s.formula == "clear_height")
        span = next(i.value for s in steps if s.formula == "panel_sag" for i in s.inputs)
        panel_z, roof_z, sigma, told = (i.value for i in last.inputs)
        assert sag == pytest.approx(span / 200) == pytest.approx(told) and sag > 1
        assert last.result == pytest.approx(panel_z - roof_z - 1.96 * sigma - sag)


def test_bracket_follows_a_typed_pad(sound: Job) -> None:
    taped = apply_edits(sound, [SetValue(path="panels.p1.hold", value={"school": "tape"})])
    wide = apply_edits(
        taped,
        [
            SetValue(path="panels.p1.hold.pad_width", value="80 mm"),
            SetValue(path="panels.p1.hold.pad_length", value="150 mm"),
        ],
    )
    bracket = wide.panels[0].hold.bracket
    assert (bracket.length.mm, bracket.toe.mm) == (150, 70)


def test_a_foot_is_thin_between_its_design_and_its_nominal_strength(one_panel: Job) -> None:
    taped = {"school": "tape", "pad_length": "60 mm", "pad_width": "25 mm", "temperature": "20 °C"}
    weak = load_job(
        {**one_panel.model_dump(), "panels": [{**one_panel.panels[0].model_dump(), "hold": taped}]}
    )
    plan = evaluate(weak).findings.plan
    assert plan is not None and plan.safe_m_s < plan.let_go_m_s
    between = (plan.safe_m_s + plan.let_go_m_s) / 2
    for speed, state in (
        (0.98 * plan.safe_m_s, "holds"),
        (between, "thin"),
        (1.02 * plan.let_go_m_s, "lets go"),
    ):
        told = evaluate(changed(weak, vehicle__top_speed={"m_s": round(speed, 3)})).findings.verdicts[0]
        worst = next(f for f in told.feet if f.foot == told.worst_foot)
        assert (worst.state, worst.utilisation > 1) == (state, state != "holds")


def test_where_all_feet_hold_beyond_what_is_told_the_most_used_is_the_worst(
    one_panel: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("fahrtwind.core.stations.hold.verdict.FASTEST_M_S", 1.0)
    MEMORY.forget()
    told = evaluate(changed(one_panel, panels__p3__y="35 mm")).findings.verdicts[0]
    MEMORY.forget()
    assert {f.let_go_m_s for f in told.feet} == {1.0} and len(
        {round(f.utilisation, 6) for f in told.feet}
    ) > 1
    assert told.worst_foot == max(told.feet, key=lambda f: f.utilisation).foot


def test_what_is_too_weak_standing_still_goes_at_no_pressure() -> None:
    assert limit_pressure(1500.0, 1.0, 0.0, 0.1, 1000.0, 2000.0) == 0.0
    assert limit_pressure(500.0, 1.0, 0.0, 0.0, 1000.0, 2000.0) == 500.0
    assert limit_pressure(0.0, 0.0, 1000.0, 0.5, 1000.0, 2000.0) == 2000.0


def test_the_steps_of_a_job_in_their_order(demo: Job) -> None:
    """Old work before cleaning, the pilot hole before the holes, seal before a panel covers the feet; and
    each step only where it belongs.
    """
    steps = {s.title: s.wait_h for s in evaluate(demo).findings.steps}
    order = [
        "Measure the delivered panels",
        "Make the roof safe to reach",
        "Take old work off and close every scar",
        "Clean and dry the roof round every foot",
        "Mark the feet from the datum",
        "Dry-fit",
        "Drill one pilot hole and look",
        "Drill the rest",
        "Deburr, remove every chip, paint the edges",
        "Lay butyl tape under the feet and set the fasteners",
        "Abrade, wipe, prime under the pads",
        "Stick and press the pads",
        "Seal round every foot",
        "Join cables that a panel will cover",
        "Lift the panels on and set the frame bolts loose",
        "Square up, then tighten in order",
        "Write down what was done",
    ]
    assert list(steps) == order
    assert {t: h for t, h in steps.items() if h} == {order[2]: 24, order[8]: 4, order[11]: 72, order[12]: 24}
    bare = changed(demo, survey__scars=[])
    screwed = load_job(
        {**bare.model_dump(), "panels": [p.model_dump() for p in bare.panels if p.hold.school == "screws"]}
    )
    told = [s.title for s in evaluate(screwed).findings.steps]
    assert told == [t for t in order if t not in (order[2], order[10], order[11])]
    taped = load_job(
        {**demo.model_dump(), "panels": [p.model_dump() for p in demo.panels if p.hold.school == "tape"]}
    )
    told = [s.title for s in evaluate(taped).findings.steps]
    assert not {order[6], order[7], order[8], order[9]} & set(told) and {order[10], order[11]} <= set(told)


def test_a_row_of_holes_is_held_against_the_base_on_its_own_side(one_panel: Job) -> None:
    """Feet at the ends stand along the bracket: there the row needs length, not toe."""
    hold = {"school": "screws", "count": 3, "bracket": {"toe": "60 mm", "lever": "60 mm", "length": "30 mm"}}
    wide = load_job(
        {**one_panel.model_dump(), "panels": [{**one_panel.panels[0].model_dump(), "hold": hold}]}
    )
    ends = apply_edits(wide, [SpreadFeet(panel="p3", count=4, along="ends")])
    for job, told in ((wide, False), (ends, True)):
        assert ("holes-beyond-base" in {s.id for s in evaluate(job).snags}) == told


@pytest.mark.parametrize(("gap_mm", "told"), [(18.5, True), (19.5, False)])
def test_holes_of_neighbours_keep_three_diameters(sound: Job, gap_mm: float, told: bool) -> None:
    """#14 screws are 6.35 mm thick: 19.05 mm from hole to hole, whichever panel they belong to."""
    hold = {"school": "screws", "screw": "#14", "count": 1}
    panels = [{**p.model_dump(), "hold": hold} for p in sound.panels[:2]]
    job = load_job({**sound.model_dump(), "panels": panels})
    across = panel_rect(job.panels[0]).width_mm
    lever = job.panels[0].hold.bracket.lever.mm
    half = across / 2 + lever + gap_mm / 2
    job = changed(job, panels__p1__y=-half, panels__p2__y=half, panels__p2__x=job.panels[0].x.mm)
    assert ("feet-crowd" in {s.id for s in evaluate(job).snags}) == told


def test_tape_on_the_list_is_the_pads_of_all_feet(demo: Job) -> None:
    """Six pads of 100 mm: 0.6 m, and a fifth more for waste."""
    found = {m.item: m for m in evaluate(demo).findings.materials}
    tape = found["foam tape 1.6 mm × 50 mm"]
    assert (tape.needed, tape.spare, tape.unit) == (
        0.6,
        0.12,
        "m",
    ) and "surface wipe and tape primer" in found


@pytest.mark.parametrize(
    ("skin", "under", "around"),
    [("steel", "butyl tape", "polyurethane"), ("membrane", "membrane", "membrane")],
)
def test_sealant_by_hand(one_panel: Job, skin: str, under: str, around: str) -> None:
    """A 6 mm bead round each foot and each pad whose edge is sealed, a quarter for waste; butyl under feet
    that are screwed. Judgement.
    """
    screws = {"school": "screws", "bracket": {"length": "60 mm", "lever": "15 mm", "toe": "30 mm"}}
    tape = {"school": "tape", "pad_length": "100 mm", "pad_width": "50 mm", "sealed_edge": True}
    first = {**one_panel.panels[0].model_dump(), "hold": screws}
    second = {**first, "id": "p9", "hold": tape}
    job = load_job({**one_panel.model_dump(), "panels": [first, second], "vehicle": {"skin": skin}})
    feet = len(job.panels[0].feet)
    plan = seal_plan(job)
    assert feet >= 4
    assert plan.bead_length_mm == pytest.approx(feet * 2 * (60 + 45) + feet * 2 * (100 + 50))
    assert plan.bead_volume_ml == pytest.approx(pi / 4 * 6**2 * 1.25 * plan.bead_length_mm / 1000)
    assert plan.cartridges == 1
    assert plan.butyl_area_cm2 == pytest.approx(feet * 60 * 45 / 100)
    assert under in plan.under and around in plan.round
    assert (cartridges_for(289.9), cartridges_for(290.0), cartridges_for(290.1)) == (1, 1, 2)
    many = load_job({**job.model_dump(), "panels": [{**first, "id": f"p{i}"} for i in range(20)]})
    assert seal_plan(many).cartridges == ceil(20 * feet * 210 * 1.25 * pi / 4 * 36 / 1000 / 290)
