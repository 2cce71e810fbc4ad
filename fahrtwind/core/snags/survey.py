"""Snags of the survey: what the roof itself does not allow."""

from collections.abc import Iterator

from fahrtwind.core.job.document import Job
from fahrtwind.core.quantities import say_length, say_mass
from fahrtwind.core.results import Findings
from fahrtwind.core.snags.model import Found, rule
from fahrtwind.core.survey.access import distances_to_line
from fahrtwind.core.survey.squareness import SQUARE_WITHIN_MM

PRACTICE = "common practice, no source"
RESIDUAL_LIMIT = 4.0
MISFIT_MM = 6.0


@rule("roof-load-limit", "stop", "survey", "Roof load limit exceeded", "Vehicle papers; ISO 3833 terms")
def roof_load_limit(job: Job, findings: Findings) -> Iterator[Found]:
    limit = job.vehicle.roof_load_limit
    if limit is not None and findings.roof_mass_kg > limit.kg:
        yield Found(
            "vehicle.roof_load_limit", "the roof", f"The plan weighs {say_mass(findings.roof_mass_kg, job.units)}, the roof bears {say_mass(limit.kg, job.units)} while driving.",
            "Take a panel off or choose lighter ones.", "added mass", findings.roof_mass_kg, limit.kg, "kg",
        )  # fmt: skip


@rule("roof-load-unknown", "caution", "survey", "Roof load limit not known", "Vehicle papers")
def roof_load_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    if job.vehicle.roof_load_limit is None and job.panels:
        yield Found(
            "vehicle.roof_load_limit", "the roof", f"The plan adds {say_mass(findings.roof_mass_kg, job.units)} and nothing says what the roof bears.",
            "Look the driving roof load up in the vehicle's papers and type it in.",
        )  # fmt: skip


@rule("ceiling-unknown", "caution", "survey", "What is under the skin is not known", PRACTICE)
def inside_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    drilled = any(p.hold.school != "tape" for p in job.panels)
    if drilled and job.vehicle.inside in ("unknown", "finished", "partial"):
        yield Found(
            "vehicle.inside", "inside, below the holes", "Wires, gas and water lines run between skin and ceiling; a bit finds them.",
            "Open the ceiling or trace the lines before drilling, use the depth stops of the drill map.",
        )  # fmt: skip


@rule("outline-broken", "stop", "survey", "The outline cannot be a roof", "geometry")
def outline_broken(job: Job, findings: Findings) -> Iterator[Found]:
    if findings.survey.outline_trouble:
        yield Found(
            "survey.outline",
            "the outline",
            findings.survey.outline_trouble,
            "Correct the points or the corner offsets, or clear them.",
        )


@rule("crown-not-measured", "note", "survey", "Crown not measured", PRACTICE)
def crown_not_measured(job: Job, findings: Findings) -> Iterator[Found]:
    if findings.roof is not None and findings.survey.crown is None and job.panels:
        yield Found(
            "survey.crown", "the roof", "It is drawn flat; roofs seldom are.",
            "Lay a straight-edge across at one or two places and type the gaps, or walk the gauge across.",
        )  # fmt: skip


@rule(
    "crown-contradicts",
    "caution",
    "survey",
    "Crown readings contradict one another",
    "residual over 4 standard deviations of the Bayesian fit",
)
def crown_contradicts(job: Job, findings: Findings) -> Iterator[Found]:
    crown = findings.survey.crown
    if crown is not None and crown.worst_residual > RESIDUAL_LIMIT:
        yield Found(
            "survey.crown", "crown readings", "One of them stands far off the smooth roof through the others.",
            "Measure the odd one again; look for a dent, a seam or a sign typed the wrong way round.", "residual", crown.worst_residual,
            RESIDUAL_LIMIT, "s",
        )  # fmt: skip


@rule(
    "point-off",
    "caution",
    "survey",
    "Factory point off its pattern",
    "rigid robust fit of the measured row to its nominal pattern",
)
def point_off(job: Job, findings: Findings) -> Iterator[Found]:
    for row in findings.survey.rows:
        for point in row.points:
            if point.stray and point.usable and point.off_mm is not None:
                yield Found(
                    f"survey.point_rows.{row.row}", f"{row.name}, count {point.count}",
                    f"It is {say_length(point.off_mm or 0.0, job.units)} off the row of the others.", "Slot the foot there or leave this point out; do not force a bolt.",
                    "off", point.off_mm, None, "mm",
                )  # fmt: skip


@rule("point-unusable", "note", "survey", "Factory point not usable", "as entered")
def point_unusable(job: Job, findings: Findings) -> Iterator[Found]:
    for row in findings.survey.rows:
        lost = [p for p in row.points if not p.usable]
        if lost:
            why = "; ".join(f"count {p.count}: {p.why or 'no reason given'}" for p in lost)
            yield Found(
                f"survey.point_rows.{row.row}",
                row.name,
                f"{len(lost)} of {len(row.points)} points cannot be used ({why}).",
                "Plan with the others.",
            )


@rule("hole-in-keep-out", "stop", "roof-day", "Hole over a line under the skin", "geometry; clearance as entered")
def hole_in_keep_out(job: Job, findings: Findings) -> Iterator[Found]:
    holes = [m for m in findings.marks if m.kind == "hole"]
    for line in job.survey.keep_outs if holes else ():
        away = distances_to_line(line, [m.x_mm for m in holes], [m.y_mm for m in holes])
        near, worst = min(zip(away, holes, strict=True), key=lambda pair: pair[0])
        if near < line.clear.mm:
            yield Found(
                f"panels.{worst.panel}.feet.{worst.foot}", f"hole {worst.number} at {line.name}",
                f"It is {say_length(near, job.units)} from the {line.kind} line; {say_length(line.clear.mm, job.units)} is to stay clear.",
                "Do not drill. Move the foot, or lay the line elsewhere first.", "distance", near, line.clear.mm, "mm",
            )  # fmt: skip


@rule("walking-unknown", "caution", "survey", "Nobody has said whether the roof bears a person", PRACTICE)
def walking_unknown(job: Job, findings: Findings) -> Iterator[Found]:
    if job.survey.access.walkable == "unknown" and job.panels:
        yield Found(
            "survey.access", "the roof", "A roof that does not bear you throws you off or breaks.",
            "Look in the vehicle's papers; until then work from the ladder only.",
        )  # fmt: skip


@rule("standing-limit", "stop", "survey", "Standing load limit exceeded", "vehicle papers")
def standing_limit(job: Job, findings: Findings) -> Iterator[Found]:
    limit = job.survey.access.standing_limit
    if limit is not None and findings.roof_mass_kg > limit.kg:
        yield Found(
            "survey.access", "the roof", f"The plan weighs {say_mass(findings.roof_mass_kg, job.units)}, standing the roof bears {say_mass(limit.kg, job.units)}.",
            "Take a panel off or choose lighter ones.", "added mass", findings.roof_mass_kg, limit.kg, "kg",
        )  # fmt: skip


@rule("out-of-square", "caution", "survey", "The roof is out of square", "parallelogram law from the diagonals")
def out_of_square(job: Job, findings: Findings) -> Iterator[Found]:
    square = findings.survey.square
    if square is not None and not square.square:
        yield Found(
            "survey.squareness", "diagonals", square.words, "Measure panels from the centre line, not from the edge.", "out of square",
            square.skew_mm, SQUARE_WITHIN_MM, "mm",
        )  # fmt: skip


@rule("tape-misread", "caution", "survey", "Sides and diagonals do not fit together", "least-squares quadrilateral")
def tape_misread(job: Job, findings: Findings) -> Iterator[Found]:
    square = findings.survey.square
    if square is not None and square.misfit_mm > MISFIT_MM:
        yield Found(
            "survey.squareness", "sides and diagonals", f"No four-sided shape has these measures; they disagree by {say_length(square.misfit_mm, job.units)}.",
            "Measure all six again: one of them was misread.", "misfit", square.misfit_mm, MISFIT_MM, "mm",
        )  # fmt: skip


@rule("scars-open", "note", "seal", "Old holes and scars to close", "common practice: every old hole goes on the seal list")
def scars_open(job: Job, findings: Findings) -> Iterator[Found]:
    entries = findings.survey.seal_entries
    if entries:
        yield Found(
            "survey.scars", "the roof", f"{sum(e.count for e in entries)} scars; taking them off and closing them is about {findings.survey.removal_h:.1f} person-hours.",
            "Close each one before a panel covers it.", "labour", findings.survey.removal_h, None, "h",
        )  # fmt: skip
