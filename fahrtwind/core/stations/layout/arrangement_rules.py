"""Snags of the arrangement: what is to stay free, leads, steps, sheets that do not add up, the vehicle's
size, stock.
"""

from collections import Counter
from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Assumptions, Members, Obstacle, Vehicle
from fahrtwind.core.job.layout import Decision, FreeArea, Variant
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.cables import CablePair
from fahrtwind.core.stations.layout.distances import TOUCHING_M2, Distance
from fahrtwind.core.stations.layout.feet import FootPlace, move_onto_holes_mm, off_holes
from fahrtwind.core.stations.layout.footprint import Rect, panel_rect
from fahrtwind.core.stations.structure.members import MemberFit
from fahrtwind.core.stations.views import Sheet

PRACTICE = "common practice, no source"
SHEET_SHARE = 0.05
STEP_MM = 5.0
WORDS = {"walkway": "the walkway", "landing": "the ladder landing", "later": "the room kept for later"}


def _free_area(
    keep_free: tuple[FreeArea, ...],
    panels: tuple[PlacedPanel, ...],
    units: UnitSystem,
    kinds: tuple[str, ...],
    remedy: str,
) -> Iterator[Found]:
    for area in keep_free:
        own = Rect(area.x.mm, area.y.mm - area.width.mm / 2, area.length.mm, area.width.mm)
        for panel in panels if area.kind in kinds else ():
            common = panel_rect(panel).clipped(own)
            if common is not None and common.area_m2 > TOUCHING_M2:
                depth = min(common.length_mm, common.width_mm)
                yield Found(
                    place=f"panels.{panel.id}",
                    where=f"{panel.name} on {area.name}",
                    why=f"It takes {say_length(depth, units)} of {WORDS[area.kind]}.",
                    remedy=remedy,
                    quantity="overlap",
                    value=depth,
                    limit=0.0,
                    unit="mm",
                )


@rule("on-the-way", "caution", "layout", "Panel on a walkway or ladder landing", PRACTICE)
def on_the_way(
    keep_free: tuple[FreeArea, ...], panels: tuple[PlacedPanel, ...], units: UnitSystem
) -> Iterator[Found]:
    yield from _free_area(
        keep_free,
        panels,
        units,
        ("walkway", "landing"),
        "Move the panel: nobody steps on glass, and a ladder needs its place.",
    )


@rule("room-for-later", "note", "layout", "Panel on room kept for later", PRACTICE)
def room_for_later(
    keep_free: tuple[FreeArea, ...], panels: tuple[PlacedPanel, ...], units: UnitSystem
) -> Iterator[Found]:
    yield from _free_area(keep_free, panels, units, ("later",), "Move the panel, or give the room up.")


@rule("leads-apart", "caution", "layout", "Leads of a pair do not reach each other", PRACTICE)
def leads_apart(
    panels: tuple[PlacedPanel, ...],
    assumptions: Assumptions,
    cable_pairs: tuple[CablePair, ...],
    units: UnitSystem,
) -> Iterator[Found]:
    names, reach = ({p.id: p.name for p in panels}, assumptions.cable_reach.mm)
    for pair in cable_pairs:
        if pair.apart_mm > reach:
            yield Found(
                place=f"panels.{pair.first}",
                where=f"{names[pair.first]} and {names[pair.second]}",
                why=f"Their cable ends are {say_length(pair.apart_mm, units)} apart; the leads "
                f"bridge {say_length(reach, units)}.",
                remedy="Turn one of them round, or have an extension with the right connectors at hand.",
                quantity="distance",
                value=pair.apart_mm,
                limit=reach,
                unit="mm",
            )


@rule("pair-alone", "note", "layout", "Pair of one", "geometry")
def pair_alone(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    counts = Counter(p.pair for p in panels if p.pair)
    for panel in panels:
        if panel.pair and counts[panel.pair] == 1:
            yield Found(
                place=f"panels.{panel.id}",
                where=panel.name,
                why=f"It is the only panel of pair {panel.pair}.",
                remedy="Give its partner the same pair.",
            )


@rule("cable-end-blank", "note", "layout", "Cable end not told", PRACTICE)
def cable_end_blank(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel in panels:
        if panel.pair and panel.cable_end is None:
            yield Found(
                place=f"panels.{panel.id}",
                where=panel.name,
                why="Nobody said at which edge its leads come out.",
                remedy="Look under the panel and choose the edge.",
            )


@rule("across-a-step", "stop", "layout", "Panel across a step of the roof", "geometry")
def across_a_step(
    survey_notes: Survey, panels: tuple[PlacedPanel, ...], units: UnitSystem
) -> Iterator[Found]:
    for section in survey_notes.sections:
        if abs(section.step.mm) <= STEP_MM:
            continue
        own = Rect(section.x.mm, section.y.mm - section.width.mm / 2, section.length.mm, section.width.mm)
        for panel in panels:
            rect = panel_rect(panel)
            common = rect.clipped(own)
            if panel.carrier and panel.stand_off.mm >= abs(section.step.mm):
                continue  # it is carried over both levels
            if common is not None and TOUCHING_M2 < common.area_m2 < rect.area_m2 - TOUCHING_M2:
                yield Found(
                    place=f"panels.{panel.id}",
                    where=f"{panel.name} and {section.name}",
                    why=f"It lies across a step of {say_length(abs(section.step.mm), units)}.",
                    remedy="Move it wholly onto one level, or carry it on a rack.",
                    quantity="step",
                    value=section.step.mm,
                    limit=0.0,
                    unit="mm",
                )


@rule(
    "too-high", "stop", "layout", "Vehicle too high", "sum of height, stand-off and frame; limit as entered"
)
def too_high(
    vehicle: Vehicle, panels: tuple[PlacedPanel, ...], obstacles: tuple[Obstacle, ...], units: UnitSystem
) -> Iterator[Found]:
    height, limit = (vehicle.height, vehicle.height_limit)
    if height is None or limit is None:
        return
    tops = [(p.stand_off.mm + p.model.frame_height.mm, f"panels.{p.id}", p.name) for p in panels]
    tops += [(o.height.mm, f"obstacles.{o.id}", o.name) for o in obstacles if o.stays]
    for top, place, name in tops:
        over = height.mm + top - limit.mm
        if over > 0:
            yield Found(
                place=place,
                where=name,
                why=f"Its top stands at {say_length(height.mm + top, units)}, "
                f"{say_length(over, units)} over the limit; crown and springs not counted.",
                remedy="Lower it, or change the limit of what you drive under. Write the new height "
                "on the dashboard.",
                quantity="height",
                value=height.mm + top,
                limit=limit.mm,
                unit="mm",
            )


@rule("too-wide", "stop", "layout", "Vehicle too wide", "roof width and overhang; limit as entered")
def too_wide(
    vehicle: Vehicle, panels: tuple[PlacedPanel, ...], distances: tuple[Distance, ...], units: UnitSystem
) -> Iterator[Found]:
    width, limit = (vehicle.roof_width, vehicle.width_limit)
    if width is None or limit is None or (not panels):
        return
    over = {
        side: max(0.0, *(-d.mm for d in distances if d.kind == "edge" and d.to == side), 0.0)
        for side in ("port", "starboard")
    }
    whole = width.mm + over["port"] + over["starboard"]
    if whole > limit.mm and max(over.values()) > 0:
        yield Found(
            place="panels",
            where="overhang at the sides",
            why=f"With its overhang it is {say_length(whole, units)} wide; "
            f"{say_length(limit.mm, units)} is allowed.",
            remedy="Move the panels inward.",
            quantity="width",
            value=whole,
            limit=limit.mm,
            unit="mm",
        )


@rule(
    "sheet-adds-up",
    "caution",
    "layout",
    "Data sheet does not add up",
    "P = V_mp · I_mp; V_oc over V_mp, I_sc over I_mp",
)
def sheet_adds_up(sheets: tuple[Sheet, ...]) -> Iterator[Found]:
    for panel, model in {sheet.model: sheet for sheet in sheets}.values():
        told = []
        if model.vmp and model.imp:
            product = model.vmp.v * model.imp.a
            if abs(product / model.power.w - 1) > SHEET_SHARE:
                told.append(
                    f"{model.vmp.v:g} V × {model.imp.a:g} A is {product:.0f} W, not {model.power.w:.0f} W"
                )
        if model.voc and model.vmp and (model.voc.v <= model.vmp.v):
            told.append("its open voltage is not above its working voltage")
        if model.isc and model.imp and (model.isc.a <= model.imp.a):
            told.append("its short-circuit current is not above its working current")
        if told:
            yield Found(
                place=f"panels.{panel}",
                where=model.name,
                why=f"{'; '.join(told)[:1].upper()}{'; '.join(told)[1:]}.",
                remedy="Read the sheet again, column by column.",
            )


@rule("not-in-stock", "note", "layout", "More panels than in stock", "stock as entered")
def not_in_stock(sheets: tuple[Sheet, ...]) -> Iterator[Found]:
    counts = Counter(sheet.model.name for sheet in sheets)
    for name, model in {sheet.model.name: sheet.model for sheet in sheets}.items():
        if model.stock is not None and counts[name] > model.stock:
            yield Found(
                place="panels",
                where=name,
                why=f"{counts[name]} are planned, {model.stock} are there.",
                remedy="Order in time, or plan with another model.",
            )


@rule("stow-to-drive", "caution", "layout", "Raised panel must be stowed to drive", PRACTICE)
def stow_to_drive(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel in panels:
        if panel.tilt.deg > 0:
            yield Found(
                place=f"panels.{panel.id}",
                where=panel.name,
                why=f"Raised by {panel.tilt.deg:g}° it is a sail: speeds here hold only with it "
                f"lying flat and pinned.",
                remedy="Fit a pin that is seen from the driver's door, and lower it in wind.",
                quantity="tilt",
                value=panel.tilt.deg,
                limit=0.0,
                unit="°",
            )


@rule("other-than-chosen", "note", "layout", "Layout differs from the one chosen", "decision kept in the job")
def other_than_chosen(
    decisions: tuple[Decision, ...], variants: tuple[Variant, ...], panels: tuple[PlacedPanel, ...]
) -> Iterator[Found]:
    decision = next((d for d in reversed(decisions) if d.about == "layout"), None)
    variant = next((v for v in variants if decision is not None and v.id == decision.chosen), None)
    if decision is not None and variant is not None and (variant.panels != panels):
        yield Found(
            place="variants",
            where=decision.name,
            why="The roof was changed after this layout was chosen.",
            remedy="Keep it as a variant and choose again, with the reason.",
        )


@rule("flexible-bolted", "stop", "layout", "Flexible panel without a frame to hold", PRACTICE)
def flexible_bolted(panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    for panel in panels:
        if panel.model.build == "flexible" and panel.hold.school != "tape":
            yield Found(
                place=f"panels.{panel.id}.hold",
                where=panel.name,
                why="A flexible panel has no frame: brackets and clamps find nothing to hold.",
                remedy="Bond it over its whole face as its maker says, or carry it on a stiff sheet.",
            )


@rule("off-frame-holes", "note", "layout", "Feet away from the frame's holes", PRACTICE)
def off_frame_holes(
    panels: tuple[PlacedPanel, ...],
    feet: tuple[FootPlace, ...],
    ribs: Members,
    members: MemberFit,
    units: UnitSystem,
) -> Iterator[Found]:
    """Only along the long sides, where the sheet tells its holes; a bracket that covers a hole uses it."""
    for panel in panels:
        lost = off_holes(panel, feet)
        if lost:
            way = move_onto_holes_mm(ribs, panel, members.members)
            moved = (
                f"Move the panel {say_length(abs(way), units)} {('aft' if way > 0 else 'forward')}, or use"
                if way
                else "Use"
            )
            yield Found(
                place=f"panels.{panel.id}",
                where=panel.name,
                why=f"Feet {', '.join(lost)} cover none of its mounting holes.",
                remedy=f"{moved} clamps there: drilling a frame usually voids its warranty.",
            )
