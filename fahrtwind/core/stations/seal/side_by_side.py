"""The ways to seal beside one another: what each takes, and how long it keeps the roof."""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.sealing import Seal
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.seal.amounts import amounts_at_once
from fahrtwind.core.stations.seal.choice import choice_of, kinds_of
from fahrtwind.core.stations.seal.cure import cure_of
from fahrtwind.core.stations.seal.places import SealPlace

MINUTES_TRIM, MINUTES_PLACE = 2.0, 4.0
"""A place to bed and bead, and to trim two days later: common practice, no source."""


@dataclass(frozen=True, slots=True)
class SealWay:
    """``ready_days``: until the slowest layer has cured or was trimmed; ``refused``: why it does not bond
    here, empty where it does.
    """

    under: Literal["tape", "wet"]
    edge: Literal["leave", "trim"]
    chosen: bool
    with_what: str
    volume_ml: float
    tape_mm: float
    hours: float
    ready_days: float
    visits: int
    refused: str


def ways_of(places: tuple[SealPlace, ...], vehicle: Vehicle, seal: Seal) -> tuple[SealWay, ...]:
    """Tape or wet sealant below, squeeze-out left or trimmed; families as chosen where they suit the way."""
    plates = [p for p in places if p.kind not in ("open tube", "factory thread", "cable clip")]
    if not plates:
        return ()
    told = []
    # a patch lies open until it is covered: it does not cure from its edges
    widest = max((min(p.plate_long_mm, p.plate_wide_mm) for p in plates if p.kind != "scar"), default=0.0)
    ways: tuple[tuple[Literal["tape", "wet"], Literal["leave", "trim"]], ...] = (
        ("tape", "leave"),
        ("tape", "trim"),
        ("wet", "leave"),
    )
    for under, edge in ways:
        own = under == seal.under
        way = seal.model_copy(
            update={"under": under, "edge": edge, "under_with": seal.under_with if own else None}
        )
        choice = choice_of(vehicle, way)
        kinds = kinds_of(vehicle, way, tuple(dict.fromkeys(p.kind for p in places)))
        amounts = amounts_at_once(places, kinds)
        cure = cure_of(way, choice, widest)
        slowest = max(cure.fillet_h.most, cure.under_h.most if cure.under_h else 0.0, cure.trim_h or 0.0)
        trims = MINUTES_TRIM * sum(p.count for p in plates) if edge == "trim" else 0.0
        refused = next((b.why for b in (choice.under_bond, choice.round_bond) if b.bond == "refused"), "")
        told.append(
            SealWay(
                under,
                edge,
                own and edge == seal.edge,
                f"{choice.under.name}, {choice.round.name}",
                sum(a.volume_ml for a in amounts),
                sum(a.tape_mm for a in amounts),
                (MINUTES_PLACE * sum(p.count for p in plates) + trims) / 60,
                slowest / 24,
                2 if edge == "trim" else 1,
                refused,
            )
        )
    return tuple(told)
