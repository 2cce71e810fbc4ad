"""How tight every bolt of the roof goes, and what the wrench showed beside it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from fahrtwind.core.job.built import BuiltTorque
from fahrtwind.core.job.workshop import Bolting
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.build.bolts import BoltLine, tightening
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.tables.fasteners import BOLTS, PRELOAD_SHARE

WITHIN = 0.1
"""Of the torque that is wanted: wrenches are true to 6 % (ISO 6789), and a hand is none better."""
State = Literal["right", "loose", "tight", "too tight", "not planned"]


@dataclass(frozen=True, slots=True)
class TorqueWanted:
    """For the bolts of one joint of a holder. ``bolt``: size and joint; ``most_n_m``: beyond it the bolt, or
    the wall it squeezes, may have given way.
    """

    holder: str
    where: str
    bolt: str
    torque_n_m: float
    most_n_m: float
    gives: Literal["bolt", "wall"]
    frame: bool = False
    """Through a panel's frame: tightened once the panels lie."""


@dataclass(frozen=True, slots=True)
class TorqueFinding:
    """A reading of the wrench as it is judged; ``wanted_n_m``: None where the plan has no such bolt."""

    id: str
    holder: str
    where: str
    bolt: str
    read_n_m: float
    wanted_n_m: float | None
    gives: Literal["bolt", "wall"]
    state: State


def torques_wanted_of(
    holders: tuple[Holder, ...], bolts: tuple[BoltLine, ...], bolting: Bolting
) -> tuple[TorqueWanted, ...]:
    """Of carriers by their joints, of panels on feet by the bolt through the frame."""
    names = {h.id: h.name for h in holders}
    return (*_of_carriers(names, bolts), *_of_frames(holders, bolting))


def _of_carriers(names: dict[str, str], bolts: tuple[BoltLine, ...]) -> Iterator[TorqueWanted]:
    for line in bolts:
        wanted, gives = line.tight.torque_n_m, line.tight.set_by
        # where a wall sets it, the preload already leaves the wrench its scatter below the wall's limit
        most = wanted / PRELOAD_SHARE if gives == "bolt" else wanted * (1 + WITHIN)
        name = names.get(line.carrier, line.carrier)
        yield TorqueWanted(line.carrier, name, f"{line.size} {line.joint}"[:40], wanted, most, gives)


def _of_frames(holders: tuple[Holder, ...], bolting: Bolting) -> Iterator[TorqueWanted]:
    for holder in holders:
        if holder.path.startswith("panels.") and holder.feet and holder.hold.school != "outer_foot":
            size = holder.hold.bracket.frame_bolt
            wanted = tightening(BOLTS[size], bolting, None).torque_n_m
            bolt = f"{size} through the frame"
            yield TorqueWanted(holder.id, holder.name, bolt, wanted, wanted / PRELOAD_SHARE, "bolt", True)


def torques_of(read: tuple[BuiltTorque, ...], wanted: tuple[TorqueWanted, ...]) -> tuple[TorqueFinding, ...]:
    """Every reading beside what is wanted there."""
    by_bolt = {(w.holder, w.bolt): w for w in wanted}
    return tuple(_judged(one, by_bolt.get((one.holder, one.bolt))) for one in read)


def _judged(read: BuiltTorque, wanted: TorqueWanted | None) -> TorqueFinding:
    shown = read.torque.n_m
    if wanted is None:
        return TorqueFinding(read.id, read.holder, read.holder, read.bolt, shown, None, "bolt", "not planned")
    state: State = "right"
    if shown > wanted.most_n_m:
        state = "too tight"
    elif shown > wanted.torque_n_m * (1 + WITHIN):
        state = "tight"
    elif shown < wanted.torque_n_m * (1 - WITHIN):
        state = "loose"
    where, told = wanted.where, wanted.torque_n_m
    return TorqueFinding(read.id, read.holder, where, read.bolt, shown, told, wanted.gives, state)
