"""Snags of wiring: strings that do not add up, limits passed, cables that run badly, what the meter says."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_run
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.wire.limit import Key, Limit
from fahrtwind.core.stations.wire.meter import MeterVerdict
from fahrtwind.core.stations.wire.results import ControllerFinding
from fahrtwind.core.stations.wire.runs import Harness, Run
from fahrtwind.core.stations.wire.strings import Array, PanelDiode
from fahrtwind.core.tables.cables import CABLES

PRACTICE = "common practice, no source"
FUSES = "IEC 62548-1 (2023) 6.3; NEC 690.9 (2023)"
LICENSED = "Local code and licensed practice decide."
TOUCH_V = 60.0
"""Direct voltage over which touching it is dangerous: IEC 61140 (extra-low voltage, dry, ripple-free)."""
OPEN_MM, HAND_MM = 1500.0, 60.0
UNEQUAL_AMPS = 1.05


@rule("string-lost-its-panel", "stop", "wire", "A string names a panel that is not there", "the job")
def string_lost_its_panel(wiring: Wiring, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    there = {p.id for p in panels}
    known = {c.id for c in wiring.controllers}
    for i, string in enumerate(wiring.strings, start=1):
        gone = [p for p in string.panels if p not in there]
        if gone:
            why = f"{len(gone)} of its panels came off the roof."
            yield Found(f"wiring.strings.{string.id}", f"string {i}", why, "Take them out of the string.")
        if string.controller not in known:
            why = "Its controller is gone."
            yield Found(
                f"wiring.strings.{string.id}", f"string {i}", why, "Plug it into another, or remove it."
            )
        if not string.panels:
            why = "It has no panel."
            yield Found(f"wiring.strings.{string.id}", f"string {i}", why, "Pick its panels, or remove it.")


@rule("plugged-twice", "stop", "wire", "A panel is in two strings", "two leads go into one connector each")
def plugged_twice(wiring: Wiring, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    counts = Counter(p for s in wiring.strings for p in s.panels)
    for panel in panels:
        if counts[panel.id] > 1:
            why = f"{counts[panel.id]} strings name it."
            yield Found(f"panels.{panel.id}", panel.name, why, "Take it out of all but one.")


@rule("not-plugged", "caution", "wire", "A panel is in no string", "the job")
def not_plugged(wiring: Wiring, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    if not wiring.strings:
        return
    used = {p for s in wiring.strings for p in s.panels}
    for panel in panels:
        if panel.id not in used:
            why = "It is held, but gives nothing."
            yield Found(f"panels.{panel.id}", panel.name, why, "Put it into a string.")


@rule("sheet-has-gaps", "stop", "wire", "The data sheet does not give a curve", "four values fix a diode")
def sheet_has_gaps(
    wiring: Wiring, panels: tuple[PlacedPanel, ...], panel_diodes: tuple[PanelDiode, ...]
) -> Iterator[Found]:
    if not wiring.controllers:
        return
    names = {p.id: p.name for p in panels}
    for told in panel_diodes:
        if told.diode is None:
            yield Found(told.field, names[told.panel], told.why, told.remedy)


@rule("sheet-was-guessed", "note", "wire", "The sheet is silent; the usual is counted", PRACTICE)
def sheet_was_guessed(
    wiring: Wiring, panels: tuple[PlacedPanel, ...], panel_diodes: tuple[PanelDiode, ...]
) -> Iterator[Found]:
    if not wiring.strings:
        return
    models = {p.id: p.model.name for p in panels}
    told: dict[str, tuple[str, str]] = {}
    for d in panel_diodes:
        if d.diode is not None and d.diode.assumed:
            told.setdefault(models[d.panel], (d.panel, ", ".join(d.diode.assumed)))
    for model, (panel, what) in told.items():
        yield Found(f"panels.{panel}.model", model, f"Not on it: {what}.", "Type them from the data sheet.")


def _passed(findings: tuple[ControllerFinding, ...], *keys: Key) -> Iterator[tuple[ControllerFinding, Limit]]:
    for finding in findings:
        for limit in finding.limits:
            if limit.key in keys and limit.held is False:
                yield finding, limit


def _found(finding: ControllerFinding, limit: Limit, why: str, remedy: str) -> Found:
    return Found(
        limit.place,
        finding.name,
        why,
        remedy,
        limit.words,
        round(limit.value, 2),
        None if limit.limit is None else round(limit.limit, 2),
        limit.unit,
    )


@rule("too-many-volts", "stop", "wire", "Cold voltage is over the controller's limit", "NEC 690.7 (2023)")
def too_many_volts(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "cold voltage"):
        assert limit.limit is not None
        over = limit.value - limit.limit
        yield _found(
            finding,
            limit,
            f"{limit.value:.0f} V on a bright morning in record cold, {over:.0f} V over what it bears.",
            "One panel less in series, or a controller for more volts.",
        )


@rule("limit-not-told", "stop", "wire", "Nobody said what the controller bears", "its sheet")
def limit_not_told(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding in controller_findings:
        for limit in finding.limits:
            if limit.key == "cold voltage" and limit.held is None:
                why = f"It gets {limit.value:.0f} V in record cold."
                yield _found(finding, limit, why, "Type its highest input voltage from its sheet.")


@rule("input-current-not-told", "caution", "wire", "The controller's input current is not told", "its sheet")
def input_current_not_told(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding in controller_findings:
        for limit in finding.limits:
            if limit.key == "current" and limit.held is None:
                why = f"It gets {limit.value:.1f} A."
                yield _found(finding, limit, why, "Type its highest short-circuit current from its sheet.")


@rule("too-few-volts", "stop", "wire", "In heat the controller takes nothing", "data sheets, hot cells")
def too_few_volts(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "hot voltage"):
        why = f"A hot string runs at {limit.value:.1f} V; it needs {limit.limit:.1f} V."
        yield _found(finding, limit, why, "One panel more in series, or a controller that starts lower.")


@rule("starts-late", "caution", "wire", "In heat it may not start again", "data sheets, hot cells")
def starts_late(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "start"):
        why = f"Open and hot it shows {limit.value:.1f} V; to start it needs {limit.limit:.1f} V."
        yield _found(finding, limit, why, "One panel more in series, or a controller that starts lower.")


@rule("too-many-amps", "stop", "wire", "More current than the controller's input bears", "NEC 690.8 (2023)")
def too_many_amps(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "current"):
        why = f"{limit.value:.1f} A of short circuit; it bears {limit.limit:.1f} A."
        yield _found(finding, limit, why, "More in series, fewer in parallel, or a second controller.")


@rule("power-is-cut", "note", "wire", "The controller takes less than the panels give", "its sheet")
def power_is_cut(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "power"):
        why = f"{limit.value:.0f} W on it, it takes {limit.limit:.0f} W; the year tells what that costs."
        yield _found(finding, limit, why, "Often fine on a flat roof; else a larger controller.")


@rule("fuse-missing", "stop", "wire", "Each string needs a fuse", FUSES)
def fuse_missing(controller_findings: tuple[ControllerFinding, ...], wiring: Wiring) -> Iterator[Found]:
    fuses = {c.id: c.fuse for c in wiring.controllers}
    for finding in controller_findings:
        if not finding.fuse_needed or fuses[finding.controller] is not None:
            continue
        back = next(lim for lim in finding.limits if lim.key == "reverse")
        size = f"{finding.fuse.low:g} A" if finding.fuse else "none: no size serves"
        why = f"The others can drive {back.value:.0f} A backwards through a bad string: it burns."
        yield _found(finding, back, why, f"A fuse for direct current in each plus: {size}. {LICENSED}")


@rule("fuse-wrong", "stop", "wire", "The fuse does not fit the string", FUSES)
def fuse_wrong(controller_findings: tuple[ControllerFinding, ...], wiring: Wiring) -> Iterator[Found]:
    fused = {c.id for c in wiring.controllers if c.fuse is not None}
    for finding, limit in _passed(controller_findings, "fuse", "reverse"):
        if finding.controller not in fused:
            continue
        size = f"Take {finding.fuse.low:g} A." if finding.fuse else "No size serves: fewer strings."
        small = limit.key == "fuse"
        why = (
            f"{limit.value:g} A blows in full sun; the code asks for {limit.limit:.1f} A at least."
            if small
            else f"{limit.value:g} A is more than the panel bears backwards, {limit.limit:g} A."
        )
        yield _found(finding, limit, why, f"{size} {LICENSED}")


@rule("cable-too-thin", "stop", "wire", "The cable carries too much", "NEC 310 and 690.8 (2023); EN 50618")
def cable_too_thin(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "ampacity", "terminal", "connector"):
        what = "a connector" if limit.key == "connector" else limit.words
        why = f"{limit.value:.1f} A; {what} bears {limit.limit:.1f} A."
        yield _found(
            finding, limit, why, f"A thicker cable, more in series, or a pair for each string. {LICENSED}"
        )


@rule("drop-too-large", "caution", "wire", "Much is lost in the cable", "Ohm's law; 3 %: common practice")
def drop_too_large(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "drop"):
        why = f"{limit.words}, {limit.value:.1f} % at full power."
        yield _found(finding, limit, why, "A thicker cable, a shorter way, or more in series.")


@rule("strings-unequal", "caution", "wire", "Strings of unequal voltage are joined", "single-diode curves")
def strings_unequal(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding, limit in _passed(controller_findings, "mismatch"):
        apart = f"Open voltages are {limit.value:.0f} % apart"
        why = f"{apart}: the lower one pulls the others down or runs backwards."
        yield _found(finding, limit, why, "Look at the curves; a controller for each kind often gives more.")


@rule("series-unequal", "note", "wire", "Panels of unequal current are in series", "single-diode curves")
def series_unequal(arrays: tuple[Array, ...]) -> Iterator[Found]:
    for plugged in (s for a in arrays for s in a.strings):
        amps = [d.imp_a for d in plugged.diodes]
        if max(amps) > UNEQUAL_AMPS * min(amps):
            why = f"They run at {min(amps):.1f} and {max(amps):.1f} A; the weaker holds the others back."
            remedy = "The curves tell by how much; join like with like where it is."
            yield Found(f"wiring.strings.{plugged.string.id}", plugged.name, why, remedy)


@rule("danger-to-touch", "caution", "wire", "Dangerous to touch", "IEC 61140: over 60 V direct current")
def danger_to_touch(controller_findings: tuple[ControllerFinding, ...]) -> Iterator[Found]:
    for finding in controller_findings:
        for limit in finding.limits:
            if limit.key == "cold voltage" and limit.value > TOUCH_V:
                why = f"Up to {limit.value:.0f} V, live in every light; its arc does not go out by itself."
                yield Found(
                    limit.place, finding.name, why, f"Covered panels, isolator, insulated tools. {LICENSED}"
                )


@rule(
    "lead-too-short", "note", "wire", "Leads do not reach; extensions are on the list", "the way on the roof"
)
def lead_too_short(harnesses: tuple[Harness, ...], units: UnitSystem, wiring: Wiring) -> Iterator[Found]:
    for harness in harnesses:
        short = [r for r in harness.runs if r.extension_mm > 0]
        between = [j for j in harness.jumpers if j.extension_mm > 0]
        if short or between:
            longest = max([*(r.extension_mm for r in short), *(j.extension_mm for j in between)])
            assumed = "" if wiring.lead else " Leads of the usual length are counted: measure them."
            why = f"{len(short) + len(between)} extensions, the longest {say_run(longest, units)}.{assumed}"
            yield Found("wiring.lead", _name(harness, wiring), why, "Make them up before the roof day.")


def _name(harness: Harness, wiring: Wiring) -> str:
    return next(c.name for c in wiring.controllers if c.id == harness.controller)


def _runs(harnesses: tuple[Harness, ...]) -> Iterator[Run]:
    """One of each pair: plus, or minus where it starts elsewhere."""
    seen = set()
    for run in (r for h in harnesses for r in h.runs):
        if (run.controller, run.way.points) not in seen:
            seen.add((run.controller, run.way.points))
            yield run


@rule("joint-out-of-reach", "note", "wire", "Joints nobody reaches once the panels lie", PRACTICE)
def joint_out_of_reach(arrays: tuple[Array, ...], harnesses: tuple[Harness, ...]) -> Iterator[Found]:
    low = {p.name for a in arrays for s in a.strings for p in s.panels if p.stand_off.mm < HAND_MM}
    hidden = [j for h in harnesses for j in h.jumpers if j.first in low and j.second in low]
    if hidden:
        first = hidden[0]
        more = f" and {len(hidden) - 1} more" if len(hidden) > 1 else ""
        why = "No hand fits under their frames: plugged, tugged and measured before they are covered."
        yield Found(
            "wiring.strings", f"{first.first} to {first.second}{more}", why, "It stands so in the steps."
        )


@rule("cable-over-lid", "stop", "wire", "A cable crosses a lid or an obstacle", "geometry")
def cable_over_lid(harnesses: tuple[Harness, ...]) -> Iterator[Found]:
    for run in _runs(harnesses):
        if run.way.crosses:
            why = "It would be cut, pinched or torn off."
            yield Found("wiring.points", f"from {run.starts}", why, "Drag its way round, or move the gland.")


@rule("cable-in-water", "caution", "wire", "A cable lies where water stands", PRACTICE)
def cable_in_water(harnesses: tuple[Harness, ...], units: UnitSystem) -> Iterator[Found]:
    for run in _runs(harnesses):
        if run.way.wet_mm > 0:
            why = f"{say_run(run.way.wet_mm, units)} of it; connectors in water fail."
            yield Found("wiring.points", f"from {run.starts}", why, "Drag its way round the water.")


@rule("cable-over-open-roof", "note", "wire", "A long way over open roof", PRACTICE)
def cable_over_open_roof(
    harnesses: tuple[Harness, ...], wiring: Wiring, units: UnitSystem
) -> Iterator[Found]:
    for run in _runs(harnesses):
        if run.way.open_mm > OPEN_MM:
            why = (
                f"{say_run(run.way.open_mm, units)} on {run.way.clips} clips, each {wiring.clip} and sealed."
            )
            yield Found(
                "wiring.points", f"from {run.starts}", why, "Loom it; or a gland nearer to the panels."
            )


@rule("leads-come-out-somewhere", "caution", "wire", "Where the leads come out is not told", "the panel")
def leads_come_out_somewhere(panels: tuple[PlacedPanel, ...], wiring: Wiring) -> Iterator[Found]:
    used = {p for s in wiring.strings for p in s.panels}
    for panel in panels:
        # of panels in pairs Layout has asked already
        if panel.id in used and panel.cable_end is None and panel.pair is None:
            why = "Its middle is counted; lengths may be wrong by half a panel."
            remedy = "Look at its back and say which edge."
            yield Found(f"panels.{panel.id}.cable_end", panel.name, why, remedy)


@rule("gland-too-small", "stop", "wire", "More cables than the gland takes", "the gland")
def gland_too_small(harnesses: tuple[Harness, ...], sealing: Seal, wiring: Wiring) -> Iterator[Found]:
    if sealing.gland is None:
        return
    going_in = sum(r.ends == "controller" for h in harnesses for r in h.runs)
    if going_in > sealing.gland.cables:
        why = f"{going_in} cables go in, it has {sealing.gland.cables} entries."
        yield Found("seal.gland.cables", "gland", why, "A larger gland, or join the strings on the roof.")
    thick = CABLES[wiring.cable].outer_mm
    if going_in and abs(thick - sealing.gland.cable.mm) > 1.5:
        why = f"{wiring.cable} is about {thick:g} mm thick, its rubber is for {sealing.gland.cable.mm:g} mm."
        yield Found("seal.gland.cable", "gland", why, "Measure the cable; rubber that fits it.")


@rule(
    "meter-says-no", "stop", "wire", "The meter says: do not plug in", "single-diode curves, judged readings"
)
def meter_says_no(meter: tuple[MeterVerdict, ...]) -> Iterator[Found]:
    for verdict in meter:
        if not verdict.meant or (verdict.meant[0].meaning == "right" and verdict.explained):
            continue
        first = verdict.meant[0]
        if not verdict.explained:
            v = verdict.volts
            why = f"Nothing explains it; {v.low:.1f} to {v.high:.1f} V was to be expected."
            remedy = "Measure again: range, probes, light; then panel by panel."
        else:
            why, remedy = f"Most likely {first.words} ({first.share:.0%}).", first.check
        yield Found(f"wiring.meter.{verdict.reading}", verdict.name, why, remedy)


@rule("meter-is-not-sure", "caution", "wire", "The meter cannot rule something out", "judged readings")
def meter_is_not_sure(meter: tuple[MeterVerdict, ...]) -> Iterator[Found]:
    for verdict in meter:
        if verdict.meant and verdict.meant[0].meaning == "right" and verdict.explained:
            others = [m for m in verdict.meant[1:] if m.share > 0.1]
            if others:
                why = f"It may also be: {others[0].words} ({others[0].share:.0%})."
                yield Found(f"wiring.meter.{verdict.reading}", verdict.name, why, others[0].check)
