"""Who stands on the roof: panels on feet of their own, and carriers on theirs."""

from __future__ import annotations

from dataclasses import dataclass

from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Members
from fahrtwind.core.job.panel import Attachment, PlacedPanel
from fahrtwind.core.stations.layout.feet import FootPlace, landing_of
from fahrtwind.core.stations.structure.members import Member


@dataclass(frozen=True, slots=True)
class Holder:
    """Something with feet on the roof, and how they hold. ``path`` is its job path."""

    id: str
    name: str
    path: str
    hold: Attachment
    feet: tuple[FootPlace, ...]

    def place(self, foot: FootPlace) -> str:
        """The job path at which a foot is changed: a carrier sets its feet by itself."""
        return f"{self.path}.feet.{foot.foot}" if self.path.startswith("panels") else self.path


def holders_of(
    panels: tuple[PlacedPanel, ...], carriers: tuple[Carrier, ...], feet: tuple[FootPlace, ...]
) -> tuple[Holder, ...]:
    """Panels that lie on no carrier, and all carriers, each with its feet."""
    standing = [p for p in panels if p.carrier is None]
    return (
        *(Holder(p.id, p.name, f"panels.{p.id}", p.hold, _own(feet, p.id)) for p in standing),
        *(Holder(c.id, c.name, f"carriers.{c.id}", c.hold, _own(feet, c.id)) for c in carriers),
    )


def _own(feet: tuple[FootPlace, ...], holder: str) -> tuple[FootPlace, ...]:
    return tuple(f for f in feet if f.panel == holder)


def carrier_feet(carrier: Carrier, ribs: Members, members: tuple[Member, ...]) -> tuple[FootPlace, ...]:
    """A foot under each rail at every so many members between its ends, the first and the last always."""
    under = [m for m in members if carrier.start.mm <= m.x_mm <= carrier.end.mm]
    kept = [m for i, m in enumerate(under) if i % carrier.every == 0 or i == len(under) - 1]
    return tuple(
        FootPlace(
            panel=carrier.id,
            foot=f"{rail.id}m{member.number}",
            x_mm=member.x_mm,
            y_mm=rail.y.mm,
            along_mm=member.x_mm - carrier.start.mm,
            moved_mm=0.0,
            member=member.number,
            off_mm=0.0,
            landing=landing_of(ribs, carrier.hold, member.x_mm, member),
            side="port" if rail.y.mm < 0 else "starboard",
        )
        for rail in carrier.rails
        for member in kept
    )
