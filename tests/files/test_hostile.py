"""Tables and drawings that are small on disk and endless when read, or that mean something else than they
say.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Callable
from typing import Any

import ezdxf
import pytest

from fahrtwind.core.errors import FahrtwindError, InputError, TooLarge
from fahrtwind.files.drawing_import import UnitUnknown
from fahrtwind.files.outline_import import read_outline
from fahrtwind.files.table import as_text, neutral, number, read_rows

RECT = "<rect width='5000' height='2000'/>"
SVG = (
    "<svg xmlns='http://www.w3.org/2000/svg' width='5000mm' height='2000mm' viewBox='0 0 5000 2000'>{}</svg>"
)
EDGE = [(0, 0), (5000, 0), (5000, 2000), (0, 2000)]


def dxf(draw: Callable[[Any], object], units: int = 4) -> str:
    document, out = ezdxf.new("R2010"), io.StringIO()
    document.units = units
    draw(document.modelspace())
    document.write(out)
    return out.getvalue()


def billion_laughs() -> str:
    """Eight groups of ten references to the one before: a hundred million rectangles in 900 bytes."""
    groups = "".join(f"<g id='a{i}'>" + f"<use href='#a{i - 1}'/>" * 10 + "</g>" for i in range(1, 9))
    return SVG.format(f"<defs><g id='a0'>{RECT}</g>{groups}</defs><use href='#a8'/>")


@pytest.mark.parametrize(
    "text",
    [
        billion_laughs(),
        SVG.format("<g id='a'><use href='#a'/></g>"),
        SVG.format("<g>" * 3000 + RECT + "</g>" * 3000),
        SVG.format("<path d='M0 0" + "A1 1 0 0 1 5 5" * 15_000 + "z'/>"),
        dxf(lambda m: m.add_circle((0, 0), 1e12)),
        dxf(lambda m: m.add_ellipse((0, 0), (1e12, 0), 0.5)),
        dxf(lambda m: [m.add_line((i, 0), (i + 1, 1)) for i in range(4000)]),
        dxf(lambda m: m.add_lwpolyline(EDGE, close=True), units=19),
    ],
    ids=["nested", "of itself", "deep", "path", "circle", "ellipse", "loose lines", "light years"],
)
def test_a_small_drawing_that_stands_for_something_endless_is_refused(text: str) -> None:
    with pytest.raises(FahrtwindError) as caught:
        read_outline(text, "metric")
    assert caught.value.remedy and caught.value.field


def test_a_drawing_without_a_unit_asks_for_it() -> None:
    for text in (
        f"<svg viewBox='0 0 5000 2000'>{RECT}</svg>",
        dxf(lambda m: m.add_lwpolyline(EDGE, close=True), units=0),
    ):
        with pytest.raises(UnitUnknown):
            read_outline(text, "metric")
        assert read_outline(text, "metric", "mm").length_mm == pytest.approx(5000)
        with pytest.raises(FahrtwindError):
            read_outline(text, "metric", "m")  # a roof of five kilometres


def test_a_table_is_read_as_it_was_meant() -> None:
    assert [r.cells for r in read_rows("a;b\r0,5;1\r\r2;3", "t", most=9)] == [
        ("a", "b"),
        ("0,5", "1"),
        ("2", "3"),
    ]
    assert [r.cells for r in read_rows("\ufeff1220,5\n640,5", "t", most=9, one_column=True)] == [
        ("1220,5",),
        ("640,5",),
    ]
    assert read_rows('31 1/2"\t5"', "t", most=9, quotes=False)[0].cells == ('31 1/2"', '5"')
    for text, why in (
        ("x\n" * 11, TooLarge),
        ("x," * 5000, TooLarge),
        ("a," + "y" * 100_000, TooLarge),
        ('a,"b', InputError),
    ):
        try:
            read_rows(text, "t", most=10)
        except InputError as error:
            assert isinstance(error, why) and error.remedy
        else:
            assert text == 'a,"b', (
                "an unclosed quotation mark at the end is the only one of these that may be read"
            )
    assert [number(t) for t in ("inf", "1e999", "1_000", "0x10", "-,5", "١")] == [
        None,
        None,
        None,
        None,
        -0.5,
        None,
    ]


@pytest.mark.parametrize("cell", ["=1+1", "+49", "-3", "@x", "\tx", "'quoted", "'=x", "plain", ""])
def test_what_a_spreadsheet_might_run_comes_back_as_it_was(cell: str) -> None:
    out = io.StringIO()
    csv.writer(out).writerow([neutral(cell)])
    assert not str(neutral(cell)).startswith(("=", "+", "-", "@", "\t"))
    assert as_text(next(csv.reader(io.StringIO(out.getvalue())))[0]) == cell
