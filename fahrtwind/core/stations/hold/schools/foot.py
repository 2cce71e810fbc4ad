"""The chain of a foot under a bracket: what is above the roof, what is below, the skin between members."""

from __future__ import annotations

from fahrtwind.core.formulas.declare import scope
from fahrtwind.core.job.panel import Bracket
from fahrtwind.core.stations.hold.links import Above, Chain, Link, bracket_link, frame_link, skin_link, tipped
from fahrtwind.core.stations.hold.schools.school import Ground


def clamped(bracket: Bracket, above: Above) -> list[Link]:
    """The links above the roof, alike for every school: the panel's frame and the bracket."""
    with scope("link frame"):
        links = [frame_link(bracket, above)]
    with scope("link bracket"):
        return [*links, bracket_link(bracket, above)]


def chain_over(
    ground: Ground, bracket: Bracket, below: list[Link], pressed_mm: float, stiffness: tuple[float, float]
) -> Chain:
    """Frame and bracket, what is below them and tips with the base, and the skin where no member is under it.

    ``pressed_mm``: radius of what presses on the skin; ``stiffness``: softest and stiffest, N/mm.
    """
    links = clamped(bracket, ground.above)
    for held in below:
        with scope(f"link {held.id}", "tipping"):
            links.append(tipped(held, bracket, ground.above.height_mm))
    if ground.bay is not None:
        with scope("link skin"):
            links.append(skin_link(ground.vehicle, ground.bay, pressed_mm))
    return Chain(tuple(links), *stiffness)
