"""Cardboard templates: every panel or array at true scale with its feet and their holes."""

from __future__ import annotations

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.results import Findings
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.files.drawing import Box, Circle, Drawing, Line, Stamp, Text

GAP_MM, TEXT_MM, CROSS_MM, CHECK_MM = 80.0, 20.0, 12.0, 100.0


def panel_templates(job: Job, findings: Findings, stamp: Stamp) -> Drawing:
    """One template beside the other; panels of one array stay together as they lie."""
    drawing = Drawing(Rect(0, 0, 1, 1), stroke_mm=0.6)
    drawing.add(
        Line("RULER", 0.0, -GAP_MM, CHECK_MM, -GAP_MM),
        Text("RULER", CHECK_MM + TEXT_MM, -GAP_MM + TEXT_MM / 3, TEXT_MM, "100 mm: measure it first"),
        Text("TITLE", 0.0, -GAP_MM - 2 * TEXT_MM, TEXT_MM, f"Templates: {job.name}, {stamp.words()}"),
    )
    groups: dict[str, list[PlacedPanel]] = {}
    for panel in job.panels:
        groups.setdefault(panel.array or f"panel {panel.id}", []).append(panel)
    right, low = 0.0, 0.0
    for group in groups.values():
        rects = [panel_rect(p) for p in group]
        front, port = min(r.x_mm for r in rects), min(r.y_mm for r in rects)
        for panel, rect in zip(group, rects, strict=True):
            _panel(drawing, panel, rect, findings, (right - front, -port))
        right += max(r.x_end_mm for r in rects) - front + GAP_MM
        low = max(low, max(r.y_end_mm for r in rects) - port)
    drawing.extent = Rect(-GAP_MM, -3 * GAP_MM, right + GAP_MM, low + 4 * GAP_MM)
    return drawing


def _panel(
    drawing: Drawing, panel: PlacedPanel, rect: Rect, findings: Findings, moved: tuple[float, float]
) -> None:
    """A panel with the marks of its feet; ``moved``: from the roof to the cardboard, mm."""
    x, y = moved
    drawing.add(Box("PANELS", Rect(rect.x_mm + x, rect.y_mm + y, rect.length_mm, rect.width_mm)))
    middle_x, middle_y = rect.centre
    drawing.add(Text("NUMBERS", middle_x + x, middle_y + y, 2 * TEXT_MM, f"{panel.name}, front <", "middle"))
    for mark in (m for m in findings.marks if m.panel in (panel.id, f"{panel.id}-ends")):
        at_x, at_y = mark.x_mm + x, mark.y_mm + y
        if mark.kind == "hole":
            drawing.add(Circle("HOLES", at_x, at_y, mark.final_mm or mark.pilot_mm or 3.0))
        elif mark.pad_length_mm and mark.pad_width_mm:
            long, wide = mark.pad_length_mm, mark.pad_width_mm
            drawing.add(Box("PADS", Rect(at_x - long / 2, at_y - wide / 2, long, wide)))
        drawing.add(
            Line("HOLES", at_x - CROSS_MM, at_y, at_x + CROSS_MM, at_y),
            Line("HOLES", at_x, at_y - CROSS_MM, at_x, at_y + CROSS_MM),
            Text("NUMBERS", at_x + CROSS_MM, at_y - CROSS_MM, TEXT_MM, str(mark.number)),
        )
