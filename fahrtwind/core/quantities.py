"""Quantities as people type them: the SI value and the original text travel together.

A quantity in a job is, for example, ``Length(mm=1320.0, text="132cm")``. The number is what the core
computes with; the text is what the person wrote, kept and shown. A value that was dragged has no text.
"""

from __future__ import annotations

import math
import re
import unicodedata
from fractions import Fraction
from functools import cache, lru_cache
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, Self

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from fahrtwind.core.errors import InputError, UnreadableQuantity, WrongUnit
from fahrtwind.core.tables.gauges import ALUMINIUM_WORDS, aluminium_gauge_mm, steel_gauge_mm
from fahrtwind.core.tables.units import ALIAS, PINT_UNIT, SHOWN, USUAL_UNITS

if TYPE_CHECKING:
    import pint

UnitSystem = Literal["metric", "imperial"]
LONGEST_TEXT = 60
KG_PER_LB, M_S_PER_MPH, N_PER_LBF = 0.45359237, 0.44704, 4.4482216
ROUNDING = 1e-9
"""51 mph typed is 51 mph told: what arithmetic leaves behind the last digit is no slower speed."""
TEXT_MEANS_WITHIN = 1e-6
"""Relative difference up to which a text and its value are the same: values pass through files as decimal
numbers.
"""
TEXT_MEANS_WITHIN_UNITS = 2e-3


def is_printable(letter: str) -> bool:
    """Whether sheets, drawings and tables can carry it: no control character, lone surrogate or
    noncharacter.
    """
    return (
        unicodedata.category(letter) not in ("Cc", "Cs")
        and ord(letter) & 0xFFFE != 0xFFFE
        and letter not in "\u2028\u2029"
    )


def printable(text: str) -> str:
    """Raise where a single line of text holds what cannot be written."""
    for letter in text:
        if not is_printable(letter):
            raise PydanticCustomError(
                "bad_input",
                "{problem}",
                {
                    "problem": f"The character U+{ord(letter):04X} cannot be written.",
                    "remedy": "Type it again without control characters.",
                },
            )
    return text


def printable_lines(text: str) -> str:
    """Like ``printable``, for text of several lines."""
    printable(text.replace("\n", ""))
    return text


Printable = Annotated[str, AfterValidator(printable)]


@cache
def _units() -> pint.UnitRegistry[Any]:
    import pint  # loaded late: it takes a third of a second and only typing needs it

    registry: pint.UnitRegistry[Any] = pint.UnitRegistry(cache_folder=None)
    registry.define("@alias kilometer_per_hour = km/h")
    return registry


class Quantity(BaseModel):
    """A number in a fixed unit plus the text it was typed as (None when it was not typed)."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    text: Annotated[Printable, Field(max_length=LONGEST_TEXT)] | None = None

    unit: ClassVar[str]
    noun: ClassVar[str]
    example: ClassVar[str]
    bare: ClassVar[dict[str, str]]

    @property
    def value(self) -> float:
        return float(getattr(self, type(self).value_name()))

    @classmethod
    def value_name(cls) -> str:
        return next(name for name in cls.model_fields if name != "text")

    @classmethod
    def shown(cls, value: float, system: UnitSystem) -> str:
        """A value as a limit says it, in the system's usual unit. The value is in the unit of the
        quantity's field: mm, °C, m/s and so on.
        """
        unit = cls.bare[system]
        if unit in (cls.unit, "degree", "degC", "N*m"):
            return f"{value:g} {cls.unit}"
        there = _units().Quantity(value, PINT_UNIT[cls.unit]).to(ALIAS.get(unit, unit)).magnitude
        return f"{there:.4g} {SHOWN.get(unit, unit)}"

    @classmethod
    def of(cls, value: float, text: str | None = None) -> Self:
        """A quantity from a value in the unit of its field, mm for a length, and the text it was typed as."""
        return cls.model_validate({cls.value_name(): value, "text": text})

    @classmethod
    def parse(cls, text: str, system: UnitSystem = "metric", field: str = "") -> Self:
        """Read what a person typed. A bare number is taken in the job's usual unit.

        Raises UnreadableQuantity or WrongUnit, both naming the field and an example to copy.
        """
        return cls.of(_parse(cls, text, system, field), _with_its_unit(cls, text.strip(), system))

    @model_validator(mode="before")
    @classmethod
    def _read(cls, data: Any, info: Any) -> Any:
        """A plain string is parsed and a plain number is SI, so that edits and scripts can use either."""
        if isinstance(data, str):
            system = (info.context or {}).get("units", "metric")
            try:
                return {
                    cls.value_name(): _parse(cls, data, system, ""),
                    "text": _with_its_unit(cls, data.strip(), system),
                }
            except InputError as error:
                raise PydanticCustomError(
                    error.code, "{problem}", {"problem": error.problem, "remedy": error.remedy}
                ) from error
        if isinstance(data, (int, float)) and not isinstance(data, bool):
            return {cls.value_name(): data}
        return data

    @model_validator(mode="after")
    def _text_means_value(self) -> Self:
        """A text that says something else than the value would show one number and compute with another."""
        if self.text is not None and not _means(type(self), self.text, self.value):
            raise PydanticCustomError(
                "bad_input",
                "{problem}",
                {
                    "problem": f"“{self.text}” is not {self.value:g} {self.unit}.",
                    "remedy": "Give the text alone, or the number alone.",
                },
            )
        return self


class Length(Quantity):
    mm: float
    unit, noun, example = "mm", "length", "1.32 m, 132cm, 5 5/16 or 5' 4\""
    bare = {"metric": "mm", "imperial": "inch"}


class Speed(Quantity):
    m_s: float
    unit, noun, example = "m/s", "speed", "110 km/h or 70 mph"
    bare = {"metric": "km/h", "imperial": "mph"}


class Mass(Quantity):
    kg: float
    unit, noun, example = "kg", "mass", "21.5 kg or 47 lb"
    bare = {"metric": "kg", "imperial": "lb"}


class Power(Quantity):
    w: float
    unit, noun, example = "W", "power", "410 W"
    bare = {"metric": "W", "imperial": "W"}


class Temperature(Quantity):
    deg_c: float
    unit, noun, example = "°C", "temperature", "21 °C or 70 °F"
    bare = {"metric": "degC", "imperial": "degF"}


class Angle(Quantity):
    deg: float
    unit, noun, example = "°", "angle", "3.5° or 0.06 rad"
    bare = {"metric": "degree", "imperial": "degree"}


class Voltage(Quantity):
    v: float
    unit, noun, example = "V", "voltage", "37.2 V"
    bare = {"metric": "V", "imperial": "V"}


class Current(Quantity):
    a: float
    unit, noun, example = "A", "current", "10.6 A"
    bare = {"metric": "A", "imperial": "A"}


class Torque(Quantity):
    n_m: float
    unit, noun, example = "N·m", "torque", "8.2 N·m or 72 in·lb"
    bare = {"metric": "N*m", "imperial": "inch*lbf"}


class Pressure(Quantity):
    pa: float
    unit, noun, example = "Pa", "pressure", "2400 Pa or 50 psf"
    bare = {"metric": "Pa", "imperial": "psf"}


QUANTITIES: tuple[type[Quantity], ...] = (
    Length,
    Speed,
    Mass,
    Power,
    Temperature,
    Angle,
    Voltage,
    Current,
    Torque,
    Pressure,
)

_VULGAR = re.compile("[\u00bc-\u00be\u2150-\u215e]")
_THOUSANDS = re.compile(r"[+-]?[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?\s*(?P<unit>[a-z°/²\"']*)")
_LARGE_UNITS = ("m", "ft", "'", "foot", "feet", "km", "kg", "kw")
_NUMBER = r"\d+(?:\.\d+)?|\.\d+"
_FRACTION = rf"(?:(?P<whole>\d+)[ \-]+)?(?P<num>\d+)/(?P<den>\d+)|(?P<plain>{_NUMBER})"
_FEET_INCHES = re.compile(
    rf"(?P<sign>-?)(?P<feet>{_NUMBER})\s*(?:'|ft|feet|foot)\s*-?\s*(?:(?:{_FRACTION})\s*(?:\"|in|inch|inches)?)?"
)
_INCHES = re.compile(rf"(?P<sign>-?)(?:{_FRACTION})\s*(?P<unit>\"|in|inch|inches)?")
_GAUGE = re.compile(r"(?P<gauge>\d+)\s*(?:ga|gauge|gage)\.?\s*(?P<metal>[a-z]*)")
_PLAIN = re.compile(rf"(?P<number>[+-]?(?:{_NUMBER}))\s*(?P<unit>[a-z°/²]*(?:[·*-][a-z]+)?)")


def _parse(kind: type[Quantity], text: str, system: UnitSystem, field: str) -> float:
    clean = _normalise(text)
    if not clean:
        raise UnreadableQuantity(
            "Nothing was typed.", remedy=f"Type a {kind.noun} such as {kind.example}.", field=field
        )
    if len(clean) > LONGEST_TEXT:
        raise UnreadableQuantity(
            f"This is too long to be a {kind.noun}.",
            remedy=f"Type a {kind.noun} such as {kind.example}.",
            field=field,
        )
    value = _imperial_length(clean) if kind is Length else None
    if value is None:
        value = _with_unit(kind, clean, text, system, field)
    if not math.isfinite(value):
        raise UnreadableQuantity(
            f"“{text}” is not a finite {kind.noun}.", remedy=f"Type {kind.example}.", field=field
        )
    return value


@lru_cache(maxsize=8192)
def _means(kind: type[Quantity], text: str, value: float) -> bool:
    """Whether a kept text says this value; a kept text carries its unit, so the unit system does not
    matter.
    """
    for system in ("metric", "imperial"):
        try:
            said = _parse(kind, text, system, "")
        except InputError:
            return False
        if abs(said - value) <= max(TEXT_MEANS_WITHIN * abs(said), TEXT_MEANS_WITHIN_UNITS):
            return True
    return False


def _with_its_unit(kind: type[Quantity], text: str, system: UnitSystem) -> str:
    """A bare number is kept with the unit it was understood in, so that changing the job's units cannot
    change its meaning.
    """
    if re.fullmatch(r"[+-]?[\d.,]+", text):
        return f"{text} {SHOWN.get(kind.bare[system], kind.bare[system])}"
    return f'{text}"' if re.fullmatch(r"-?(\d+[ \-])?\d+/\d+", text) else text


def _normalise(text: str) -> str:
    clean = (
        _VULGAR.sub(lambda m: f" {unicodedata.normalize('NFKC', m[0])}", text.strip().lower())
        .replace("\u2044", "/")
        .strip()
    )
    for typed, plain in (
        ("′", "'"),
        ("’", "'"),
        ("″", '"'),
        ("”", '"'),
        ("“", '"'),
        ("''", '"'),
        ("−", "-"),
        ("º", "°"),
        ("\u00a0", " "),
    ):
        clean = clean.replace(typed, plain)
    # "1,32 m" is a decimal comma, "1,320" and "1,320 mm" a thousand; "1,320 m" could be either and is refused
    # further down
    if match := _THOUSANDS.fullmatch(clean):
        return clean if match["unit"] in _LARGE_UNITS else clean.replace(",", "")
    return re.sub(r"(?<=\d),(?=\d{1,2}(?!\d))", ".", clean)


def number_typed(text: str, field: str = "") -> float:
    """Read a plain number, without a unit, as people type it: with a decimal point or comma, thousands set
    apart. Raises UnreadableQuantity.
    """
    clean = re.sub(r"(?<=\d) (?=\d{3}(?!\d))", "", _normalise(text))
    if not re.fullmatch(rf"[+-]?(?:{_NUMBER})(?:e[+-]?\d{{1,2}})?", clean):
        raise UnreadableQuantity(
            f"“{text}” is not a number.", remedy="Type for example 12 or 38.50.", field=field
        )
    return float(clean)


def _mixed(match: re.Match[str]) -> Fraction:
    if match["plain"] is not None:
        return Fraction(match["plain"])
    if match["num"] is None:
        return Fraction(0)
    if int(match["den"]) == 0:
        raise UnreadableQuantity(
            "A fraction cannot have zero below the bar.", remedy="Type it again, for example 5 5/16."
        )
    return Fraction(match["whole"] or 0) + Fraction(int(match["num"]), int(match["den"]))


def _imperial_length(clean: str) -> float | None:
    """Feet and inches, fractions (always inches: nobody writes sixteenths of a millimetre) and sheet
    gauges.
    """
    if match := _GAUGE.fullmatch(clean):
        gauge = int(match["gauge"])
        return aluminium_gauge_mm(gauge) if match["metal"] in ALUMINIUM_WORDS else steel_gauge_mm(gauge)
    if match := _FEET_INCHES.fullmatch(clean):
        return float((Fraction(match["feet"]) * 12 + _mixed(match)) * Fraction("25.4")) * (
            -1 if match["sign"] else 1
        )
    match = _INCHES.fullmatch(clean)
    if match and (match["unit"] or match["num"]):
        return float(_mixed(match) * Fraction("25.4")) * (-1 if match["sign"] else 1)
    return None


def _with_unit(kind: type[Quantity], clean: str, text: str, system: UnitSystem, field: str) -> float:
    match = _PLAIN.fullmatch(clean)
    if match is None:
        raise UnreadableQuantity(
            f"“{text}” is not a {kind.noun}.", remedy=f"Type for example {kind.example}.", field=field
        )
    unit = ALIAS.get(match["unit"], match["unit"]) or kind.bare[system]
    factor = USUAL_UNITS[kind.unit].get(unit)
    if factor is not None:
        return float(match["number"]) * factor
    import pint  # the rest of the world's units

    try:
        quantity = _units().Quantity(float(match["number"]), unit)
        return float(quantity.to(PINT_UNIT[kind.unit]).magnitude)
    except (
        pint.UndefinedUnitError,
        pint.DimensionalityError,
        pint.OffsetUnitCalculusError,
        AttributeError,
        ValueError,
    ) as error:
        raise WrongUnit(
            f"“{match['unit']}” is not a unit of {kind.noun}.",
            remedy=f"Type for example {kind.example}.",
            field=field,
        ) from error
