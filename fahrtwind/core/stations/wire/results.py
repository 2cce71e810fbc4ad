"""What is told of a controller: how it is plugged, its limits, which fuse serves."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.wire.band import Band
from fahrtwind.core.stations.wire.limit import Limit
from fahrtwind.core.stations.wire.limits import fuse_for, needs_fuse
from fahrtwind.core.stations.wire.strings import Array


@dataclass(frozen=True, slots=True)
class ControllerFinding:
    """``words``: 2s3p; ``fuse``: from which size to which one in each string serves, None where none does or
    none is needed.
    """

    controller: str
    name: str
    words: str
    power_w: float
    limits: tuple[Limit, ...]
    fuse_needed: bool
    fuse: Band | None

    @classmethod
    def of(cls, array: Array, limits: tuple[Limit, ...], code: Literal["NEC", "IEC"]) -> ControllerFinding:
        """Of a controller and what was found about it."""
        several = len(array.strings) > 1
        watts = sum(p.model.power.w for s in array.strings for p in s.panels)
        return cls(
            array.controller.id,
            array.controller.name,
            array.words,
            watts,
            limits,
            several and needs_fuse(array),
            fuse_for(array, code) if several else None,
        )
