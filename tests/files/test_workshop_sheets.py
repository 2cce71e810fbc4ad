"""Sheets of the workshop: true scale measured in the PDF itself, nothing left out."""

from __future__ import annotations

import csv
import io
from datetime import date
from typing import Any

import ezdxf.recover
import numpy as np
import pypdf
import pytest
from pypdf.generic import ContentStream

from fahrtwind.core.edits import AddEntry, PutOnRack, SetValue, apply_edits
from fahrtwind.core.errors import TooLarge, WrongHeader
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.workshop import ShopItem
from fahrtwind.core.quantities import Length
from fahrtwind.files.drawing import Stamp
from fahrtwind.files.dxf import to_dxf
from fahrtwind.files.items_csv import read_items, write_items
from fahrtwind.files.panel_templates import panel_templates
from fahrtwind.files.purchase_files import write_purchase, write_quote
from fahrtwind.files.workshop_sheets import (
    WINDOW_MM,
    forms_of,
    write_labels,
    write_piece_sheets,
    write_templates,
)

STAMP = Stamp(date(2026, 11, 26), 3, "http://127.0.0.1:8765/jobs/abc")
MM = 25.4 / 72


@pytest.fixture
def bent(sound: Job) -> Job:
    """A rack, and panels on brackets that are bent here."""
    racked = apply_edits(sound, [PutOnRack(panels=("p1",), points=False)])
    return apply_edits(racked, [SetValue(path="workshop.brackets", value="bent here")])


def lines_of(page: Any, reader: pypdf.PdfReader) -> list[tuple[float, float, float, float]]:
    """Straight lines of a page as they lie on paper, mm, whatever matrices stand before them."""
    stack, ctm, start, found = [], np.eye(3), None, []
    for operands, operator in ContentStream(page.get_contents(), reader).operations:
        if operator == b"q":
            stack.append(ctm)
        elif operator == b"Q":
            ctm = stack.pop()
        elif operator == b"cm":
            a, b, c, d, e, f = (float(x) for x in operands)
            ctm = np.array([[a, b, 0], [c, d, 0], [e, f, 1]]) @ ctm
        elif operator in (b"m", b"l"):
            at = (np.array([float(operands[0]), float(operands[1]), 1.0]) @ ctm)[:2] * MM
            if operator == b"l" and start is not None:
                found.append((*start, *at))
            start = tuple(at)
    return found


def test_templates_print_at_true_scale_and_leave_no_hole_out(bent: Job) -> None:
    """Measured on the paper: a bar of 100 mm on every page, and each hole's cross as far from the page's left
    line as the piece says.
    """
    evaluation = evaluate(bent)
    reader = pypdf.PdfReader(io.BytesIO(write_templates(bent, evaluation, STAMP)))
    forms = [f for f in forms_of(evaluation.findings.pieces) if f.piece.holes]
    wanted = {round(h.at_mm) for f in forms for h in f.piece.holes}
    seen: set[int] = set()
    for page in reader.pages:
        assert float(page.mediabox.width) * MM == pytest.approx(297, abs=0.5)
        drawn = lines_of(page, reader)
        level = [(min(a, c), max(a, c), b) for a, b, c, d in drawn if abs(b - d) < 0.01]
        assert any(abs(end - start - 100.0) < 0.05 for start, end, _ in level), "the check bar"
        left = min(a for a, _, c, d in drawn if abs(a - c) < 0.01 and d)
        words = page.extract_text()
        begin = float(words.split("from ")[1].split(" mm")[0])
        crosses = [(s + e) / 2 - left for s, e, _ in level if abs(e - s - 14.0) < 0.05]
        seen |= {round(begin + at) for at in crosses}
        assert all(-0.1 <= at <= WINDOW_MM + 0.1 for at in crosses)
    assert wanted <= {at + d for at in seen for d in (-1, 0, 1)}
    letter = apply_edits(bent, [SetValue(path="units", value="imperial")])
    sheet = pypdf.PdfReader(io.BytesIO(write_templates(letter, evaluate(letter), STAMP)))
    assert float(sheet.pages[0].mediabox.width) == pytest.approx(11 * 72, abs=1)


def test_each_kind_of_piece_has_one_sheet_with_its_numbers(bent: Job) -> None:
    evaluation = evaluate(bent)
    pieces = evaluation.findings.pieces
    reader = pypdf.PdfReader(io.BytesIO(write_piece_sheets(bent, evaluation, STAMP)))
    forms = forms_of(pieces)
    text = " ".join(page.extract_text() for page in reader.pages)
    assert len(forms) < len(pieces) and len(reader.pages) >= len(forms)
    assert all(p.id in text for p in pieces) and "tool goes to" in text
    assert sum(len(f.ids) for f in forms) == len(pieces)
    labels = pypdf.PdfReader(io.BytesIO(write_labels(bent, evaluation, STAMP)))
    told = " ".join(page.extract_text() for page in labels.pages)
    assert all(p.id in told for p in pieces)


def test_cardboard_templates_are_as_large_as_the_panels(sound: Job) -> None:
    found = evaluate(sound).findings
    document, auditor = ezdxf.recover.read(io.BytesIO(to_dxf(panel_templates(sound, found, STAMP)).encode()))
    space = document.modelspace()
    boxes = [np.array([p[:2] for p in b.get_points()]) for b in space.query('LWPOLYLINE[layer=="PANELS"]')]
    sizes = sorted(tuple(float(round(x)) for x in np.ptp(box, axis=0)) for box in boxes)
    assert not auditor.errors and len(sizes) == len(sound.panels)
    for panel in sound.panels:
        long, wide = panel.model.length.mm, panel.model.width.mm
        assert (long, wide) in sizes or (wide, long) in sizes
    holes = space.query('CIRCLE[layer=="HOLES"]')
    assert len(holes) == sum(m.kind == "hole" for m in found.marks if m.panel in {p.id for p in sound.panels})


def test_a_quote_names_what_has_no_price(bent: Job) -> None:
    evaluation = evaluate(bent)
    text = pypdf.PdfReader(io.BytesIO(write_quote(bent, evaluation, STAMP))).pages[0].extract_text()
    unpriced = evaluation.findings.cost.unpriced if evaluation.findings.cost else 0
    assert f"{unpriced} lines have no price yet" in text and "work is not in it yet" in text
    rows = list(csv.reader(io.StringIO(write_purchase(evaluation.findings.purchase))))
    assert len(rows) == 1 + len(evaluation.findings.purchase)


def test_the_shelf_goes_out_and_comes_back_the_same() -> None:
    items = [
        ShopItem(name="hex bolt M8 × 60", kind="fastener", pack=25, price=9.5, stock=40, supplier="Nord, AG"),
        ShopItem(
            name="=tube", kind="section", unit="bar", length=Length(mm=6000), lead_days=5, sheet="2026-03"
        ),
    ]
    assert [row.item for row in read_items(write_items(items)).rows] == items
    mixed = read_items(
        "name;kind;price;stock\nnut M8;fastener;0,04;500\nbad;nothing;1;2\nworse;fastener;x;1\n"
    )
    assert (
        (mixed.usable, mixed.left_out) == (1, 2) and mixed.rows[0].item and mixed.rows[0].item.price == 0.04
    )
    assert "kind" in mixed.rows[1].problem and "price" in mixed.rows[2].problem
    assert read_items("name,stock\nnut,-3\n").usable == 0
    with pytest.raises(WrongHeader):
        read_items("item,price\nnut,1\n")
    with pytest.raises(WrongHeader, match="colour"):
        read_items("name,colour\nnut,red\n")
    with pytest.raises(TooLarge, match="10000"):
        read_items("name\n" + "\n".join(f"nut {i}" for i in range(10_000)))


def test_a_change_by_hand_reaches_the_sheets(bent: Job) -> None:
    piece = next(p for p in evaluate(bent).findings.pieces if p.kind == "bar")
    change = {"piece": piece.id, "planned": piece.length_mm, "length": "777 mm", "cut_marked": "30 deg"}
    changed = apply_edits(bent, [AddEntry(path="workshop.changes", value=change)])
    pages = pypdf.PdfReader(io.BytesIO(write_piece_sheets(changed, evaluate(changed), STAMP))).pages
    text = " ".join(page.extract_text() for page in pages)
    assert "777 mm" in text and "30° and 0° off square" in text
