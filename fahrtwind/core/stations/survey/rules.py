"""Snags of the survey: what the roof itself does not allow."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length, say_mass
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.footprint import Rect
from fahrtwind.core.stations.survey.access import distances_to_line
from fahrtwind.core.stations.survey.findings import SurveyFindings
from fahrtwind.core.stations.survey.squareness import SQUARE_WITHIN_MM

PRACTICE = "common practice, no source"
RESIDUAL_LIMIT = 4.0
MISFIT_MM = 6.0


@rule("roof-load-limit", "stop", "survey", "Roof load limit exceeded", "Vehicle papers; ISO 3833 terms")
def roof_load_limit(vehicle: Vehicle, roof_mass_kg: float, units: UnitSystem) -> Iterator[Found]:
    limit = vehicle.roof_load_limit
    if limit is not None and roof_mass_kg > limit.kg:
        yield Found(
            place="vehicle.roof_load_limit",
            where="the roof",
            why=f"The plan weighs {say_mass(roof_mass_kg, units)}, the roof bears "
            f"{say_mass(limit.kg, units)} while driving.",
            remedy="Take a panel off or choose lighter ones.",
            quantity="added mass",
            value=roof_mass_kg,
            limit=limit.kg,
            unit="kg",
        )


@rule("roof-load-unknown", "caution", "survey", "Roof load limit not known", "Vehicle papers")
def roof_load_unknown(
    vehicle: Vehicle, panels: tuple[PlacedPanel, ...], roof_mass_kg: float, units: UnitSystem
) -> Iterator[Found]:
    if vehicle.roof_load_limit is None and panels:
        yield Found(
            place="vehicle.roof_load_limit",
            where="the roof",
            why=f"The plan adds {say_mass(roof_mass_kg, units)} and nothing says what the roof bears.",
            remedy="Look the driving roof load up in the vehicle's papers and type it in.",
        )


@rule("ceiling-unknown", "caution", "survey", "What is under the skin is not known", PRACTICE)
def inside_unknown(drilled: bool, vehicle: Vehicle) -> Iterator[Found]:
    if drilled and vehicle.inside in ("unknown", "finished", "partial"):
        yield Found(
            place="vehicle.inside",
            where="inside, below the holes",
            why="Wires, gas and water lines run between skin and ceiling; a bit finds them.",
            remedy="Open the ceiling or trace the lines before drilling, use the depth stops of the "
            "drill map.",
        )


@rule("outline-broken", "stop", "survey", "The outline cannot be a roof", "geometry")
def outline_broken(surveyed: SurveyFindings) -> Iterator[Found]:
    if surveyed.outline_trouble:
        yield Found(
            place="survey.outline",
            where="the outline",
            why=surveyed.outline_trouble,
            remedy="Correct the points or the corner offsets, or clear them.",
        )


@rule("crown-not-measured", "note", "survey", "Crown not measured", PRACTICE)
def crown_not_measured(
    roof: Rect | None, surveyed: SurveyFindings, panels: tuple[PlacedPanel, ...]
) -> Iterator[Found]:
    if roof is not None and surveyed.crown is None and panels:
        yield Found(
            place="survey.crown",
            where="the roof",
            why="It is drawn flat; roofs seldom are.",
            remedy="Lay a straight-edge across at one or two places and type the gaps, or walk the "
            "gauge across.",
        )


@rule(
    "crown-contradicts",
    "caution",
    "survey",
    "Crown readings contradict one another",
    "residual over 4 standard deviations of the Bayesian fit",
)
def crown_contradicts(surveyed: SurveyFindings) -> Iterator[Found]:
    crown = surveyed.crown
    if crown is not None and crown.worst_residual > RESIDUAL_LIMIT:
        yield Found(
            place="survey.crown",
            where="crown readings",
            why="One of them stands far off the smooth roof through the others.",
            remedy="Measure the odd one again; look for a dent, a seam or a sign typed the wrong way round.",
            quantity="residual",
            value=crown.worst_residual,
            limit=RESIDUAL_LIMIT,
            unit="s",
        )


@rule(
    "point-off",
    "caution",
    "survey",
    "Factory point off its pattern",
    "rigid robust fit of the measured row to its nominal pattern",
)
def point_off(surveyed: SurveyFindings, units: UnitSystem) -> Iterator[Found]:
    for row in surveyed.rows:
        for point in row.points:
            if point.stray and point.usable and (point.off_mm is not None):
                yield Found(
                    place=f"survey.point_rows.{row.row}",
                    where=f"{row.name}, count {point.count}",
                    why=f"It is {say_length(point.off_mm or 0.0, units)} off the row of the others.",
                    remedy="Slot the foot there or leave this point out; do not force a bolt.",
                    quantity="off",
                    value=point.off_mm,
                    limit=None,
                    unit="mm",
                )


@rule("point-unusable", "note", "survey", "Factory point not usable", "as entered")
def point_unusable(surveyed: SurveyFindings) -> Iterator[Found]:
    for row in surveyed.rows:
        lost = [p for p in row.points if not p.usable]
        if lost:
            why = "; ".join(f"count {p.count}: {p.why or 'no reason given'}" for p in lost)
            yield Found(
                place=f"survey.point_rows.{row.row}",
                where=row.name,
                why=f"{len(lost)} of {len(row.points)} points cannot be used ({why}).",
                remedy="Plan with the others.",
            )


@rule(
    "hole-in-keep-out",
    "stop",
    "roof-day",
    "Hole over a line under the skin",
    "geometry; clearance as entered",
)
def hole_in_keep_out(marks: tuple[Mark, ...], survey_notes: Survey, units: UnitSystem) -> Iterator[Found]:
    holes = [m for m in marks if m.kind == "hole"]
    for line in survey_notes.keep_outs if holes else ():
        away = distances_to_line(line, [m.x_mm for m in holes], [m.y_mm for m in holes])
        near, worst = min(zip(away, holes, strict=True), key=lambda pair: pair[0])
        if near < line.clear.mm:
            yield Found(
                place=f"panels.{worst.panel}.feet.{worst.foot}",
                where=f"hole {worst.number} at {line.name}",
                why=f"It is {say_length(near, units)} from the {line.kind} line; "
                f"{say_length(line.clear.mm, units)} is to stay clear.",
                remedy="Do not drill. Move the foot, or lay the line elsewhere first.",
                quantity="distance",
                value=near,
                limit=line.clear.mm,
                unit="mm",
            )


@rule("walking-unknown", "caution", "survey", "Nobody has said whether the roof bears a person", PRACTICE)
def walking_unknown(survey_notes: Survey, panels: tuple[PlacedPanel, ...]) -> Iterator[Found]:
    if survey_notes.access.walkable == "unknown" and panels:
        yield Found(
            place="survey.access",
            where="the roof",
            why="A roof that does not bear you throws you off or breaks.",
            remedy="Look in the vehicle's papers; until then work from the ladder only.",
        )


@rule("standing-limit", "stop", "survey", "Standing load limit exceeded", "vehicle papers")
def standing_limit(survey_notes: Survey, roof_mass_kg: float, units: UnitSystem) -> Iterator[Found]:
    limit = survey_notes.access.standing_limit
    if limit is not None and roof_mass_kg > limit.kg:
        yield Found(
            place="survey.access",
            where="the roof",
            why=f"The plan weighs {say_mass(roof_mass_kg, units)}, standing the roof bears "
            f"{say_mass(limit.kg, units)}.",
            remedy="Take a panel off or choose lighter ones.",
            quantity="added mass",
            value=roof_mass_kg,
            limit=limit.kg,
            unit="kg",
        )


@rule(
    "out-of-square", "caution", "survey", "The roof is out of square", "parallelogram law from the diagonals"
)
def out_of_square(surveyed: SurveyFindings) -> Iterator[Found]:
    square = surveyed.square
    if square is not None and (not square.square):
        yield Found(
            place="survey.squareness",
            where="diagonals",
            why=square.words,
            remedy="Measure panels from the centre line, not from the edge.",
            quantity="out of square",
            value=square.skew_mm,
            limit=SQUARE_WITHIN_MM,
            unit="mm",
        )


@rule(
    "tape-misread",
    "caution",
    "survey",
    "Sides and diagonals do not fit together",
    "least-squares quadrilateral",
)
def tape_misread(surveyed: SurveyFindings, units: UnitSystem) -> Iterator[Found]:
    square = surveyed.square
    if square is not None and square.misfit_mm > MISFIT_MM:
        yield Found(
            place="survey.squareness",
            where="sides and diagonals",
            why=f"No four-sided shape has these measures; they disagree by "
            f"{say_length(square.misfit_mm, units)}.",
            remedy="Measure all six again: one of them was misread.",
            quantity="misfit",
            value=square.misfit_mm,
            limit=MISFIT_MM,
            unit="mm",
        )


@rule(
    "scars-open",
    "note",
    "seal",
    "Old holes and scars to close",
    "common practice: every old hole goes on the seal list",
)
def scars_open(surveyed: SurveyFindings) -> Iterator[Found]:
    entries = surveyed.seal_entries
    if entries:
        yield Found(
            place="survey.scars",
            where="the roof",
            why=f"{sum(e.count for e in entries)} scars; taking them off and closing them is about "
            f"{surveyed.removal_h:.1f} person-hours.",
            remedy="Close each one before a panel covers it.",
            quantity="labour",
            value=surveyed.removal_h,
            limit=None,
            unit="h",
        )
