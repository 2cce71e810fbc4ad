"""Feet of posts on the vehicle's gutters or its chassis: beside the roof, with no hole in it."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.job.panel import Holding, OuterFoot
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.hold.schools.outer_foot.chain import chain
from fahrtwind.core.stations.hold.schools.school import Mark, Needed, School, Task
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.layout.holders import Holder

PIECE = {"gutter": "gutter clamp with its rating", "chassis": "chassis bracket with its rating"}


def usual(_units: UnitSystem) -> Holding:
    return OuterFoot()


def marks(_first: int, _plan: RoofPlan, _holder: Holder, _place: FootPlace, _sealant: str) -> list[Mark]:
    """Nothing is drilled and nothing stuck."""
    return []


def needs(hold: OuterFoot, feet: int, _units: UnitSystem) -> Iterator[Needed]:
    yield Needed(PIECE[hold.on], feet, note="beside the roof")
    yield Needed("rubber strip between clamp and paint", feet)
    yield Needed(f"stainless bolt {hold.bolt} with lock nut, post to its foot", 2 * feet)


def tasks(_plan: RoofPlan, count: int, _under: str) -> list[Task]:
    """Standing the frame up and tightening it."""
    return [
        Task(
            "stand",
            "Stand the posts on their feet, all nuts loose",
            "Clean the metal under each foot, rubber between. A line or a second person holds the frame.",
            "Diagonals agree; every foot sits on its whole face.",
            count=max(1, count),
        ),
        Task(
            "snug",
            "Tighten feet first, then the joints from below upward",
            "By the torque of the foot's maker; a gutter bends long before its clamp does.",
            "A hand on every corner moves nothing. Again after 50 km and after 500 km.",
            count=max(1, count),
        ),
    ]


SCHOOL = School("outer_foot", False, usual, chain, marks, needs, tasks, marked=False)
