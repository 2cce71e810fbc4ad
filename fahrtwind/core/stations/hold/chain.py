"""The load path of a foot: frame, bracket, fastener or tape, skin or member. Each link with its strength."""

from __future__ import annotations

from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Holding
from fahrtwind.core.stations.hold.links import USUAL_BAY, Above, Bay, Chain, members_known
from fahrtwind.core.stations.hold.schools import school_of
from fahrtwind.core.stations.hold.schools.school import Ground
from fahrtwind.core.stations.layout.feet import Landing


def chain_of(
    vehicle: Vehicle,
    members: Members,
    hold: Holding,
    landing: Landing,
    on_side: bool = True,
    bay: Bay | None = None,
    above: Above | None = None,
) -> Chain:
    """The chain of a foot. The skin must be known (``skin_known``); members only where the foot lands in one.

    ``on_side``: the foot stands at a long side of the frame, so its row of fasteners, along the member, runs
    along the lever. ``bay``: where it stands on the skin, where that is known; ``above``: what it carries.
    """
    over_member = landing == "member" and members_known(members)
    between = None if over_member else bay or USUAL_BAY
    return school_of(hold).chain(hold, Ground(vehicle, members, between, on_side, above or Above()))
