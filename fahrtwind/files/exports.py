"""All files a job can leave as: one register for the API and the command line."""

from __future__ import annotations

from collections.abc import Callable

from fahrtwind.core.choose.days import kept_as_plan
from fahrtwind.core.evaluate import Evaluation
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass
from fahrtwind.core.road import Station
from fahrtwind.files.days_calendar import write_calendar, write_due
from fahrtwind.files.drawing import Stamp, drill_drawing
from fahrtwind.files.dxf import to_dxf
from fahrtwind.files.handover import write_handover
from fahrtwind.files.job_file import write_job
from fahrtwind.files.materials_csv import write_materials
from fahrtwind.files.panel_templates import panel_templates
from fahrtwind.files.pieces_csv import write_cuts, write_pieces
from fahrtwind.files.pieces_drawing import pieces_drawing
from fahrtwind.files.purchase_files import write_purchase, write_quote
from fahrtwind.files.svg import to_svg
from fahrtwind.files.week_sheet import write_week_sheet
from fahrtwind.files.wiring_drawing import wiring_drawing
from fahrtwind.files.wiring_sheets import write_cable_labels, write_wiring
from fahrtwind.files.worksheet import write_worksheet
from fahrtwind.files.workshop_sheets import write_labels, write_piece_sheets, write_templates


@dataclass(frozen=True, slots=True)
class Export:
    """``station``: where it is offered."""

    title: str
    media_type: str
    write: Callable[[Job, Evaluation, Stamp], bytes]
    station: Station = "roof-day"


EXPORTS: dict[str, Export] = {
    "work-sheet.pdf": Export("Work sheet", "application/pdf", write_worksheet),
    "drill-map.dxf": Export(
        "Drill map, true scale",
        "image/vnd.dxf",
        lambda job, e, stamp: to_dxf(drill_drawing(job, e.findings, stamp=stamp)).encode(),
    ),
    "drill-map.svg": Export(
        "Drill map, true scale",
        "image/svg+xml",
        lambda job, e, stamp: to_svg(drill_drawing(job, e.findings, stamp=stamp)).encode(),
    ),
    "materials.csv": Export(
        "Materials",
        "text/csv; charset=utf-8",
        lambda _job, e, _stamp: write_materials(e.findings.materials).encode(),
    ),
    "pieces.csv": Export(
        "Pieces and their holes",
        "text/csv; charset=utf-8",
        lambda _job, e, _stamp: write_pieces(e.findings.pieces).encode(),
        station="build",
    ),
    "pieces.dxf": Export(
        "Pieces, true scale",
        "image/vnd.dxf",
        lambda job, e, stamp: to_dxf(pieces_drawing(e.findings.pieces, job.units, stamp)).encode(),
        station="build",
    ),
    "pieces.svg": Export(
        "Pieces, true scale",
        "image/svg+xml",
        lambda job, e, stamp: to_svg(pieces_drawing(e.findings.pieces, job.units, stamp)).encode(),
        station="build",
    ),
    "pieces.pdf": Export("Sheets of all pieces", "application/pdf", write_piece_sheets, station="build"),
    "templates.pdf": Export(
        "Drilling templates, true scale", "application/pdf", write_templates, station="build"
    ),
    "panel-templates.dxf": Export(
        "Cardboard templates of panels, true scale",
        "image/vnd.dxf",
        lambda job, e, stamp: to_dxf(panel_templates(job, e.findings, stamp)).encode(),
        station="build",
    ),
    "panel-templates.svg": Export(
        "Cardboard templates of panels, true scale",
        "image/svg+xml",
        lambda job, e, stamp: to_svg(panel_templates(job, e.findings, stamp)).encode(),
        station="build",
    ),
    "labels.pdf": Export("Labels of pieces", "application/pdf", write_labels, station="build"),
    "purchase.csv": Export(
        "Purchase list",
        "text/csv; charset=utf-8",
        lambda _job, e, _stamp: write_purchase(e.findings.purchase).encode(),
        station="build",
    ),
    "quote.pdf": Export("Quote", "application/pdf", write_quote, station="build"),
    "cut-list.csv": Export(
        "Cut list",
        "text/csv; charset=utf-8",
        lambda _job, e, _stamp: write_cuts(e.findings.cuts).encode(),
        station="build",
    ),
    "wiring.svg": Export(
        "Wiring diagram",
        "image/svg+xml",
        lambda job, _e, stamp: to_svg(wiring_drawing(job, stamp)).encode(),
        station="wire",
    ),
    "wiring.dxf": Export(
        "Wiring diagram",
        "image/vnd.dxf",
        lambda job, _e, stamp: to_dxf(wiring_drawing(job, stamp)).encode(),
        station="wire",
    ),
    "wiring.pdf": Export("Wiring diagram", "application/pdf", write_wiring, station="wire"),
    "cable-labels.pdf": Export("Labels of cables", "application/pdf", write_cable_labels, station="wire"),
    "days.ics": Export(
        "Plan for a calendar",
        "text/calendar; charset=utf-8",
        lambda job, _e, stamp: write_calendar(job, kept_as_plan(job), stamp.date),
        station="days",
    ),
    "week-sheet.pdf": Export("Week sheet", "application/pdf", write_week_sheet, station="days"),
    "due.ics": Export(
        "What is due, for a calendar",
        "text/calendar; charset=utf-8",
        lambda job, _e, stamp: write_due(job, stamp.date),
        station="log",
    ),
    "handover.pdf": Export("Handover sheet", "application/pdf", write_handover, station="log"),
    "job.json": Export("Whole job", "application/json", lambda job, _e, _stamp: write_job(job).encode()),
}
