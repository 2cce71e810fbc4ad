"""Wire: curves beside an open solar library, groupings beside a search of their own, the rest by hand."""

from __future__ import annotations

import itertools
import subprocess
import sys
from dataclasses import replace
from math import hypot

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pvlib import pvsystem
from shapely.geometry import LineString

from fahrtwind.core.choose.curves import EvenLight, HourLight, curves_of
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate, visit
from fahrtwind.core.formulas.wiring import diode_voltage
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.job.wiring import Controller
from fahrtwind.core.quantities import Current, Length, Mass, Power, Voltage
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.layout.shape import Shape
from fahrtwind.core.stations.wire.curves import LitPanel, current_grid, own_best, panel_volts
from fahrtwind.core.stations.wire.diode import diode_of, sheet_gaps
from fahrtwind.core.stations.wire.grouping import Field, Search, best_ways, given_way
from fahrtwind.core.stations.wire.route import ground_of, way_between, way_past, ways_from
from fahrtwind.core.tables.cables import CABLES, bundle_factor, cold_factor
from fahrtwind.demo import demo_jobs
from tests.conftest import changed, yield_of


def sheet(voc: float, vmp: float, isc: float, imp: float, cells: int = 60, diodes: int = 3) -> PanelModel:
    """A panel known by its data sheet alone."""
    return PanelModel(
        name=f"{voc} V",
        length=Length(mm=1650),
        width=Length(mm=1000),
        frame_height=Length(mm=35),
        mass=Mass(kg=18),
        power=Power(w=round(vmp * imp, 1)),
        voc=Voltage(v=voc),
        vmp=Voltage(v=vmp),
        isc=Current(a=isc),
        imp=Current(a=imp),
        cells=cells,
        bypass_diodes=diodes,
        voc_per_k=-0.32,
        isc_per_k=0.06,
    )


CEC = ("alpha_sc", "a_ref", "I_L_ref", "I_o_ref", "R_sh_ref", "R_s", "Adjust")
P250 = sheet(37.2, 30.1, 8.87, 8.3)
P50 = sheet(22.0, 17.9, 3.05, 2.8, cells=36, diodes=2)


def lit(model: PanelModel, *light: float, cell_c: float = 25.0) -> LitPanel:
    """A panel in one moment, every group in its own light."""
    diode = diode_of(model)
    groups = light if len(light) > 1 else light * diode.groups
    return LitPanel(diode, np.array(groups, dtype=float)[:, None], np.array([cell_c]))


def watts(panels: list[LitPanel], *, series: bool) -> float:
    """The highest power of panels in series or in parallel, by a fine search of its own."""
    currents = np.linspace(-20, 20, 8001)
    volts = [panel_volts(p, currents)[0] for p in panels]
    if series:
        return float((np.sum(volts, axis=0) * currents).max())
    grid = np.linspace(0, 45, 6001)
    amps = sum(np.interp(grid, v[::-1], currents[::-1]) for v in volts)
    return float((amps * grid).max())


def test_a_fitted_diode_beside_the_open_module_table() -> None:
    """Rows of the library's own table (CEC), drawn by a fixed seed: power in four lights and heats."""
    table = pvsystem.retrieve_sam("CECMod").T
    silicon = table[(table["Technology"].isin(["Mono-c-Si", "Multi-c-Si"])) & (table["N_s"].between(30, 96))]
    rows = silicon.iloc[np.random.default_rng(7).choice(len(silicon), 25, replace=False)]
    off = []
    for _, row in rows.iterrows():
        model = sheet(row.V_oc_ref, row.V_mp_ref, row.I_sc_ref, row.I_mp_ref, cells=int(row.N_s)).model_copy(
            update={
                "voc_per_k": row.beta_oc / row.V_oc_ref * 100,
                "isc_per_k": row.alpha_sc / row.I_sc_ref * 100,
                "power_per_k": row.gamma_r,
            }
        )
        for light, heat in ((1000, 25), (1000, 60), (400, 35), (200, 25)):
            params = pvsystem.calcparams_cec(
                light,
                heat,
                row.alpha_sc,
                row.a_ref,
                row.I_L_ref,
                row.I_o_ref,
                row.R_sh_ref,
                row.R_s,
                row.Adjust,
            )
            ours = watts([lit(model, float(light), cell_c=heat)], series=True)
            off.append(ours / float(pvsystem.max_power_point(*params, method="newton")["p_mp"]) - 1)
    assert np.abs(off).max() < 0.025 and abs(float(np.mean(off))) < 0.006


def test_shade_and_mixing_as_they_were_worked_with_the_open_library() -> None:
    """CHECKS: two 250 W panels; one group at 20 %, one panel at 30 %; unequal ones; and driven backwards."""
    one_group = [lit(P250, 1000), lit(P250, 1000, 1000, 200)]
    assert watts(one_group, series=True) == pytest.approx(413.7, rel=0.01)
    assert watts(one_group, series=False) == pytest.approx(339.2, rel=0.01)
    one_panel = [lit(P250, 1000), lit(P250, 300)]
    assert watts(one_panel, series=True) == pytest.approx(238, rel=0.01)
    assert watts(one_panel, series=False) == pytest.approx(324, rel=0.01)
    kin = [
        lit(sheet(44.6, 36.2, 5.45, 5.11, cells=72), 1000),
        lit(sheet(44.2, 35.8, 5.3, 4.89, cells=72), 1000),
    ]
    alone = sum(watts([p], series=True) for p in kin)
    assert 1 - watts(kin, series=True) / alone == pytest.approx(0.006, abs=0.005)
    mixed = [lit(P250, 1000), lit(P250, 1000), lit(P50, 1000), lit(P50, 1000)]
    assert watts(mixed, series=False) == pytest.approx(425, rel=0.03)
    assert watts(mixed, series=False) < watts(mixed[:2], series=False)


@given(st.lists(st.floats(20, 1100), min_size=6, max_size=6), st.integers(0, 5), st.floats(0.05, 0.95))
def test_more_shade_never_gives_more(light: list[float], which: int, share: float) -> None:
    def both(groups: list[float]) -> float:
        panels = [lit(P250, *groups[:3]), lit(P250, *groups[3:])]
        return max(watts(panels, series=True), watts(panels, series=False))

    darker = [x * share if i == which else x for i, x in enumerate(light)]
    assert both(darker) <= both(light) * 1.002 + 0.2


def field(panels: list[LitPanel], kinds: str) -> Field:
    """Panels under the same moments, half a year each hour."""
    moments = panels[0].light.shape[1]
    return Field(
        tuple(panels),
        tuple(kinds),
        np.full(moments, 8760 / 2 / moments),
        np.arange(moments) < 3,
        0,
        tuple(p.diode.voc_v * 1.18 for p in panels),
        tuple(p.diode.isc_a for p in panels),
    )


def drawn(seed: int, models: list[PanelModel], moments: int = 24) -> list[LitPanel]:
    """Panels with light of their own on every group."""
    draw = np.random.default_rng(seed)
    sun = draw.uniform(60, 1000, moments)
    found = []
    for model in models:
        diode = diode_of(model)
        light = np.where(draw.random((diode.groups, moments)) < 0.3, sun * 0.2, sun)
        found.append(LitPanel(diode, light, np.full(moments, 40.0)))
    return found


CONTROLLERS = (
    Controller(id="a", name="A", max_voltage=Voltage(v=100), max_current=Current(a=20)),
    Controller(id="b", name="B", max_voltage=Voltage(v=50), kind="switching"),
)


def by_hand(panels: list[LitPanel], kinds: str) -> float:
    """Every way to give each panel a place in a string of a controller, worked one by one: slow and plain."""
    best = 0.0
    currents = np.linspace(-40, 12, 2601)
    volts = [panel_volts(p, currents) for p in panels]
    grid = np.linspace(0.0, 100.0, 2001)
    cold = [p.diode.voc_v * 1.18 for p in panels]
    hours = 8760 / 2 / panels[0].light.shape[1]
    places = list(itertools.product(range(len(CONTROLLERS)), range(len(panels))))
    for chosen in itertools.product(places, repeat=len(panels)):
        year = 0.0
        for c, controller in enumerate(CONTROLLERS):
            own = [[i for i, at in enumerate(chosen) if at == (c, s)] for s in range(len(panels))]
            strings = [s for s in own if s]
            if not strings:
                continue
            assert controller.max_voltage is not None
            over = any(sum(cold[i] for i in s) > controller.max_voltage.v for s in strings)
            amps = sum(max(panels[i].diode.isc_a for i in s) for s in strings)
            if over or (controller.max_current and amps > controller.max_current.a):
                year = -1.0
                break
            for moment in range(panels[0].light.shape[1]):
                total = np.zeros(len(grid))
                for s in strings:
                    v = np.sum([volts[i][moment] for i in s], axis=0)
                    total += np.interp(grid, v[::-1], currents[::-1])
                if controller.kind == "switching":
                    year += max(float(np.interp(14.4, grid, total)) * 14.4, 0.0) * hours
                else:
                    allowed = (grid >= 15.4) & (grid <= controller.max_voltage.v)
                    year += max(float((total * grid)[allowed].max()), 0.0) * hours
        best = max(best, year)
    return best


@pytest.mark.parametrize(("seed", "kinds"), [(1, "XXY"), (2, "XYY"), (3, "XXX")])
def test_the_best_grouping_beside_a_search_that_tries_every_place(seed: int, kinds: str) -> None:
    panels = drawn(seed, [P250 if k == "X" else P50 for k in kinds], moments=6)
    found = best_ways(Search(field(panels, kinds), CONTROLLERS))
    assert found.all
    assert sum(j.year_wh for j in found.ways[0]) == pytest.approx(by_hand(panels, kinds), rel=2e-3)


def test_equal_panels_in_other_places_are_no_other_way_and_limits_hold() -> None:
    panels = drawn(5, [P250] * 4)
    tried = best_ways(Search(field(panels, "XXXX"), CONTROLLERS))
    shapes = [sorted((j.controller, sorted(len(s) for s in j.strings)) for j in way) for way in tried.ways]
    assert len(shapes) == len({str(s) for s in shapes})
    for way in tried.ways:
        assert frozenset().union(*(j.panels for j in way)) == {0, 1, 2, 3}
        for joined in way:
            limit = CONTROLLERS[joined.controller].max_voltage
            assert limit and all(len(s) * 37.2 * 1.18 <= limit.v for s in joined.strings)
    swapped = [panels[i] for i in (2, 0, 3, 1)]
    again = best_ways(Search(field(swapped, "XXXX"), CONTROLLERS))
    assert [round(sum(j.year_wh for j in w)) for w in again.ways] == [
        round(sum(j.year_wh for j in w)) for w in tried.ways
    ]


def test_nothing_is_proposed_for_limits_nobody_told_and_the_code_counts(sound: Job) -> None:
    """An unknown limit is asked for; under NEC an input's current counts by 1.25: 4 · 10.1 A are 50.5 A."""
    silent = visit(changed(sound, wiring__controllers__c1__max_voltage=None))
    with pytest.raises(InputError, match="how many volts"):
        silent.demand("moments")
        silent.demand("groupings")
    most = changed(sound, wiring__controllers__c1__max_current="45 A")
    words = {
        code: {w.words for w in visit(changed(most, wiring__code=code)).demand("groupings").ways}
        for code in ("IEC", "NEC")
    }
    assert "1s4p" in words["IEC"] and "1s4p" not in words["NEC"] and "2s2p" in words["NEC"]


def test_what_is_taken_is_never_more_than_each_panel_alone() -> None:
    panels = drawn(11, [P250, P250, P50, P250])
    search = Search(field(panels, "XXYX"), CONTROLLERS)
    currents = current_grid(panels)
    alone = sum(float((own_best(p, currents) * search.field.hours).sum()) for p in panels)
    ways = best_ways(search).ways
    assert ways and all(sum(j.year_wh for j in way) <= alone * 1.002 for way in ways)
    [again] = given_way(search.finely, [(ways[0][0].controller, ways[0][0].strings)])
    assert again.year_wh == pytest.approx(ways[0][0].year_wh, rel=1e-9)


def test_a_year_by_curves_beside_the_year_of_the_layout(sound: Job) -> None:
    """Two ways to the same energy: by moments and diodes here, by sums and coefficients there."""
    lone = changed(sound, panels__p1__model__power_per_k=-0.36)
    found = visit(lone).demand("groupings")
    layout = sum(m.day_wh for m in yield_of(lone).months) / 12 * 365.25 / 1000
    assert found.alone_kwh == pytest.approx(layout, rel=0.05)
    assert found.ways[0].december_wh == pytest.approx(yield_of(lone).months[11].day_wh, rel=0.08)
    assert found.own is not None and found.own.year_kwh <= found.alone_kwh * 1.001
    assert found.all_tried and found.ways[0].year_kwh >= found.own.year_kwh * 0.9999
    assert "same" in found.reason or "%" in found.reason


def test_panels_that_never_reach_the_battery_alone_go_in_series(sound: Job) -> None:
    """A panel of 33.5 V never charges 48 V; two in series do."""
    found = visit(changed(sound, wiring__controllers__c1__battery=48)).demand("groupings")
    assert found.reason.startswith("Only in series: all in parallel the panels never have the volts")
    assert all(len(s.panels) > 1 for s in found.ways[0].strings)
    assert [w.year_kwh for w in found.ways if w.words == "1s4p"] in ([], [0.0])
    needs = {"battery": 24, "start_over": "8 V", "run_over": "6 V"}  # a warm panel is just short of it
    late = changed(sound, **{f"wiring__controllers__c1__{name}": value for name, value in needs.items()})
    both = visit(late).demand("groupings")
    alone = next(w.year_kwh for w in both.ways if w.words == "1s4p")
    more = (both.ways[0].year_kwh / alone - 1) * 100
    assert more > 10 and both.reason.startswith(f"Best in series: {more:.1f} % more a year than all in")
    short = changed(sound, wiring__controllers__c1__battery=48, wiring__controllers__c1__max_voltage="50 V")
    assert "never have the volts" in visit(short).demand("groupings").reason


def test_sheets_that_do_not_add_up_are_told_by_field() -> None:
    assert [g.field for g in sheet_gaps(P250.model_copy(update={"vmp": None, "isc": None}))] == ["isc", "vmp"]
    swapped = P250.model_copy(update={"voc": Voltage(v=30.1), "vmp": Voltage(v=37.2)})
    assert [g.field for g in sheet_gaps(swapped)] == ["vmp"]
    assert "swapped" in sheet_gaps(swapped)[0].remedy
    wrong = P250.model_copy(update={"power": Power(w=400)})
    assert "says 400 W" in sheet_gaps(wrong)[0].why
    with pytest.raises(InputError) as told:
        diode_of(P250.model_copy(update={"imp": Current(a=8.86)}))
    assert told.value.field.startswith("model.")
    half_cut = diode_of(P250.model_copy(update={"cells": 120}))
    assert half_cut.cells == 60, "two halves side by side count once"


def limits(job: Job, controller: str = "c1") -> dict[str, tuple[float, float | None]]:
    found = next(a for a in evaluate(job).findings.arrays if a.controller == controller)
    return {limit.key: (limit.value, limit.limit) for limit in found.limits}


def test_limits_of_two_strings_by_hand(sound: Job) -> None:
    """2s2p of the 320 W panel: Voc 40.2 V, Vmp 33.5 V, Isc 10.1 A, Imp 9.55 A, −0.28 %/K."""
    told = limits(sound)
    # the table at −18 °C has 1.18, the sheet 1 + 0.0028 · 43 = 1.1204: the higher counts
    assert told["cold voltage"] == (pytest.approx(2 * 40.2 * 1.18), 150)
    steep = changed(
        sound, **{f"panels__p{i}__model__voc_per_k": -0.5 for i in range(1, 5)}, wiring__coldest="-18 °C"
    )
    assert limits(steep)["cold voltage"][0] == pytest.approx(2 * 40.2 * (1 + 0.005 * 43))
    assert told["current"] == (pytest.approx(2 * 10.1), 45)
    assert limits(changed(sound, wiring__code="NEC"))["current"][0] == pytest.approx(1.25 * 2 * 10.1)
    assert told["power"] == (4 * 320, pytest.approx(85 * 14.4))
    assert told["reverse"] == (pytest.approx(1.25 * 10.1), None)
    assert limits(changed(sound, panels__p1__model__max_fuse="20 A"))["reverse"][1] is None, "of all or none"
    # 6 mm² bears 57 A at 60 °C; 34 °C air and 33 K near the roof are 67 °C; two run together
    assert told["ampacity"] == (
        pytest.approx(1.25 * 2 * 10.1),
        pytest.approx(57 * ((120 - 67) / (120 - 60)) ** 0.5),
    )
    runs = evaluate(sound).findings.harnesses[0].runs
    ohm = 3.39 * (1 + 0.00393 * 55)
    trunk = sum(r.length_mm for r in runs if r.trunk) / 1e6 * ohm * 2 * 9.55
    own = max(sum(r.length_mm for r in runs if r.string == s) for s in ("s1", "s2")) / 1e6 * ohm * 9.55
    assert told["drop"][0] == pytest.approx((trunk + own) / 67 * 100)


def test_the_tables_row_by_row() -> None:
    """NEC Table 690.7(A), Chapter 9 Table 8 and Table 310.16
    (CHECKS has the 90 °C column, resistances and four
    cold rows); the rest from memory, written a second time.
    """
    cold = {20: 1.02, 15: 1.04, 10: 1.06, 5: 1.08, 0: 1.10, -5: 1.12, -10: 1.14, -15: 1.16, -20: 1.18}
    cold |= {-25: 1.20, -30: 1.21, -35: 1.23, -40: 1.25, 25: 1.0, -1: 1.12, -50: 1.25}
    assert {t: cold_factor(t) for t in cold} == cold
    awg = {"14 AWG": (3.14, 25, 20), "12 AWG": (1.98, 30, 25), "10 AWG": (1.24, 40, 35)}
    awg |= {"8 AWG": (0.778, 55, 50), "6 AWG": (0.491, 75, 65), "4 AWG": (0.308, 95, 85)}
    told = {n: (c.ohm_per_km / 3.280839895, c.ampacity_a, c.terminal_a) for n, c in CABLES.items()}
    assert {n: told[n] for n in awg} == {n: (pytest.approx(r), a, t) for n, (r, a, t) in awg.items()}
    metric = {"2.5 mm²": (8.21, 33), "4 mm²": (5.09, 44), "6 mm²": (3.39, 57), "10 mm²": (1.95, 79)}
    metric |= {"16 mm²": (1.24, 107)}
    assert {n: (CABLES[n].ohm_per_km, CABLES[n].ampacity_a) for n in metric} == metric
    # between the gauges on both sides no metric cable may do more at terminals than the thicker gauge
    by_area = sorted(CABLES.values(), key=lambda c: c.area_mm2)
    assert [c.terminal_a for c in by_area] == sorted(c.terminal_a for c in by_area)
    assert [bundle_factor(n) for n in (2, 3, 4, 6, 7, 9, 10, 20, 21)] == [
        1,
        1,
        0.8,
        0.8,
        0.7,
        0.7,
        0.5,
        0.5,
        0.45,
    ]


def test_three_strings_want_fuses_and_two_do_not(sound: Job) -> None:
    three = [{"id": f"s{i}", "controller": "c1", "panels": [f"p{i}"]} for i in (1, 2, 3)]
    job = changed(sound, wiring__strings=three)
    found = evaluate(job).findings.arrays[0]
    assert found.fuse_needed and found.fuse is not None and found.fuse.low == 20  # 1.5 · 10.1 A is 15.15 A
    assert not evaluate(sound).findings.arrays[0].fuse_needed
    rated = {f"panels__p{i}__model__max_fuse": "25 A" for i in (1, 2, 3)}
    sized = evaluate(changed(job, **rated)).findings.arrays[0]
    # two others drive 2 · 12.6 A = 25.25 A, a quarter ampere more than it bears
    assert sized.fuse_needed and sized.fuse is not None and (sized.fuse.low, sized.fuse.high) == (20, 25)
    bears = {f"panels__p{i}__model__max_fuse": "30 A" for i in (1, 2, 3)}
    assert not evaluate(changed(job, **bears)).findings.arrays[0].fuse_needed


ROOF = Rect(0, -1000, 6000, 2000)


def test_a_cable_goes_round_what_is_closed_and_along_what_holds(sound: Job) -> None:
    bare = ground_of(ROOF, (), (), (), ())
    [straight] = ways_from(bare, (500, 0), [(4500, 0)])
    assert straight.length_mm == pytest.approx(4000, rel=0.02) and straight.open_mm == pytest.approx(
        4000, rel=0.02
    )
    fan = Shape("o1", "obstacle", Rect(2000, -300, 600, 600), Rect(2600, -300, 300, 600), ())
    [round_it] = ways_from(ground_of(ROOF, (), (), (fan,), ()), (500, 0), [(4500, 0)])
    # at the least two diagonals past its corners and along its side
    least = hypot(1500, 300) + 900 + hypot(1600, 300)
    assert not round_it.crosses and least <= round_it.length_mm < least * 1.15
    forced = way_past(ground_of(ROOF, (), (), (fan,), ()), (4500, 0), [(2300, 0)], (500, 0))
    assert forced.crosses, "a spot on the fan is what somebody wanted, and is told"
    wet = ground_of(ROOF, (), (), (), ((2500, 0, 400),))
    assert ways_from(wet, (500, 0), [(4500, 0)])[0].wet_mm == 0
    panel = sound.panels[0].model_copy(update={"x": Length(mm=1000), "y": Length(mm=0)})
    held = ways_from(ground_of(ROOF, (panel,), (), (), ()), (800, -400), [(3200, -400)])[0]
    assert held.held_mm > 1000, "its frame holds ties"


@pytest.mark.parametrize("seed", range(12))
def test_no_cable_crosses_a_closed_place_on_drawn_roofs(seed: int) -> None:
    draw = np.random.default_rng(seed)
    things = tuple(
        Shape(
            f"o{i}",
            "obstacle",
            Rect(*draw.uniform([600, -800], [4800, 400]), *draw.uniform(150, 600, 2)),
            None,
            (),
        )
        for i in range(5)
    )
    ground = ground_of(ROOF, (), (), things, ())
    spots = draw.uniform([200, -900], [5800, 900], (6, 2))
    ends = [(float(x), float(y)) for x, y in spots[ground.counts_at(spots) < 1e6]]
    for way in ways_from(ground, (150, 900), ends):
        line = LineString([(v.x_mm, v.y_mm) for v in way.points])
        inside = sum(line.intersection(t.rect.polygon().buffer(-30)).length for t in things)
        assert inside == 0 and not way.crosses
        near = way_between(ground, ends[0], (way.points[0].x_mm, way.points[0].y_mm))
        [far] = ways_from(ground, (way.points[0].x_mm, way.points[0].y_mm), [ends[0]])
        assert near.length_mm == pytest.approx(far.length_mm, rel=0.05) and not near.crosses
        assert way.length_mm >= hypot(way.points[0].x_mm - 150, way.points[0].y_mm - 900) - 1


def test_parts_of_the_demo_by_counting(sound: Job) -> None:
    """2s2p joined on the roof: a branch pair, and what each run and each joint in series takes."""
    found = evaluate(sound).findings
    [harness] = found.harnesses
    parts = {p.item: p for p in found.wire_parts}
    assert parts["branch pieces, 2 into 1, plus and minus"].amount == 1
    added = [r for r in harness.runs if r.extension_mm > 0]
    plugs = sum(1 if r.ends == "controller" else 2 for r in added)
    plugs += 2 * sum(j.extension_mm > 0 for j in harness.jumpers)
    assert parts["PV connector for 6 mm²"].amount == plugs
    assert parts["ferrule for 6 mm²"].amount == 2
    assert parts["cable label"].amount == 2 * len(harness.runs)
    metres = sum(-(-r.extension_mm // 100) / 10 for r in added if r.polarity == "+")
    assert parts["PV cable 6 mm², red"].amount == pytest.approx(metres, abs=0.06)
    listed = {m.item: m for m in found.materials}
    assert listed["PV cable 6 mm², red"].needed == parts["PV cable 6 mm², red"].amount
    assert any(line.serves == "PV cable 6 mm², red" for line in found.purchase)
    inside = evaluate(changed(sound, wiring__controllers__c1__joined="inside", seal__gland__cables=4))
    assert inside.findings.harnesses[0].branch is None
    assert sum(r.ends == "controller" for r in inside.findings.harnesses[0].runs) == 4


def meter(job: Job, **reading: object) -> str:
    told = evaluate(changed(job, wiring__meter=[{"id": "e1", "at": "s1", "panel": "25 °C", **reading}]))
    verdict = told.findings.meter[0]
    return verdict.meant[0].meaning if verdict.explained else "unexplained"


def test_readings_of_a_string_by_hand(sound: Job) -> None:
    """Two panels of 40.2 V at 25 °C in clear sun: 80 V is right, half of it is one panel, less is less."""
    clear = {"sky": "clear", "month": 6, "hour": 12}
    assert meter(sound, volts="80 V", **clear) == "right"
    assert meter(sound, volts="-80 V", **clear) == "reversed"
    assert meter(sound, volts="0.1 V", **clear) == "no contact"
    assert meter(sound, volts="66.6 V", **clear) == "one group dead"  # 80 less a third of 40.2
    assert meter(sound, volts="40 V", amps="9.4 A", **clear) == "one panel missing"
    assert meter(sound, volts="40 V", amps="18.8 A", **clear) == "joined wrongly"
    for absurd in ("120 V", "900 V", "-900 V"):
        assert meter(sound, volts=absurd, **clear) == "unexplained"
        job = changed(sound, wiring__meter=[{"id": "e1", "at": "s1", "volts": absurd, **clear}])
        assert "meter-says-no" in {s.id for s in evaluate(job).snags}
    assert meter(sound, volts="76 V", sky="cloud", month=12, hour=10) == "right", "cold and dull is no fault"
    band = evaluate(changed(sound, wiring__meter=[{"id": "e1", "at": "s1", **clear}])).findings.meter[0]
    assert band.volts.low < 80 < band.volts.high and band.meant == ()
    both = changed(sound, wiring__meter=[{"id": "e1", "at": "c1", **clear, "panel": "25 °C", "amps": "19 A"}])
    assert evaluate(both).findings.meter[0].meant[0].meaning == "right"


def test_curves_of_an_hour_are_those_of_the_light_there(sound: Job) -> None:
    free = changed(sound, wiring__controllers__c1__charge_current=None)
    [full] = curves_of(free, EvenLight())
    assert full.at_w == pytest.approx(4 * 320, rel=0.005) and full.lost_percent < 0.1
    assert full.at_v == pytest.approx(67, rel=0.03) and len(full.maxima) == 1
    [low] = curves_of(free, HourLight(12, 10.0, 180.0))
    assert 20 < low.at_w < full.at_w / 2 and low.light.high < 600
    with pytest.raises(InputError, match="sun is down"):
        curves_of(free, HourLight(12, 2.0, 180.0))
    mixed = replace(EvenLight(), w_m2=500.0)
    assert curves_of(free, mixed)[0].at_w == pytest.approx(full.at_w / 2, rel=0.03)


def test_volts_of_any_diode_are_those_of_the_solar_library() -> None:
    """pvlib's own solution by Lambert's W, from faint light to far into reverse and beyond the open volts."""
    rng, n = np.random.default_rng(3), 20_000
    photo, dark = rng.uniform(1e-4, 15, n), 10 ** rng.uniform(-15, -5, n)
    current = photo * rng.uniform(-0.2, 1.2, n)
    rest = rng.uniform(0.01, 1, n), 10 ** rng.uniform(1, 5, n), rng.uniform(0.2, 6, n)
    wanted = pvsystem.v_from_i(current, photo, dark, *rest)
    ours = np.asarray(diode_voltage(current, photo, dark, *rest))
    assert np.abs(ours - wanted).max() < 1e-9 * np.abs(wanted).max()
    assert np.median(np.abs(ours - wanted)) < 1e-10


def test_threads_that_load_the_solar_library_at_once_all_get_it() -> None:
    """Its modules import one another in a circle: half of it was seen by whoever came second."""
    code = (
        "from concurrent.futures import ThreadPoolExecutor as Pool; "
        "from fahrtwind.core.solar_library import solar_library as lib; "
        "each = lambda n: getattr(lib(), n).__name__; "
        "print(*Pool(8).map(each, ['pvsystem', 'clearsky', 'solarposition', 'atmosphere'] * 4))"
    )
    run = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True)
    assert run.returncode == 0 and run.stdout.count("pvlib.pvsystem") == 4, run.stderr[-500:]


def test_unequal_strings_are_driven_backwards_and_said(sound: Job) -> None:
    strings = [
        {"id": "s1", "controller": "c1", "panels": ["p1", "p2", "p3"]},
        {"id": "s2", "controller": "c1", "panels": ["p4"]},
    ]
    [curve] = curves_of(changed(sound, wiring__strings=strings), EvenLight())
    weak = next(s for s in curve.strings if s.string == "s2")
    assert weak.open_backwards_a > 5 and curve.lost_percent > 20


def test_every_demo_is_plugged_but_the_one_just_surveyed() -> None:
    for job in demo_jobs():
        stops = [s.id for s in evaluate(job).snags if s.station == "wire" and s.severity == "stop"]
        assert stops == [] and bool(job.wiring.strings) == bool(job.panels), job.name
