"""Snags of the arrangement: what is to stay free, leads, steps, sheets that do not add up, the vehicle's size, stock."""

from collections import Counter
from collections.abc import Iterator

from fahrtwind.core.job.document import Job
from fahrtwind.core.layout.distances import TOUCHING_M2
from fahrtwind.core.layout.feet import move_onto_holes_mm, off_holes
from fahrtwind.core.layout.footprint import Rect, panel_rect
from fahrtwind.core.quantities import say_length
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule

PRACTICE = "common practice, no source"
SHEET_SHARE = 0.05
STEP_MM = 5.0
WORDS = {"walkway": "the walkway", "landing": "the ladder landing", "later": "the room kept for later"}


def _free_area(job: Job, kinds: tuple[str, ...], remedy: str) -> Iterator[Found]:
    for area in job.keep_free:
        own = Rect(area.x.mm, area.y.mm - area.width.mm / 2, area.length.mm, area.width.mm)
        for panel in job.panels if area.kind in kinds else ():
            common = panel_rect(panel).clipped(own)
            if common is not None and common.area_m2 > TOUCHING_M2:
                depth = min(common.length_mm, common.width_mm)
                yield Found(
                    f"panels.{panel.id}", f"{panel.name} on {area.name}", f"It takes {say_length(depth, job.units)} of {WORDS[area.kind]}.",
                    remedy, "overlap", depth, 0.0, "mm",
                )  # fmt: skip


@rule("on-the-way", "caution", "layout", "Panel on a walkway or ladder landing", PRACTICE)
def on_the_way(job: Job, findings: Findings) -> Iterator[Found]:
    yield from _free_area(job, ("walkway", "landing"), "Move the panel: nobody steps on glass, and a ladder needs its place.")


@rule("room-for-later", "note", "layout", "Panel on room kept for later", PRACTICE)
def room_for_later(job: Job, findings: Findings) -> Iterator[Found]:
    yield from _free_area(job, ("later",), "Move the panel, or give the room up.")


@rule("leads-apart", "caution", "layout", "Leads of a pair do not reach each other", PRACTICE)
def leads_apart(job: Job, findings: Findings) -> Iterator[Found]:
    names, reach = {p.id: p.name for p in job.panels}, job.assumptions.cable_reach.mm
    for pair in findings.cable_pairs:
        if pair.apart_mm > reach:
            yield Found(
                f"panels.{pair.first}", f"{names[pair.first]} and {names[pair.second]}",
                f"Their cable ends are {say_length(pair.apart_mm, job.units)} apart; the leads bridge {say_length(reach, job.units)}.",
                "Turn one of them round, or have an extension with the right connectors at hand.", "distance", pair.apart_mm, reach, "mm",
            )  # fmt: skip


@rule("pair-alone", "note", "layout", "Pair of one", "geometry")
def pair_alone(job: Job, findings: Findings) -> Iterator[Found]:
    counts = Counter(p.pair for p in job.panels if p.pair)
    for panel in job.panels:
        if panel.pair and counts[panel.pair] == 1:
            yield Found(
                f"panels.{panel.id}", panel.name, f"It is the only panel of pair {panel.pair}.", "Give its partner the same pair."
            )


@rule("cable-end-blank", "note", "layout", "Cable end not told", PRACTICE)
def cable_end_blank(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        if panel.pair and panel.cable_end is None:
            yield Found(
                f"panels.{panel.id}",
                panel.name,
                "Nobody said at which edge its leads come out.",
                "Look under the panel and choose the edge.",
            )


@rule("across-a-step", "stop", "layout", "Panel across a step of the roof", "geometry")
def across_a_step(job: Job, findings: Findings) -> Iterator[Found]:
    for section in job.survey.sections:
        if abs(section.step.mm) <= STEP_MM:
            continue
        own = Rect(section.x.mm, section.y.mm - section.width.mm / 2, section.length.mm, section.width.mm)
        for panel in job.panels:
            rect = panel_rect(panel)
            common = rect.clipped(own)
            if common is not None and TOUCHING_M2 < common.area_m2 < rect.area_m2 - TOUCHING_M2:
                yield Found(
                    f"panels.{panel.id}", f"{panel.name} and {section.name}", f"It lies across a step of {say_length(abs(section.step.mm), job.units)}.",
                    "Move it wholly onto one level, or carry it on a rack.", "step", section.step.mm, 0.0, "mm",
                )  # fmt: skip


@rule("too-high", "stop", "layout", "Vehicle too high", "sum of height, stand-off and frame; limit as entered")
def too_high(job: Job, findings: Findings) -> Iterator[Found]:
    height, limit = job.vehicle.height, job.vehicle.height_limit
    if height is None or limit is None:
        return
    tops = [(p.stand_off.mm + p.model.frame_height.mm, f"panels.{p.id}", p.name) for p in job.panels]
    tops += [(o.height.mm, f"obstacles.{o.id}", o.name) for o in job.obstacles if o.stays]
    for top, place, name in tops:
        over = height.mm + top - limit.mm
        if over > 0:
            yield Found(
                place, name, f"Its top stands at {say_length(height.mm + top, job.units)}, {say_length(over, job.units)} over the limit; crown and springs not counted.",
                "Lower it, or change the limit of what you drive under. Write the new height on the dashboard.", "height", height.mm + top, limit.mm, "mm",
            )  # fmt: skip


@rule("too-wide", "stop", "layout", "Vehicle too wide", "roof width and overhang; limit as entered")
def too_wide(job: Job, findings: Findings) -> Iterator[Found]:
    width, limit = job.vehicle.roof_width, job.vehicle.width_limit
    if width is None or limit is None or not job.panels:
        return
    over = {
        side: max(0.0, *(-d.mm for d in findings.distances if d.kind == "edge" and d.to == side), 0.0)
        for side in ("port", "starboard")
    }
    whole = width.mm + over["port"] + over["starboard"]
    if whole > limit.mm and max(over.values()) > 0:
        yield Found(
            "panels", "overhang at the sides", f"With its overhang it is {say_length(whole, job.units)} wide; {say_length(limit.mm, job.units)} is allowed.",
            "Move the panels inward.", "width", whole, limit.mm, "mm",
        )  # fmt: skip


@rule("sheet-adds-up", "caution", "layout", "Data sheet does not add up", "P = V_mp · I_mp; V_oc over V_mp, I_sc over I_mp")
def sheet_adds_up(job: Job, findings: Findings) -> Iterator[Found]:
    for model, panel in {p.model: p for p in job.panels}.items():
        told = []
        if model.vmp and model.imp:
            product = model.vmp.v * model.imp.a
            if abs(product / model.power.w - 1) > SHEET_SHARE:
                told.append(f"{model.vmp.v:g} V × {model.imp.a:g} A is {product:.0f} W, not {model.power.w:.0f} W")
        if model.voc and model.vmp and model.voc.v <= model.vmp.v:
            told.append("its open voltage is not above its working voltage")
        if model.isc and model.imp and model.isc.a <= model.imp.a:
            told.append("its short-circuit current is not above its working current")
        if told:
            yield Found(
                f"panels.{panel.id}",
                model.name,
                f"{'; '.join(told)[:1].upper()}{'; '.join(told)[1:]}.",
                "Read the sheet again, column by column.",
            )


@rule("not-in-stock", "note", "layout", "More panels than in stock", "stock as entered")
def not_in_stock(job: Job, findings: Findings) -> Iterator[Found]:
    counts = Counter(p.model.name for p in job.panels)
    for name, model in {p.model.name: p.model for p in job.panels}.items():
        if model.stock is not None and counts[name] > model.stock:
            yield Found(
                "panels",
                name,
                f"{counts[name]} are planned, {model.stock} are there.",
                "Order in time, or plan with another model.",
            )


@rule("stow-to-drive", "caution", "layout", "Raised panel must be stowed to drive", PRACTICE)
def stow_to_drive(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        if panel.tilt.deg > 0:
            yield Found(
                f"panels.{panel.id}", panel.name, f"Raised by {panel.tilt.deg:g}° it is a sail: speeds here hold only with it lying flat and pinned.",
                "Fit a pin that is seen from the driver's door, and lower it in wind.", "tilt", panel.tilt.deg, 0.0, "°",
            )  # fmt: skip


@rule("other-than-chosen", "note", "layout", "Layout differs from the one chosen", "decision kept in the job")
def other_than_chosen(job: Job, findings: Findings) -> Iterator[Found]:
    decision = job.decisions[-1] if job.decisions else None
    variant = next((v for v in job.variants if decision is not None and v.id == decision.chosen), None)
    if decision is not None and variant is not None and variant.panels != job.panels:
        yield Found(
            "variants",
            decision.name,
            "The roof was changed after this layout was chosen.",
            "Keep it as a variant and choose again, with the reason.",
        )


@rule("flexible-bolted", "stop", "layout", "Flexible panel without a frame to hold", PRACTICE)
def flexible_bolted(job: Job, findings: Findings) -> Iterator[Found]:
    for panel in job.panels:
        if panel.model.build == "flexible" and panel.hold.school != "tape":
            yield Found(
                f"panels.{panel.id}.hold", panel.name, "A flexible panel has no frame: brackets and clamps find nothing to hold.",
                "Bond it over its whole face as its maker says, or carry it on a stiff sheet.",
            )  # fmt: skip


@rule("off-frame-holes", "note", "layout", "Feet away from the frame's holes", PRACTICE)
def off_frame_holes(job: Job, findings: Findings) -> Iterator[Found]:
    """Only along the long sides, where the sheet tells its holes; a bracket that covers a hole uses it."""
    for panel in job.panels:
        lost = off_holes(panel, findings.feet)
        if lost:
            way = move_onto_holes_mm(job, panel, findings.members.members)
            moved = (
                f"Move the panel {say_length(abs(way), job.units)} {'aft' if way > 0 else 'forward'}, or use" if way else "Use"
            )
            yield Found(
                f"panels.{panel.id}", panel.name, f"Feet {', '.join(lost)} cover none of its mounting holes.",
                f"{moved} clamps there: drilling a frame usually voids its warranty.",
            )  # fmt: skip
