"""The wiring diagram and the labels: each run, each panel, each polarity is on them."""

from __future__ import annotations

import io
from datetime import date
from xml.etree import ElementTree

import ezdxf.recover
import pypdf

from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.files.drawing import Line, Stamp
from fahrtwind.files.dxf import to_dxf
from fahrtwind.files.svg import to_svg
from fahrtwind.files.wiring_drawing import MINUS, PLUS, wiring_drawing
from fahrtwind.files.wiring_sheets import write_cable_labels, write_wiring
from tests.conftest import changed

STAMP = Stamp(date(2026, 11, 26), 3, "http://127.0.0.1:8765/jobs/abc")


def texts(job: Job) -> list[str]:
    root = ElementTree.fromstring(to_svg(wiring_drawing(job, STAMP)))
    cleared = {id(t) for g in root.iter() if g.get("id") == "CLEARING" for t in g.iter()}
    return [t.text or "" for t in root.iter() if t.tag.endswith("text") and id(t) not in cleared]


def test_every_panel_run_and_device_is_on_the_diagram(demo: Job) -> None:
    told = texts(changed(demo, wiring__controllers__c1__fuse="15 A"))
    for panel in demo.panels:
        assert panel.name in told and told.count("+") == told.count("−") == len(demo.panels)
    runs = [r for h in evaluate(demo).findings.harnesses for r in h.runs]
    assert {r.label[:2] for r in runs} == {"S1", "S2", "S3", "C1"}
    for label in ("S1+", "S1−", "S2+", "S2−", "S3+", "S3−"):
        assert any(t.startswith(label) for t in told), label
    assert told.count("15 A") == 2 and told.count("isolator") == 2 and told.count("12 V") == 2
    assert "branch pieces" in told and "6 mm²" in told
    inside = texts(changed(demo, wiring__controllers__c1__joined="inside"))
    assert "combiner" in inside and "branch pieces" not in inside


def test_plus_and_minus_never_meet(demo: Job) -> None:
    """No end of a plus line lies on a minus line's end: on paper as on the roof."""
    lines = [item for item in wiring_drawing(demo).items if isinstance(item, Line)]
    ends = {
        layer: {(round(x, 1), round(y, 1)) for li in lines if li.layer == layer for x, y in _ends(li)}
        for layer in (PLUS, MINUS)
    }
    assert ends[PLUS] and ends[MINUS] and not ends[PLUS] & ends[MINUS]


def _ends(line: Line) -> tuple[tuple[float, float], tuple[float, float]]:
    return (line.x1, line.y1), (line.x2, line.y2)


def test_the_same_diagram_in_three_formats_and_a_label_for_both_ends(demo: Job) -> None:
    found = evaluate(demo)
    read, auditor = ezdxf.recover.read(io.BytesIO(to_dxf(wiring_drawing(demo, STAMP)).encode()))
    assert not auditor.errors
    in_dxf = {e.dxf.text for e in read.modelspace().query("TEXT")}
    assert {p.name for p in demo.panels} <= in_dxf
    pages = pypdf.PdfReader(io.BytesIO(write_wiring(demo, found, STAMP))).pages
    sheet = "".join(p.extract_text() for p in pages)
    runs = [r for h in found.findings.harnesses for r in h.runs]
    assert all(r.label.replace("-", "")[:2] in sheet for r in runs) and "revision 3" in sheet
    labels = pypdf.PdfReader(io.BytesIO(write_cable_labels(demo, found, STAMP))).pages
    told = "".join(p.extract_text() for p in labels)
    assert told.count("S1+") == told.count("S1−") == told.count("C1+") == 2 and "up to 95 V" in told
    bare = changed(demo, wiring={})
    assert write_cable_labels(bare, evaluate(bare), STAMP) and texts(bare)
