"""The line format of instruments: one JSON object a line, checked before anything is believed."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError, model_validator

from fahrtwind.core.quantities import printable

InstrumentKind = Literal["torque", "skin temperature", "humidity", "angle", "volts"]
UNITS: dict[InstrumentKind, tuple[str, float, float]] = {
    "torque": ("N·m", 0.0, 500.0),
    "skin temperature": ("°C", -60.0, 150.0),
    "humidity": ("%", 0.0, 100.0),
    "angle": ("°", -180.0, 180.0),
    "volts": ("V", -1500.0, 1500.0),
}
"""The unit of each kind, the least and the most that is believed."""
LONGEST_LINE = 500


class Reading(BaseModel):
    """A line as an instrument sends it; ``value`` in the unit of its kind."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True)

    instrument: Annotated[str, Field(min_length=1, max_length=40), AfterValidator(printable)]
    kind: InstrumentKind
    value: float
    unit: str

    @model_validator(mode="after")
    def _believable(self) -> Reading:
        unit, least, most = UNITS[self.kind]
        if self.unit != unit:
            raise ValueError(f"{self.kind} is told in {unit}")
        if not least <= self.value <= most:
            raise ValueError(f"{self.kind} lies between {least:g} and {most:g} {unit}")
        return self

    @property
    def words(self) -> str:
        """As it goes into a box: three places at most."""
        return f"{self.value:.3g} {self.unit}" if abs(self.value) < 100 else f"{self.value:.0f} {self.unit}"


def parse(line: bytes) -> Reading | str:
    """A reading, or in words why the line is none."""
    if len(line) > LONGEST_LINE:
        return f"a line of over {LONGEST_LINE} bytes"
    try:
        return Reading.model_validate_json(line)
    except (ValidationError, ValueError) as error:
        first = error.errors()[0]["msg"] if isinstance(error, ValidationError) else str(error)
        return first[:200]
