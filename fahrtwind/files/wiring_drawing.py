"""The wiring diagram: strings with polarity, gauges, lengths, fuses, gland, controllers, batteries.

Not to scale. Plus is drawn thick and runs above, minus thin and below. Panels of a string stand in their
order from plus to minus.
"""

from __future__ import annotations

from fahrtwind.core.evaluate import visit
from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_run
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.wire.runs import Harness, Run
from fahrtwind.core.stations.wire.strings import Array, Plugged
from fahrtwind.files.drawing import CAUTION, Box, Circle, Drawing, Layer, Line, Stamp, Text

PANEL_MM, PANEL_HIGH_MM, GAP_MM, ROW_MM = 50.0, 26.0, 10.0, 50.0
FUSE_MM, BUS_MM, GLAND_MM, BOX_MM, BOX_HIGH_MM = 20.0, 26.0, 30.0, 52.0, 34.0
PLUS: Layer = "ROOF"
MINUS: Layer = "HOLES"
"""Thick and thin ink."""
TEXT_MM, SMALL_MM, EDGE_MM = 5.6, 4.6, 14.0
APART_MM, AT_BRANCH_MM = 16.0, 50.0


@dataclass(frozen=True, slots=True)
class _Sheet:
    """Where columns stand, and what the words need."""

    drawing: Drawing
    fuse_x: float
    bus_x: float
    gland_x: float
    isolator_x: float
    controller_x: float
    units: UnitSystem
    cable: str


def wiring_drawing(job: Job, stamp: Stamp | None = None) -> Drawing:
    """The diagram of a job as it is plugged."""
    seen = visit(job)
    arrays: tuple[Array, ...] = tuple(a for a in seen.get("arrays", ()) if a.strings)
    harnesses: dict[str, Harness] = {h.controller: h for h in seen.get("harnesses", ())}
    most = max((len(s.panels) for a in arrays for s in a.strings), default=1)
    fuse_x = EDGE_MM + most * (PANEL_MM + GAP_MM) + GAP_MM
    bus_x = fuse_x + FUSE_MM + BUS_MM
    gland_x = bus_x + GLAND_MM
    isolator_x = gland_x + GLAND_MM + 18.0
    controller_x = isolator_x + 30.0
    wide = controller_x + 2 * BOX_MM + 50.0
    drawing = Drawing(Rect(0, 0, wide, 100.0), stroke_mm=0.55)
    sheet = _Sheet(drawing, fuse_x, bus_x, gland_x, isolator_x, controller_x, job.units, job.wiring.cable)
    title = f"Wiring of {job.name}" + (f", {stamp.words()}" if stamp else "")
    drawing.add(Text("TITLE", EDGE_MM, EDGE_MM, TEXT_MM * 1.5, title))
    y = EDGE_MM + 20.0
    for array in arrays:
        y = _array(sheet, array, harnesses.get(array.controller.id), y)
    drawing.add(
        Line("LIDS", gland_x, EDGE_MM + 8.0, gland_x, y),
        Text("NUMBERS", gland_x - 3, y + 5.0, SMALL_MM, "roof", "end"),
        Text("NUMBERS", gland_x + 3, y + 5.0, SMALL_MM, "inside"),
        Text("TITLE", EDGE_MM, y + 14.0, SMALL_MM, f"Thick: plus; thin: minus. Not to scale. {CAUTION}"),
    )
    drawing.extent = Rect(0, 0, wide, y + 22.0)
    return drawing


def _array(sheet: _Sheet, array: Array, harness: Harness | None, y: float) -> float:
    """A controller with its strings, from ``y`` down; where the next may begin."""
    runs = {r.label: r for r in harness.runs} if harness else {}
    rows = [y + i * ROW_MM for i in range(len(array.strings))]
    inside = array.controller.joined == "inside" and len(array.strings) > 1
    bus_x = sheet.gland_x + 16.0 if inside else sheet.bus_x
    for plugged, top in zip(array.strings, rows, strict=True):
        _string(sheet, array, plugged, (top, bus_x), runs)
    ends = (rows[0] + 2.0, rows[0] + PANEL_HIGH_MM / 2 + 8.0)
    if len(rows) > 1:
        low = PANEL_HIGH_MM / 2 + 8.0
        for layer, x, off in ((PLUS, bus_x, 2.0), (MINUS, bus_x + 6.0, low)):
            sheet.drawing.add(Line(layer, x, rows[0] + off, x, rows[-1] + off))
        words = "combiner" if inside else "branch pieces"
        sheet.drawing.add(Text("NUMBERS", bus_x + 3, rows[-1] + ROW_MM - 12.0, SMALL_MM, words, "middle"))
    _to_battery(sheet, array, ends, bus_x, runs)
    return rows[-1] + ROW_MM + APART_MM


def _string(
    sheet: _Sheet, array: Array, plugged: Plugged, at: tuple[float, float], runs: dict[str, Run]
) -> None:
    (top, bus_x), d = at, sheet.drawing
    over, middle = top + 2.0, top + PANEL_HIGH_MM / 2 + 8.0
    x = EDGE_MM
    for i, panel in enumerate(plugged.panels):
        box = Rect(x, middle - PANEL_HIGH_MM / 2, PANEL_MM, PANEL_HIGH_MM)
        d.add(
            Box("PANELS", box),
            Text("NUMBERS", x + PANEL_MM / 2, middle - 1.0, TEXT_MM, panel.name[:16], "middle"),
            Text("NUMBERS", x + PANEL_MM / 2, middle + 6.0, SMALL_MM, panel.model.name[:20], "middle"),
            Text("NUMBERS", x + 2.0, middle - 6.5, TEXT_MM, "+"),
            Text("NUMBERS", x + PANEL_MM - 2.0, middle - 6.5, TEXT_MM, "−", "end"),
        )
        if i + 1 < len(plugged.panels):
            d.add(Line(MINUS, x + PANEL_MM, middle, x + PANEL_MM + GAP_MM, middle))
        x += PANEL_MM + GAP_MM
    d.add(
        Line(PLUS, EDGE_MM, middle, EDGE_MM - 5.0, middle),
        Line(PLUS, EDGE_MM - 5.0, middle, EDGE_MM - 5.0, over),
        Line(PLUS, EDGE_MM - 5.0, over, sheet.fuse_x, over),
        Line(MINUS, x - GAP_MM, middle, bus_x + 6.0, middle),
    )
    fuse = array.controller.fuse
    if fuse is not None:
        d.add(
            Box("OBSTACLES", Rect(sheet.fuse_x, over - 3.0, 14.0, 6.0)),
            Text("NUMBERS", sheet.fuse_x + 7.0, over - 5.0, SMALL_MM, f"{fuse.a:g} A", "middle"),
        )
        d.add(Line(PLUS, sheet.fuse_x + 14.0, over, bus_x, over))
    else:
        d.add(Line(PLUS, sheet.fuse_x, over, bus_x, over))
    for label, line_y in ((f"S{plugged.number}+", over), (f"S{plugged.number}−", middle)):
        run = runs.get(label.replace("−", "-"))
        long = "" if run is None or run.length_mm < AT_BRANCH_MM else say_run(run.length_mm, sheet.units)
        words = f"{label}  {long}".rstrip()
        d.add(Text("NUMBERS", sheet.fuse_x + 17.0, line_y + 5.0, SMALL_MM, words))


def _to_battery(
    sheet: _Sheet, array: Array, ends: tuple[float, float], bus_x: float, runs: dict[str, Run]
) -> None:
    (over, middle), d, c = ends, sheet.drawing, array.controller
    for y, layer, start in ((over, PLUS, bus_x), (middle, MINUS, bus_x + 6.0)):
        d.add(Line(layer, start, y, sheet.isolator_x, y))
        d.add(Line(layer, sheet.isolator_x + 14.0, y, sheet.controller_x, y))
        d.add(
            Circle("OBSTACLES", sheet.isolator_x, y, 2.0),
            Circle("OBSTACLES", sheet.isolator_x + 14.0, y, 2.0),
        )
        d.add(Line("OBSTACLES", sheet.isolator_x, y, sheet.isolator_x + 12.0, y - 5.0))
        d.add(Circle("HOLES", sheet.gland_x, y, 5.0))
    trunk = runs.get(f"C{array.number}+")
    if trunk is not None:
        words = f"C{array.number}+ C{array.number}−  {say_run(trunk.length_mm, sheet.units)}"
        d.add(Text("NUMBERS", sheet.gland_x + 5.0, over + 6.0, SMALL_MM, words))
    top = over - 8.0
    battery_x = sheet.controller_x + BOX_MM + 26.0
    d.add(
        Text("NUMBERS", sheet.isolator_x + 7.0, middle + 8.0, SMALL_MM, "isolator", "middle"),
        Text("NUMBERS", sheet.gland_x + 5.0, middle + 8.0, SMALL_MM, sheet.cable),
        Box("PANELS", Rect(sheet.controller_x, top, BOX_MM, BOX_HIGH_MM)),
        Text("NUMBERS", sheet.controller_x + BOX_MM / 2, top + 14.0, TEXT_MM, c.name[:22], "middle"),
        Text("NUMBERS", sheet.controller_x + BOX_MM / 2, top + 22.0, TEXT_MM, array.words, "middle"),
        Box("PANELS", Rect(battery_x, top, BOX_MM * 0.6, BOX_HIGH_MM)),
        Text("NUMBERS", battery_x + BOX_MM * 0.3, top + 18.0, TEXT_MM, f"{c.battery} V", "middle"),
        Line(PLUS, sheet.controller_x + BOX_MM, over, battery_x, over),
        Line(MINUS, sheet.controller_x + BOX_MM, middle, battery_x, middle),
        Text("NUMBERS", sheet.controller_x + BOX_MM + 13.0, over - 2.0, SMALL_MM, "fused", "middle"),
    )
    if c.battery_first:
        x = sheet.controller_x + BOX_MM / 2
        d.add(Text("NUMBERS", x, top + BOX_HIGH_MM + 6.0, SMALL_MM, "battery first, then panels", "middle"))
