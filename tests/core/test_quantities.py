import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fahrtwind.core.errors import InputError
from fahrtwind.core.quantities import Length, Mass, Speed, Temperature, number_typed
from fahrtwind.core.saying import sixteenths
from fahrtwind.core.tables.units import USUAL_UNITS


@pytest.mark.parametrize(
    ("typed", "mm"),
    [
        ("5 5/16", 5.3125 * 25.4),
        ("5-5/16 in", 5.3125 * 25.4),
        ("5' 4\"", 64 * 25.4),
        ("5'4", 64 * 25.4),
        ("5ft 4 1/2in", 64.5 * 25.4),
        ("27 ft", 27 * 304.8),
        ("132cm", 1320),
        ("1.32 m", 1320),
        ("1,32 m", 1320),
        ("8200", 8200),
        ('-3 1/2"', -88.9),
        ("16 ga", 1.519),
        ("20 gauge", 0.912),
        ("16 ga al", 1.2908),
        ("5′ 4″", 64 * 25.4),
        ("0.5 in", 12.7),
    ],
)
def test_lengths_are_read_as_people_write_them(typed: str, mm: float) -> None:
    """Gauges: uncoated standard gauge (16 ga 1.519 mm, 20 ga 0.912 mm); Brown & Sharpe 16 is 0.05082 in."""
    assert Length.parse(typed).mm == pytest.approx(mm, rel=1e-4)


@pytest.mark.parametrize(
    "typed",
    [
        "",
        "abc",
        "nan",
        "inf",
        "-inf",
        "5 kg",
        "1,320 m",
        "1e9",
        "10**9",
        "5/0",
        "m",
        "9" * 80,
        "99 ga",
        "1.2.3 m",
    ],
)
def test_what_is_no_length_is_refused_with_field_and_remedy(typed: str) -> None:
    with pytest.raises(InputError) as caught:
        Length.parse(typed, "metric", "vehicle.roof_length")
    assert caught.value.remedy


def test_plain_numbers_are_read_as_people_write_them() -> None:
    read = {
        "38,50": 38.5,
        "38.50": 38.5,
        " 12 ": 12,
        "1,250": 1250,
        "1 250,5": 1250.5,
        "−3": -3,
        "1e3": 1000,
        ".5": 0.5,
    }
    assert {typed: number_typed(typed) for typed in read} == read
    for typed in ("", "abc", "nan", "inf", "1.250,5", "1 2", "12 mm", "1_000", "0x10"):
        with pytest.raises(InputError, match="not a number") as caught:
            number_typed(typed, "workshop.stock.x1.price")
        assert caught.value.remedy and caught.value.field == "workshop.stock.x1.price"


def test_the_bare_number_takes_the_jobs_unit_and_keeps_it() -> None:
    assert Length.parse("12", "imperial").mm == pytest.approx(304.8)
    assert Length.parse("12", "imperial").text == "12 in"
    assert Speed.parse("70", "imperial").m_s == pytest.approx(31.2928)
    assert Speed.parse("110 km/h").m_s == pytest.approx(30.5556, rel=1e-5)
    assert Mass.parse("47 lb").kg == pytest.approx(21.3188, rel=1e-5)
    assert Temperature.parse("70 °F").deg_c == pytest.approx(21.111, rel=1e-4)


@given(st.floats(0.1, 20_000), st.sampled_from(["mm", "cm", "m", "inch", "foot", "yard"]))
def test_round_trip_through_a_units_library(value: float, unit: str) -> None:
    registry = pint.get_application_registry()
    typed = f"{value:.6f} {unit}"
    assert Length.parse(typed).mm == pytest.approx(
        registry.Quantity(float(f"{value:.6f}"), unit).to("mm").magnitude, rel=1e-9
    )


@given(st.integers(-16 * 400, 16 * 400))
def test_sixteenths_come_back_as_they_were_printed(parts: int) -> None:
    mm = parts * 25.4 / 16
    assert Length.parse(sixteenths(mm)).mm == pytest.approx(mm, abs=1e-9)


def test_usual_units_are_what_the_unit_library_says() -> None:
    """The units that are read without it, against pint."""
    units = pint.UnitRegistry()
    for kept, known in USUAL_UNITS.items():
        base = {"°C": "degC", "°": "degree"}.get(kept, kept)
        for unit, factor in known.items():
            said = units.Quantity(7.0, "kW" if unit == "kw" else unit).to(base).magnitude
            assert 7.0 * factor == pytest.approx(said, rel=1e-12), unit
