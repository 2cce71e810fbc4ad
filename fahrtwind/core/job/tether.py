"""What catches a panel when its own feet let go: a rope, a strap or a bolted plate from its frame to an
anchor of its own.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fahrtwind.core.job import quantity_ranges as q
from fahrtwind.core.job.panel import Attachment, Side, ThroughBolts
from fahrtwind.core.job.part import Identifier, Name, Part
from fahrtwind.core.quantities import Length
from fahrtwind.core.tables.alloys import AlloyName


class WireRope(Part):
    """Stainless wire rope of seven strands of seven wires. ``ends``: how its loops are closed."""

    kind: Literal["rope"] = "rope"
    diameter: q.Small = Length(mm=4)
    ends: Literal["swaged", "grips"] = "swaged"


class Strap(Part):
    """Woven strap. ``breaks_n``: its strength by its maker, blank where nobody says; ``gives``: how much of
    its length it gives at that load, per cent.
    """

    kind: Literal["strap"] = "strap"
    breaks_n: Annotated[float, Field(ge=200, le=100_000)] | None = None
    gives: Annotated[float, Field(ge=1, le=60)] = 12.0


class Plate(Part):
    """A strip of metal, bolted at both ends."""

    kind: Literal["plate"] = "plate"
    width: q.Small = Length(mm=30)
    thickness: q.Sheet = Length(mm=2)
    alloy: AlloyName = "1.4301"


Line = Annotated[WireRope | Strap | Plate, Field(discriminator="kind")]


class Tether(Part):
    """A line from a hole in a panel's frame to an anchor on the roof. ``along``: on that ``side`` from the
    frame's front (or port) end; ``out``: anchor beyond the frame. Unless it is ``pinned`` the anchor snaps
    to a member.

    ``length``: of what stretches, blank where it is cut to fit; ``slack``: how far the frame can rise there
    before the line is tight; ``hold``: how the anchor is held to the roof.
    """

    id: Identifier
    name: Name
    panel: Identifier
    side: Side
    along: q.Along
    pinned: bool = False
    out: q.Gap = Length(mm=50)
    line: Line = WireRope()
    length: q.Size | None = None
    slack: q.Gap = Length(mm=1)
    hold: Attachment = ThroughBolts()
