"""What goes out comes back, is at true scale, and what should not come in does not."""

from __future__ import annotations

import csv
import io
import json
import xml.etree.ElementTree as ET
from datetime import date

import ezdxf
import ezdxf.colors
import ezdxf.recover
import pypdf
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from fahrtwind.core.errors import FahrtwindError, NewerFile, OutOfRange, TooLarge, UnreadableFile, WrongHeader
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.load import load_job
from fahrtwind.core.stations.survey.outline import polygon_of
from fahrtwind.demo import demo_jobs
from fahrtwind.files.drawing import LAYERS, Stamp, Text, drill_drawing
from fahrtwind.files.dxf import to_dxf
from fahrtwind.files.job_file import job_schema, read_job, write_job
from fahrtwind.files.materials_csv import write_materials
from fahrtwind.files.outline_import import read_outline
from fahrtwind.files.pieces_drawing import pieces_drawing
from fahrtwind.files.readings_csv import read_readings
from fahrtwind.files.svg import to_svg
from fahrtwind.files.worksheet import print_scale, write_worksheet
from tests.conftest import changed

STAMP = Stamp(date(2026, 5, 1), 7)
SVG = "{http://www.w3.org/2000/svg}"


def test_the_job_file_is_lossless(demo: Job) -> None:
    assert read_job(write_job(demo).encode()) == demo


@given(
    st.floats(500, 20_000),
    st.floats(1, 60),
    st.text(min_size=1, max_size=40).filter(lambda s: s.isprintable()),
)
def test_any_job_survives_the_file(length: float, speed: float, name: str) -> None:
    job = Job.model_validate(
        {
            "name": name,
            "vehicle": {"roof_length": {"mm": length, "text": f"{length!r} mm"}, "top_speed": {"m_s": speed}},
        }
    )
    assert read_job(write_job(job).encode()) == job


@pytest.mark.parametrize(
    ("data", "error"),
    [
        (b"", UnreadableFile),
        (b"not json", UnreadableFile),
        (b"\xff\xfe\x00", UnreadableFile),
        (b"[" * 100_000, UnreadableFile),
        (b'{"a":' * 60 + b"1" + b"}" * 60, UnreadableFile),
        (b"null", UnreadableFile),
        (b" " * 5_000_001, TooLarge),
        (b'{"schema_version": 7, "name": "x"}', NewerFile),
        (b'{"schema_version": 1}', FahrtwindError),
        (b'{"schema_version": 1, "name": "x", "vehicle": {"roof_length": {"mm": NaN}}}', FahrtwindError),
        (b'{"schema_version": 1, "name": "x", "panels": "none"}', FahrtwindError),
    ],
    ids=[
        "empty",
        "text",
        "binary",
        "deep",
        "nested",
        "null",
        "large",
        "newer",
        "no name",
        "nan",
        "wrong type",
    ],
)
def test_hostile_job_files_are_refused_with_a_remedy(data: bytes, error: type[FahrtwindError]) -> None:
    with pytest.raises(error) as caught:
        read_job(data)
    assert caught.value.remedy and caught.value.problem


def test_a_truncated_file_is_refused_at_every_cut(demo: Job) -> None:
    whole = write_job(demo).encode()
    for cut in range(0, len(whole) - 2, 997):
        with pytest.raises(FahrtwindError):
            read_job(whole[:cut])


def test_the_schema_describes_the_file(demo: Job) -> None:
    schema = job_schema()
    written = json.loads(write_job(demo))
    assert set(written) <= set(schema["properties"])
    assert schema["$schema"].endswith("2020-12/schema")


def test_dxf_is_sound_and_at_true_scale(demo: Job) -> None:
    findings = evaluate(demo).findings
    document, auditor = ezdxf.recover.read(io.BytesIO(to_dxf(drill_drawing(demo, findings)).encode()))
    assert not auditor.errors and document.units == ezdxf.units.MM
    holes = {
        (round(c.dxf.center.x, 3), round(-c.dxf.center.y, 3))
        for c in document.modelspace().query('CIRCLE[layer=="HOLES"]')
    }
    assert holes == {(round(m.x_mm, 3), round(m.y_mm, 3)) for m in findings.marks if m.kind == "hole"}
    roof = document.modelspace().query('LWPOLYLINE[layer=="ROOF"]').first
    xs = [p[0] for p in roof.get_points()]
    assert max(xs) - min(xs) == pytest.approx(8400)


def test_pieces_are_drawn_at_true_scale_hole_by_hole() -> None:
    """Measured in the DXF and in the SVG: every hole where its piece has it, from the left end of its face,
    and a check bar of 100 mm.
    """
    van = next(j for j in demo_jobs() if j.name == "Speiche")
    pieces = evaluate(van).findings.pieces
    drawing = pieces_drawing(pieces, van.units)
    document, auditor = ezdxf.recover.read(io.BytesIO(to_dxf(drawing).encode()))
    space = document.modelspace()
    assert not auditor.errors
    drawn = sorted(
        (round(c.dxf.center.x, 3), c.dxf.radius * 2) for c in space.query('CIRCLE[layer=="HOLES"]')
    )
    assert drawn == sorted((round(h.at_mm, 3), h.diameter_mm) for p in pieces for h in p.holes)
    boxes = space.query('LWPOLYLINE[layer=="LINES"]')
    faces = [sorted({round(x, 3) for x, *_ in box.get_points()}) for box in boxes]
    assert sorted({end for _, end in faces}) == sorted({round(p.length_mm, 3) for p in pieces})
    assert {start for start, _ in faces} == {0.0}
    assert len(faces) == sum(len({h.face for h in p.holes}) for p in pieces)
    bar = space.query('LINE[layer=="RULER"]').first
    assert bar.dxf.end.x - bar.dxf.start.x == 100.0
    root = ET.fromstring(to_svg(drawing))
    assert float(root.attrib["width"].removesuffix("mm")) == pytest.approx(drawing.extent.length_mm, abs=1e-2)
    assert len(root.findall(f".//{SVG}g[@id='HOLES']/{SVG}circle")) == sum(len(p.holes) for p in pieces)


def test_svg_is_at_true_scale_and_escapes_names(demo: Job) -> None:
    named = changed(demo, panels__p1__name="<b>&\"'")
    drawing = drill_drawing(named, evaluate(named).findings)
    root = ET.fromstring(to_svg(drawing))
    width, box = (
        float(root.attrib["width"].removesuffix("mm")),
        [float(v) for v in root.attrib["viewBox"].split()],
    )
    assert width == pytest.approx(box[2], abs=1e-2) == pytest.approx(drawing.extent.length_mm, abs=1e-2)
    holes = root.findall(f".//{SVG}g[@id='HOLES']/{SVG}circle")
    assert len(holes) == sum(m.kind == "hole" for m in evaluate(named).findings.marks)
    assert "<b>&\"'" in [t.text for t in root.iter(f"{SVG}text")]


def test_the_work_sheet_says_what_the_plan_says(demo: Job) -> None:
    evaluation = evaluate(demo)
    reader = pypdf.PdfReader(io.BytesIO(write_worksheet(demo, evaluation, STAMP)))
    text = " ".join(page.extract_text() for page in reader.pages)
    assert f"1 : {print_scale(demo, evaluation.findings)}" in text.replace("\n", " ")
    for mark in evaluation.findings.marks:
        assert f"{mark.x_mm:.0f}" in text
    for line in (
        *[m.item for m in evaluation.findings.materials],
        *[s.title for s in evaluation.findings.steps],
    ):
        assert line.split()[0] in text
    assert "STOP" in text and "Makers" in text
    fonts = {f for page in reader.pages for f in (page["/Resources"]["/Font"] or {}).values()}
    assert any("Barlow" in str(f.get_object()["/BaseFont"]) for f in fonts)


def test_the_sheet_says_which_way_round_it_is_and_measures_from_the_datum(demo: Job) -> None:
    """FRONT, PORT and STARBOARD at their edges, figures of 8 pt or more, dimensions, panel names, date and
    revision, Letter for inches.
    """
    demo = changed(demo, built={})
    evaluation = evaluate(demo)
    scale = print_scale(demo, evaluation.findings)
    drawing = drill_drawing(demo, evaluation.findings, scale)
    words = {t.text: t for t in drawing.items if isinstance(t, Text)}
    roof = evaluation.findings.roof
    assert roof is not None
    assert (
        words["FRONT"].x < roof.x_mm and words["PORT"].y < roof.y_mm and words["STARBOARD"].y > roof.y_end_mm
    )
    assert min(t.height for t in words.values()) / scale >= 8 * 25.4 / 72
    across = {f"{abs(m.y_mm):.0f} mm {'S' if m.y_mm > 0 else 'P'}" for m in evaluation.findings.marks}
    dims = {t.text for t in drawing.items if isinstance(t, Text) and t.layer == "DIMENSIONS"}
    assert {f"{m.x_mm:.0f} mm" for m in evaluation.findings.marks} <= dims and len(dims & across) >= 4
    reader = pypdf.PdfReader(io.BytesIO(write_worksheet(demo, evaluation, STAMP)))
    text = " ".join(page.extract_text() for page in reader.pages)
    assert "2026-05-01, revision 7" in text and "Front port f1" in text and "Refused" in text
    inch = changed(demo, units="imperial")
    letter = pypdf.PdfReader(io.BytesIO(write_worksheet(inch, evaluate(inch), STAMP)))
    assert [round(float(x)) for x in letter.pages[0].mediabox[2:]] == [792, 612]


def test_the_dxf_has_a_colour_for_each_layer_and_its_extents(demo: Job) -> None:
    document, _ = ezdxf.recover.read(
        io.BytesIO(to_dxf(drill_drawing(demo, evaluate(demo).findings, stamp=STAMP)).encode())
    )
    colours = [document.layers.get(name).color for name in LAYERS]
    assert len(set(colours)) == len(LAYERS)
    for colour in colours:
        if colour != 7:  # white on dark and black on light by itself
            red, green, blue = ezdxf.colors.aci2rgb(colour)
            light = 0.2126 * (red / 255) ** 2.2 + 0.7152 * (green / 255) ** 2.2 + 0.0722 * (blue / 255) ** 2.2
            assert 0.05 < light < 0.5, (colour, light)
    low, high = document.header["$EXTMIN"], document.header["$EXTMAX"]
    assert low[0] < 0 and high[0] > 8400 and low[1] < -1175 and high[1] > 1175
    assert any("Drill map: Lichtspiel" in t.dxf.text for t in document.modelspace().query("TEXT"))


def test_oil_and_deburring_only_where_there_is_metal(demo: Job) -> None:
    wooden = changed(
        demo, vehicle__skin="membrane", vehicle__ply_thickness="9 mm", members__kind="wood_truss"
    )
    for job, metal in ((demo, True), (wooden, False)):
        findings = evaluate(job).findings
        said = " ".join([*(m.note for m in findings.materials), *(s.title for s in findings.steps)])
        assert ("cutting oil" in said) == metal and ("Deburr" in said) == metal


def test_the_work_sheet_prints_an_empty_job_and_hostile_names() -> None:
    for job in (Job(name="empty"), Job(name="#evil[$x$] \\ *_`")):
        assert write_worksheet(job, evaluate(job), STAMP).startswith(b"%PDF")


def test_materials_csv_can_be_read_back_and_runs_no_formula(demo: Job) -> None:
    model = {**demo.panels[0].model.model_dump(), "name": "=cmd()"}
    findings = evaluate(changed(demo, panels__p1__model=model)).findings
    rows = list(csv.DictReader(io.StringIO(write_materials(findings.materials))))
    assert len(rows) == len(findings.materials)
    assert not any(row["item"].startswith("=") for row in rows)


def test_counts_in_the_materials_match_the_marks(demo: Job) -> None:
    findings = evaluate(changed(demo, built={})).findings
    screws = next(m for m in findings.materials if m.item.startswith("stainless screw"))
    assert screws.needed == sum(m.kind == "hole" for m in findings.marks) and screws.spare >= 2
    assert [m.number for m in findings.marks] == list(range(1, len(findings.marks) + 1))
    xs = [round(m.x_mm) for m in findings.marks]
    assert xs == sorted(xs)


@pytest.mark.parametrize(
    ("text", "understood", "refused"),
    [
        ("968\n1.62 m\n5' 4\"", 3, 0),
        ("position;kind\n968;magnet\n1620;rivet row", 2, 0),
        ("968\tknock\t25 mm\n", 1, 0),
        ("kind,position\nmagnet,968\nfoo,12\n", 1, 1),
        ("968, magnet\nabc, magnet\n-9 m, magnet", 2, 1),
        ("", 0, 0),
    ],
)
def test_readings_are_understood_line_by_line(text: str, understood: int, refused: int) -> None:
    table = read_readings(text, "metric")
    assert (len(table.understood), len(table.refused)) == (understood, refused)
    assert all(row.problem and row.remedy for row in table.refused)


def test_too_many_rows_and_a_wrong_header_are_refused_whole() -> None:
    with pytest.raises(TooLarge):
        read_readings("\n".join(str(i) for i in range(10_000)), "metric")
    with pytest.raises(WrongHeader):
        read_readings("distance;what\n968;magnet", "metric")


def test_a_whole_job_as_a_file_evaluates_like_the_stored_one(demo: Job) -> None:
    assert evaluate(load_job(json.loads(write_job(demo)))).findings.plan == evaluate(demo).findings.plan


SQUARE = "<rect x='0' y='0' width='400' height='200'/>"


def test_the_outline_comes_back_from_our_own_drawings(demo: Job) -> None:
    """A tapered roof written as DXF and SVG and read again: the same edge within the drawing's rounding."""
    job = changed(demo, survey__outline__front_narrower="200 mm", survey__outline__front_radius="150 mm")
    findings = evaluate(job).findings
    drawing = drill_drawing(job, findings)
    edge = polygon_of(findings.survey.outline)
    for text in (to_dxf(drawing), to_svg(drawing)):
        read = read_outline(text, "metric")
        again = Polygon([(p.x_mm, p.y_mm) for p in read.points])
        assert again.symmetric_difference(edge).area < 0.001 * edge.area
        assert (read.length_mm, read.width_mm) == pytest.approx((8400, 2350), abs=0.2)


def test_outlines_as_people_send_them() -> None:
    rows = read_outline('x;y\n0;-31 1/2"\n13\'; -31 1/2"\n13\';31 1/2"\n0;31 1/2"', "imperial")
    assert rows.format == "csv" and (rows.length_mm, rows.width_mm) == pytest.approx(
        (13 * 304.8, 63 * 25.4), abs=0.1
    )
    circle = read_outline(
        "<svg width='3000mm' height='2000mm' viewBox='0 0 300 200'><circle cx='150' cy='100' r='90'/></svg>",
        "metric",
    )
    assert (circle.length_mm, circle.width_mm) == pytest.approx((1800, 1800), abs=8)
    document = ezdxf.new(units=ezdxf.units.CM)
    for a, b in (((0, 0), (400, 0)), ((400, 0), (400, 160)), ((0, 160), (400, 160)), ((0, 160), (0, 0))):
        document.modelspace().add_line(a, b)
    stream = io.StringIO()
    document.write(stream)
    assert read_outline(stream.getvalue(), "metric").length_mm == pytest.approx(4000)


@pytest.mark.parametrize(
    ("text", "error"),
    [
        ("", UnreadableFile),
        ("a,b\n1,2\n3,4\n5,7", WrongHeader),
        ("0,0\n1000,0", UnreadableFile),
        ("0,0\n1 parsec,0\n3,3", FahrtwindError),
        ("0\n1\n2", FahrtwindError),
        ("0\nSECTION\n2\nHEADER\nbroken", UnreadableFile),
        ("<svg", UnreadableFile),
        (f"<!DOCTYPE x [<!ENTITY a 'b'>]><svg>{SQUARE}</svg>", UnreadableFile),
        ("0,0\n" * 5000, TooLarge),
        ("9" * 2_000_001, TooLarge),
        ("0,0\n90 m,0\n90 m,2 m\n0,2 m", OutOfRange),
        ("<svg width='9mm'><line x1='0' y1='0' x2='9' y2='9'/></svg>", UnreadableFile),
    ],
    ids=[
        "empty",
        "header",
        "two points",
        "unit",
        "one column",
        "bad dxf",
        "bad svg",
        "entities",
        "rows",
        "size",
        "90 m",
        "open line",
    ],
)
def test_outlines_that_cannot_be_a_roof_are_refused_with_a_remedy(
    text: str, error: type[FahrtwindError]
) -> None:
    with pytest.raises(error) as caught:
        read_outline(text, "metric")
    assert caught.value.remedy and caught.value.field


def test_the_drill_map_carries_what_the_survey_found(demo: Job) -> None:
    """Points, scars, lines under the skin and mounting lines stand in the DXF where the findings put them."""
    rows = [{"id": "w1", "name": "port", "kind": "pin", "start": 600, "y": -900, "pitch": 800, "count": 3}]
    findings = evaluate(changed(demo, survey__point_rows=rows)).findings
    document, _ = ezdxf.recover.read(io.BytesIO(to_dxf(drill_drawing(demo, findings)).encode()))
    space = document.modelspace()
    points = sorted(round(c.dxf.center.x) for c in space.query('CIRCLE[layer=="POINTS"]'))
    assert points == [600, 1400, 2200]
    crosses = {
        (round((e.dxf.start.x + e.dxf.end.x) / 2), round(-(e.dxf.start.y + e.dxf.end.y) / 2))
        for e in space.query('LINE[layer=="SCARS"]')
    }
    assert crosses == {(round(e.x_mm), round(e.y_mm)) for e in findings.survey.seal_entries}
    lines = {round(-e.dxf.start.y) for e in space.query('LINE[layer=="LINES"]')}
    assert lines == {round(-s.offset_mm if s.side == "port" else s.offset_mm) for s in findings.lines.sides}
    assert len(space.query('LWPOLYLINE[layer=="KEEP_OUT"]')) == len(demo.survey.keep_outs)
    root = ET.fromstring(to_svg(drill_drawing(demo, findings)))
    assert {"POINTS", "SCARS", "KEEP_OUT", "LINES"} <= {g.get("id") for g in root.findall(f"{SVG}g")}
