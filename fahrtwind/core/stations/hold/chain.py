"""The load path of a foot: frame, bracket, fastener or tape, skin or member. Each link with its strength."""

from __future__ import annotations

from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.panel import Attachment
from fahrtwind.core.stations.hold.links import Chain, members_known
from fahrtwind.core.stations.hold.schools import school_of
from fahrtwind.core.stations.hold.schools.school import Ground
from fahrtwind.core.stations.layout.feet import Landing


def chain_of(
    vehicle: Vehicle, members: Members, hold: Attachment, landing: Landing, on_side: bool = True
) -> Chain:
    """The chain of a foot. The skin must be known (``skin_known``); members only where the foot lands in one.

    ``on_side``: the foot stands at a long side of the frame, so its row of fasteners, along the member, runs
    along the lever.
    """
    into_member = landing == "member" and members_known(members)
    return school_of(hold).chain(hold, Ground(vehicle, members, into_member, on_side))
