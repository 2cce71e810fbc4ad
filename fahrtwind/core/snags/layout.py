"""Snags of the layout: edges, lids, neighbours, data sheets."""

from collections.abc import Iterator

from shapely.geometry import Point

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.layout.clear_height import LEAST_AIR_MM
from fahrtwind.core.layout.distances import outside_mm
from fahrtwind.core.layout.footprint import panel_rect
from fahrtwind.core.layout.room import SIDES, least_from_edge
from fahrtwind.core.quantities import say_length
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule
from fahrtwind.core.survey.outline import is_plain, polygon_of

PRACTICE = "common practice, no source"
SHEET_TOLERANCE_MM = 2.0
CABLE_ROOM_MM = 20.0


def _panel(job: Job, panel_id: str) -> PlacedPanel:
    return next(p for p in job.panels if p.id == panel_id)


def _other_name(job: Job, other: str) -> str:
    names = {o.id: o.name for o in job.obstacles} | {p.id: p.name for p in job.panels}
    return names.get(other, other)


def _least(job: Job, side: str) -> float:
    return least_from_edge(job, side)  # type: ignore[arg-type]


@rule("over-edge", "stop", "layout", "Panel over the roof edge", PRACTICE)
def over_edge(job: Job, findings: Findings) -> Iterator[Found]:
    for d in findings.distances:
        allowed = max(-_least(job, d.to), 0.0) if d.kind == "edge" else 0.0
        if d.kind == "edge" and -d.mm > allowed + 0.5:
            more = f"; {say_length(allowed, job.units)} is allowed" if allowed else ", into the stream"
            yield Found(
                f"panels.{d.panel}", _panel(job, d.panel).name, f"It stands {say_length(-d.mm, job.units)} over the {d.to} edge{more}.",
                "Move it inward or turn it.", "overhang", -d.mm, allowed, "mm",
            )  # fmt: skip


@rule("hangs-over", "caution", "layout", "Panel hangs over the roof edge as allowed", PRACTICE)
def hangs_over(job: Job, findings: Findings) -> Iterator[Found]:
    for d in findings.distances:
        if d.kind == "edge" and -0.5 > d.mm >= _least(job, d.to) - 0.5:
            yield Found(
                f"panels.{d.panel}", _panel(job, d.panel).name, f"It hangs {say_length(-d.mm, job.units)} over the {d.to} edge.",
                "The stream gets under it, branches catch it: check the let-go speed and the width of the vehicle.", "overhang", -d.mm, 0.0, "mm",
            )  # fmt: skip


@rule("near-edge", "caution", "layout", "Panel close to the roof edge", PRACTICE)
def near_edge(job: Job, findings: Findings) -> Iterator[Found]:
    for d in findings.distances:
        least = _least(job, d.to) if d.kind == "edge" else 0.0
        if d.kind == "edge" and -0.5 <= d.mm < least - 0.5:
            yield Found(
                f"panels.{d.panel}", _panel(job, d.panel).name, f"Only {say_length(d.mm, job.units)} to the {d.to} edge; {say_length(least, job.units)} is wanted.",
                "Move it inward; feet need flat roof beside the frame.", "distance", d.mm, least, "mm",
            )  # fmt: skip


@rule("panels-overlap", "stop", "layout", "Panels overlap", "geometry")
def panels_overlap(job: Job, findings: Findings) -> Iterator[Found]:
    for o in findings.overlaps:
        if o.kind == "panel":
            yield Found(
                f"panels.{o.panel}", f"{_panel(job, o.panel).name} and {_other_name(job, o.other)}",
                f"They overlap by {say_length(o.depth_mm, job.units)}.", "Move one of them.", "overlap", o.depth_mm, 0.0, "mm",
            )  # fmt: skip


@rule("on-obstacle", "stop", "layout", "Panel on an obstacle", "geometry; service clearance as entered")
def on_obstacle(job: Job, findings: Findings) -> Iterator[Found]:
    for o in findings.overlaps:
        if o.kind == "obstacle":
            yield Found(
                f"panels.{o.panel}", f"{_panel(job, o.panel).name} and {_other_name(job, o.other)}",
                f"It reaches {say_length(o.depth_mm, job.units)} into the obstacle or its clearance.", "Move the panel.",
                "overlap", o.depth_mm, 0.0, "mm",
            )  # fmt: skip


@rule("lid-blocked", "stop", "layout", "Lid cannot open", "geometry; lid angle, or lean as entered")
def lid_blocked(job: Job, findings: Findings) -> Iterator[Found]:
    for o in findings.overlaps:
        if o.kind == "lid":
            yield Found(
                f"panels.{o.panel}", f"{_panel(job, o.panel).name} under {_other_name(job, o.other)}",
                f"The open lid would lean {say_length(o.depth_mm, job.units)} over the panel.", "Move the panel out of the lid's swing.",
                "overlap", o.depth_mm, 0.0, "mm",
            )  # fmt: skip


@rule("panels-too-close", "caution", "layout", "Panels too close together", PRACTICE)
def too_close(job: Job, findings: Findings) -> Iterator[Found]:
    least = job.assumptions.panel_gap.mm
    for d in findings.distances:
        if d.kind == "panel" and 0 <= d.mm < least - 0.5 and d.panel < d.to:
            yield Found(
                f"panels.{d.panel}", f"{_panel(job, d.panel).name} and {_other_name(job, d.to)}",
                f"Only {say_length(d.mm, job.units)} apart: no room for clamps, cables or a spanner.",
                f"Leave {say_length(least, job.units)} or more.", "gap", d.mm, least, "mm",
            )  # fmt: skip


@rule(
    "measured-differs",
    "caution",
    "layout",
    "Delivered panel differs from the data sheet",
    "common practice: measure before cutting metal",
)
def measured_differs(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        for word, measured, sheet in (
            ("long", panel.measured_length, panel.model.length), ("wide", panel.measured_width, panel.model.width),
        ):  # fmt: skip
            if measured is not None and abs(measured.mm - sheet.mm) > SHEET_TOLERANCE_MM:
                yield Found(
                    f"panels.{panel.id}", panel.name,
                    f"It is {say_length(measured.mm, job.units)} {word}, the sheet says {say_length(sheet.mm, job.units)}.",
                    "The plan uses the measured size; check the other panels of the lot.", "difference", measured.mm - sheet.mm, SHEET_TOLERANCE_MM, "mm",
                )  # fmt: skip


@rule("not-measured", "note", "layout", "Panel not measured yet", "common practice: measure before cutting metal")
def not_measured(job: Job, findings: Findings) -> Iterator[Found]:
    waiting = [p.name for p in job.panels if p.measured_length is None or p.measured_width is None]
    if waiting:
        yield Found(
            "panels", ", ".join(waiting), "Sizes are from the data sheet.", "Measure the delivered panels and type length and width in.",
        )  # fmt: skip


@rule("no-air-gap", "caution", "layout", "No room under the panel", PRACTICE)
def no_air_gap(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        if panel.stand_off.mm < CABLE_ROOM_MM:
            yield Found(
                f"panels.{panel.id}.stand_off", panel.name, f"Only {say_length(panel.stand_off.mm, job.units)} under the frame: cables chafe, the panel runs hot, a crowned roof touches.",
                f"Raise it to {say_length(CABLE_ROOM_MM, job.units)} or more.", "stand-off", panel.stand_off.mm, CABLE_ROOM_MM, "mm",
            )  # fmt: skip


def _overhang(job: Job) -> float:
    """The most that may hang over any edge, mm: a corner of a shaped roof belongs to no one side."""
    return max(0.0, *(-least_from_edge(job, side) for side in SIDES))


@rule("off-outline", "stop", "layout", "Panel reaches over the roof's edge", PRACTICE)
def off_outline(job: Job, findings: Findings) -> Iterator[Found]:
    if is_plain(job.survey.outline) or len(findings.survey.outline) < 3 or findings.survey.outline_trouble:
        return
    roof = polygon_of(findings.survey.outline)
    for panel in job.panels:
        out = outside_mm(panel_rect(panel), roof)
        if out > 0.5 + _overhang(job):
            yield Found(
                f"panels.{panel.id}", panel.name, f"A corner stands {say_length(out, job.units)} outside the roof's edge.",
                "Move it inward or turn it.", "outside", out, 0.0, "mm",
            )  # fmt: skip


@rule("on-falling-edge", "caution", "layout", "Panel over the falling edge of the roof", PRACTICE)
def on_falling_edge(job: Job, findings: Findings) -> Iterator[Found]:
    outline = job.survey.outline
    if len(findings.survey.flat) < 3 or not (outline.side_fall.mm or outline.front_fall.mm or outline.rear_fall.mm):
        return
    flat = polygon_of(findings.survey.flat)
    for f in findings.feet:
        away = float(flat.distance(Point(f.x_mm, f.y_mm)))
        if away > 0.5:
            yield Found(
                f"panels.{f.panel}.feet.{f.foot}", f"{_panel(job, f.panel).name}, foot {f.foot}",
                f"It stands {say_length(away, job.units)} beyond where the roof is flat.", "Move the foot or the panel inward, or shape the foot to the fall.",
                "beyond", away, 0.0, "mm",
            )  # fmt: skip


@rule("out-of-reach", "caution", "layout", "Foot out of reach from the ladder", PRACTICE)
def out_of_reach(job: Job, findings: Findings) -> Iterator[Found]:
    reach = findings.survey.reach
    if reach is None or job.survey.access.walkable == "yes":
        return
    areas = [polygon_of(area) for area in reach.areas]
    lost: dict[str, list[str]] = {}
    for f in findings.feet:
        if not any(area.distance(Point(f.x_mm, f.y_mm)) < 1.0 for area in areas):
            lost.setdefault(f.panel, []).append(f.foot)
    for panel, feet in lost.items():
        yield Found(
            f"panels.{panel}", _panel(job, panel).name, f"Feet {', '.join(feet)} are beyond arm's length ({say_length(job.survey.access.reach.mm, job.units)}) from any ladder.",
            "Move them outward, set the ladder at another side, or work from a plank on trestles.", "reach", None, job.survey.access.reach.mm, "mm",
        )  # fmt: skip


@rule(
    "touches-the-crown",
    "stop",
    "layout",
    "Panel touches the crowned roof",
    "geometry: plane through the feet over the fitted crown",
)
def touches_the_crown(job: Job, findings: Findings) -> Iterator[Found]:
    for height in findings.clear_heights:
        if height.least_mm < 0:
            yield Found(
                f"panels.{height.panel}.stand_off", _panel(job, height.panel).name,
                f"At {say_length(height.at_x_mm, job.units)} aft the roof may come {say_length(-height.least_mm, job.units)} into the panel, its sag and the crown's uncertainty counted.",
                "Raise the feet, set them further out where the roof is lower, or turn the panel lengthwise.", "clear height", height.least_mm, 0.0, "mm",
            )  # fmt: skip


@rule("little-air", "caution", "layout", "Little air between panel and roof", PRACTICE)
def little_air(job: Job, findings: Findings) -> Iterator[Found]:
    for height in findings.clear_heights:
        if 0 <= height.least_mm < LEAST_AIR_MM:
            yield Found(
                f"panels.{height.panel}.stand_off", _panel(job, height.panel).name,
                f"Only {say_length(height.least_mm, job.units)} at {say_length(height.at_x_mm, job.units)} aft: it chafes when it flexes.",
                f"Leave {say_length(LEAST_AIR_MM, job.units)} or more.", "clear height", height.least_mm, LEAST_AIR_MM, "mm",
            )  # fmt: skip
