"""Tables of panel models and of climates: read as the open columns say, refused with the column's name,
written back the same.
"""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.strategies import DrawFn

from fahrtwind.core.errors import FahrtwindError, InputError, TooLarge, WrongHeader
from fahrtwind.core.job.catalogue import catalogue
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.files.climate_csv import read_climate
from fahrtwind.files.panel_csv import read_panels, write_panels

OPEN_COLUMNS = """Name,Manufacturer,Technology,Bifacial,STC,PTC,A_c,Length,Width,N_s,I_sc_ref,V_oc_ref,I_mp_ref,V_mp_ref,alpha_sc,beta_oc,T_NOCT,gamma_r
Units,,,,,,m2,m,m,,A,V,A,V,A/K,V/K,C,%/C
[0],lib_manufacturer,cec_material,lib_is_bifacial,,,cec_area,lib_length,lib_width,cec_n_s,cec_i_sc_ref,cec_v_oc_ref,cec_i_mp_ref,cec_v_mp_ref,cec_alpha_sc,cec_beta_oc,cec_t_noct,cec_gamma_r
Row one,anon,Mono-c-Si,0,250.1,221.3,1.63,1.65,0.99,60,8.81,37.8,8.2,30.5,0.0035,-0.1191,45.5,-0.42
Row two,anon,Multi-c-Si,0,185.2,165.0,1.28,1.58,0.808,72,5.5,44.8,5.1,36.3,0.002,-0.155,46,-0.45
"""  # noqa: E501  a table as such files have it
"""The column layout of the open module table that ships with the solar library; the rows are made up."""


def test_the_open_columns_are_understood() -> None:
    found = read_panels(OPEN_COLUMNS, frame_mm=35, mass_kg=18)
    assert (found.usable, found.left_out) == (2, 0)
    one = found.rows[0].model
    assert one is not None and (one.length.mm, one.width.mm, one.power.w) == (1650, 990, 250.1)
    assert one.voc and one.isc and (one.voc.v, one.isc.a, one.cells) == (37.8, 8.81, 60)
    assert one.voc_per_k == pytest.approx(-0.1191 / 37.8 * 100, abs=1e-4) and one.power_per_k == -0.42
    assert one.price is None and one.bypass_diodes is None and one.noct and one.noct.deg_c == 45.5


def test_what_such_tables_do_not_tell_is_asked_for() -> None:
    assert all("frame height" in r.problem for r in read_panels(OPEN_COLUMNS).rows)
    assert all("mass" in r.problem for r in read_panels(OPEN_COLUMNS, frame_mm=35).rows)
    own = "Name;STC;Length;Width;Frame;Mass;Price;Stock;Flexible\n"
    own += "A;110,5;1,2;0,54;30;7,6;95;4;\nB;100;1.2;0.5;3;2;;;yes\n"
    rows = read_panels(own).rows
    assert rows[0].model and (rows[0].model.power.w, rows[0].model.price, rows[0].model.stock) == (
        110.5,
        95,
        4,
    )
    assert rows[1].model and rows[1].model.build == "flexible"


@pytest.mark.parametrize(
    ("text", "error"),
    [
        ("", WrongHeader),
        ("Name,STC\nA,1\n", WrongHeader),
        ("x" * 2_000_001, TooLarge),
        ("Name,STC,Length,Width\n" + "A,100,1.2,0.5\n" * 401, TooLarge),
    ],
)
def test_tables_that_cannot_be_used_say_why(text: str, error: type[FahrtwindError]) -> None:
    with pytest.raises(error) as caught:
        read_panels(text, 30, 8)
    assert caught.value.remedy and caught.value.field == "text"


@pytest.mark.parametrize(
    ("row", "word"),
    [
        ("A,much,1.2,0.5", "STC"),
        ("A,100,12,0.5", "length"),
        (",100,1.2,0.5", "name"),
        ("A,100,1.2,0.5x", "Width"),
    ],
)
def test_a_bad_row_is_told_and_leaves_the_others(row: str, word: str) -> None:
    found = read_panels(f"Name,STC,Length,Width\n{row}\nGood,100,1.2,0.5\n", 30, 8)
    assert word in found.rows[0].problem and found.rows[0].line == 2 and found.rows[1].model is not None


@st.composite
def models(draw: DrawFn) -> PanelModel:
    base = draw(st.sampled_from(catalogue()))
    plain = {
        k: {"mm": v["mm"]} if isinstance(v, dict) and "mm" in v else v for k, v in base.model_dump().items()
    }
    return PanelModel.model_validate(
        {
            **plain,
            "name": draw(
                st.text('abcdefghij äöü,;"', min_size=1, max_size=20).filter(lambda s: s.strip() == s)
            ),
            "price": draw(st.none() | st.integers(1, 900).map(float)),
            "stock": draw(st.none() | st.integers(0, 90)),
        }
    )


@given(st.lists(models(), min_size=1, max_size=4))
def test_what_was_written_is_read_back_the_same(given: list[PanelModel]) -> None:
    rows = read_panels(write_panels(given)).rows
    for before, row in zip(given, rows, strict=True):
        after = row.model
        assert after is not None, row.problem
        for name in ("name", "price", "stock", "cells", "bypass_diodes", "build"):
            assert getattr(after, name) == getattr(before, name)
        assert after.length.mm == pytest.approx(before.length.mm) and after.mass.kg == before.mass.kg
        assert (after.voc_per_k or 0) == pytest.approx(before.voc_per_k or 0, abs=1e-3)


def test_climates_of_one_s_own() -> None:
    months = read_climate(
        "month;sunshine;temperature;turbidity\n" + "".join(f"{m};0,{m + 10};{m};3\n" for m in range(12))
    )
    assert (
        len(months) == 12 and months[3].sunshine == pytest.approx(0.13) and months[3].temperature.deg_c == 3
    )
    assert read_climate("month,sunshine,temperature\n" + "x,45,10\n" * 12)[0].sunshine == 0.45


@pytest.mark.parametrize(
    "text",
    [
        "",
        "month,sun\n1,2\n",
        "month,sunshine,temperature\nJ,0.3,5\n",
        "month,sunshine,temperature\n" + "J,blue,5\n" * 12,
        "month,sunshine,temperature\n" + "J,0.4,500\n" * 12,
        "x" * 20_001,
    ],
)
def test_a_table_that_is_no_climate_is_refused(text: str) -> None:
    with pytest.raises(InputError) as caught:
        read_climate(text)
    assert caught.value.remedy
