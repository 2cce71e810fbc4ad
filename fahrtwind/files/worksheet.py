"""The work sheet as PDF: to-scale drill map, numbered marks in both units, materials, ordered steps."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import typst

from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.results import Findings
from fahrtwind.core.saying import say_speed, sixteenths
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.layout.dry_fit import DryFit
from fahrtwind.files.drawing import Stamp, drill_drawing
from fahrtwind.files.svg import to_svg

HERE = Path(__file__).parent
FONTS = HERE / "fonts"
DRAWING_MM = (254.0, 122.0)
"""Room for the drawing on the first page."""
SCALES: tuple[int, ...] = (*range(8, 50, 2), *range(50, 100, 5), 100, 125, 150, 200)
"""Steps so close that the drawing fills the page; the ruler and the figures carry the sizes."""
CAUTION = "Planning aid. Makers' instructions, local rules and licensed practice come first."
SAFETY = (
    "Falls: the roof may not bear you. Wires, gas and water lines may run under the skin: look "
    "first, use the depth stop. "
    "Goggles against chips. A panel in wind is a sail. Panels are live in light: cover them, never "
    "let the ends touch."
)


def write_worksheet(job: Job, evaluation: Evaluation, stamp: Stamp) -> bytes:
    """The work sheet of a job as PDF bytes."""
    sheet = json.dumps(_sheet(job, evaluation, stamp), ensure_ascii=False)
    pdf = typst.compile(
        HERE / "worksheet.typ", font_paths=[FONTS], ignore_system_fonts=True, sys_inputs={"sheet": sheet}
    )
    return bytes(pdf)


def print_scale(job: Job, findings: Findings) -> int:
    """The largest usual scale at which the drawing, with text that grows with the scale, fits the first
    page.
    """
    for scale in SCALES:
        extent = drill_drawing(job, findings, scale).extent
        if extent.length_mm / scale <= DRAWING_MM[0] and extent.width_mm / scale <= DRAWING_MM[1]:
            return scale
    return SCALES[-1]


def _sheet(job: Job, evaluation: Evaluation, stamp: Stamp) -> dict[str, Any]:
    findings = evaluation.findings
    scale = print_scale(job, findings)
    drawing = drill_drawing(job, findings, scale)
    return {
        "title": f"Work sheet: {job.name}",
        "vehicle": f"{job.vehicle.kind.replace('_', ' ')}, {len(job.panels)} panels; {stamp.words()}",
        "paper": "us-letter" if job.units == "imperial" else "a4",
        "verdict": _verdict(evaluation),
        "refused": evaluation.spoken.word == "refused",
        "caution": CAUTION,
        "safety": SAFETY,
        "scale": scale,
        "figures": _figures(job, evaluation),
        "drawing": to_svg(drawing, scale),
        "drawing_width_mm": drawing.extent.length_mm / scale,
        "legend": "Dashed: inferred members m1, m2 … Crosses: holes with their numbers. "
        "Measured from the datum 0: the roof's "
        "front edge on the centre line; along is aft, across is positive to starboard.",
        "stops": [
            {"where": s.where, "why": s.why, "remedy": s.remedy}
            for s in evaluation.snags
            if s.severity == "stop"
        ],
        "marks": [_mark(job, m) for m in findings.marks],
        "decision": _decision(job),
        "dry_fit": [_dry_fit(job, d) for d in findings.dry_fit],
        "materials": [[m.item, f"{m.needed:g}", f"{m.spare:g}", m.unit, m.note] for m in findings.materials],
        "steps": [_step(s.number, s.title, s.detail, s.check, s.wait_h) for s in findings.steps],
    }


def _figures(job: Job, evaluation: Evaluation) -> list[dict[str, Any]]:
    plan, count = evaluation.findings.plan, len(evaluation.findings.marks)
    figures = [{"name": "marks", "value": str(count), "bad": False}]
    if plan is not None:
        for name, speed in (
            ("safe speed", plan.safe_m_s),
            ("driven", plan.required_m_s),
            ("let-go speed", plan.let_go_m_s),
            ("one foot lost", plan.lost_let_go_m_s),
        ):
            figures.append(
                {"name": name, "value": say_speed(speed, job.units), "bad": speed < plan.required_m_s}
            )
    figures.append(
        {"name": "added roof mass", "value": f"{evaluation.findings.roof_mass_kg:.0f} kg", "bad": False}
    )
    return figures


def _verdict(evaluation: Evaluation) -> str:
    spoken = evaluation.spoken
    return f"{spoken.word.capitalize()}{': ' if spoken.because else ''}{'; '.join(spoken.because)}"


def _mark(job: Job, mark: Mark) -> list[str]:
    names = {s.id: s.name for s in (*job.panels, *job.carriers, *job.tethers)}
    drill = (
        "pad"
        if mark.kind == "pad"
        else f"{mark.pilot_mm:g}" + (f" / {mark.final_mm:g}" if mark.final_mm else "")
    )
    stop = f"{mark.depth_stop_mm:.0f}" if mark.depth_stop_mm else "–"
    return [
        str(mark.number),
        f"{mark.x_mm:.0f}",
        sixteenths(mark.x_mm),
        f"{mark.y_mm:+.0f}",
        sixteenths(mark.y_mm),
        drill,
        stop,
        f"{mark.into}, {names[mark.panel]} {mark.foot}",
    ]


def _decision(job: Job) -> str:
    """What was chosen last, layout and hold, and why; empty where nothing was decided."""
    last = {d.about: d for d in job.decisions}
    return " ".join(
        f"Chosen: {d.name}. {d.reason}" + (f" Not: {', '.join(d.over)}." if d.over else "")
        for d in last.values()
    )


def _dry_fit(job: Job, marks: DryFit) -> list[str]:
    panel = next(p for p in job.panels if p.id == marks.panel)
    told = (
        marks.front_x_mm,
        marks.rear_x_mm,
        marks.port_y_mm,
        marks.starboard_y_mm,
        marks.diagonal_mm,
        panel.stand_off.mm,
    )
    return [panel.name, *(f"{mm:.0f} mm, {sixteenths(mm)}" for mm in told)]


def _step(number: int, title: str, detail: str, check: str, wait_h: float) -> list[str]:
    wait = f" Then wait {wait_h:g} h." if wait_h else ""
    return [str(number), title, detail + wait, check, "[  ]"]
