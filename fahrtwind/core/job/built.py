"""What was really built, where it differs from the plan or was measured."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.part import Identifier, Part, Word

Pilot = Literal["solid", "through"]
Solved = Literal["bracket", "frame"]


class BuiltFoot(Part):
    """A foot as it is on the roof. ``holder``: the panel, carrier or tether it belongs to; ``foot_x``,
    ``foot_y``: where its middle was planned; ``mark_x``, ``mark_y``: the planned mark that was measured, and
    ``x``, ``y`` where that one really is, blank where nobody measured; ``pilot``: what the pilot hole met;
    ``solved``: what was drilled anew so that it goes together.
    """

    id: Identifier
    holder: Identifier
    foot: Identifier
    foot_x: q.Along
    foot_y: q.Across
    mark_x: q.Along
    mark_y: q.Across
    x: q.Along | None = None
    y: q.Across | None = None
    pilot: Pilot | None = None
    solved: Solved | None = None

    @property
    def off_x_mm(self) -> float:
        """How far aft of its plan it is, mm; 0 where nobody measured."""
        return 0.0 if self.x is None else self.x.mm - self.mark_x.mm

    @property
    def off_y_mm(self) -> float:
        """How far to starboard of its plan it is, mm."""
        return 0.0 if self.y is None else self.y.mm - self.mark_y.mm


class BuiltTorque(Part):
    """What the wrench showed. ``holder``: the carrier or panel whose bolts they are; ``bolt``: their size."""

    id: Identifier
    holder: Identifier
    bolt: Word
    torque: q.Tightened


class Built(Part):
    """At most one entry for a foot, and of the torque of a holder's bolts of one size: the last word counts,
    the log keeps the others.
    """

    feet: Annotated[tuple[BuiltFoot, ...], Field(max_length=400)] = ()
    torques: Annotated[tuple[BuiltTorque, ...], Field(max_length=200)] = ()

    @model_validator(mode="after")
    def _one_for_a_foot(self) -> Built:
        seen: set[tuple[str, str]] = set()
        for foot in self.feet:
            if (foot.holder, foot.foot) in seen:
                told = {
                    "problem": f"Foot {foot.foot} of {foot.holder} is recorded twice.",
                    "remedy": "Correct the entry that is there.",
                }
                raise PydanticCustomError("out_of_range", "{problem}", told)
            seen.add((foot.holder, foot.foot))
        return self
