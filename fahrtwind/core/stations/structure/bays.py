"""How strong the roof is between its members: how soft the skin, whether it drums, what may be fastened
there.
"""

from __future__ import annotations

from typing import Literal

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.plates import plate_stiffness, skin_frequency, skin_spring
from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.views import OnRoof
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.structure.members import Member
from fahrtwind.core.stations.survey.access import open_from_inside
from fahrtwind.core.tables.skins import SKIN_ELASTICITY

EDGE_MM = 5.0
SOFT_N_MM, FIRM_N_MM = 20.0, 100.0
"""Below the first the skin gives under a thumb, above the second it hardly does: judgement."""
DRUMS_BELOW_HZ = 25.0
"""Slipstream and engine excite a roof up to about there: judgement."""
THIN_FOR_BLIND_MM = 1.0

Way = Literal["member", "bridge", "through-bolt with large washer", "blind fastener", "plain screws"]


@dataclass(frozen=True, slots=True)
class Fastening:
    """One way to fasten at a spot: rank 1 is best; None is refused here."""

    way: Way
    rank: int | None
    why: str


@dataclass(frozen=True, slots=True)
class Spot:
    """A spot on the roof. ``share`` is how far into the bay it is, 0.5 the middle; stiffness None over a
    member or unknown.
    """

    x_mm: float
    member_before: int | None
    member_behind: int | None
    nearest_mm: float | None
    share: float | None
    stiffness_n_mm: float | None
    frequency_hz: float | None
    drumming: Literal["none", "some", "strong", "unknown"]
    ranking: tuple[Fastening, ...]


def judge_spot(roof: OnRoof, ribs: Members, members: tuple[Member, ...], x_mm: float) -> Spot:
    """What the roof is like at ``x_mm`` and what may be fastened there."""
    before = max((m for m in members if m.x_mm <= x_mm), key=lambda m: m.x_mm, default=None)
    behind = min((m for m in members if m.x_mm > x_mm), key=lambda m: m.x_mm, default=None)
    nearest = min((abs(m.x_mm - x_mm) for m in (before, behind) if m is not None), default=None)
    face = ribs.face_width.mm / 2 if ribs.face_width else None
    over_member = nearest is not None and face is not None and nearest <= face
    share = stiffness = frequency = None
    if before is not None and behind is not None:
        share = (x_mm - before.x_mm) / (behind.x_mm - before.x_mm)
        if not over_member:
            with scope("structure", f"bay {before.number}"):
                stiffness, frequency = _skin(roof.vehicle, behind.x_mm - before.x_mm, x_mm - before.x_mm)
    return Spot(
        x_mm,
        before.number if before else None,
        behind.number if behind else None,
        nearest,
        share,
        stiffness,
        frequency,
        _drumming(over_member, stiffness, frequency),
        _ranking(roof, x_mm, over_member, share, stiffness),
    )


def _skin(vehicle: Vehicle, bay_mm: float, at_mm: float) -> tuple[float | None, float | None]:
    part = vehicle.ply_thickness if vehicle.skin == "membrane" else vehicle.skin_thickness
    if vehicle.skin is None or part is None:
        return None, None
    made_of = SKIN_ELASTICITY[vehicle.skin]
    table = made_of.source
    stiffness = plate_stiffness(
        given(made_of.modulus_n_mm2, "table", table),
        given(part.mm, "measured", "skin thickness"),
        given(made_of.poisson, "table", table),
    )
    bay = given(bay_mm, "inferred", "members on both sides")
    spring = skin_spring(stiffness, bay, given(min(max(at_mm, EDGE_MM), bay_mm - EDGE_MM), "chosen", "spot"))
    frequency = skin_frequency(stiffness, bay, given(made_of.density_kg_m3 * part.mm / 1000, "table", table))
    return float(spring), float(frequency)


def _drumming(
    over_member: bool, stiffness: float | None, frequency: float | None
) -> Literal["none", "some", "strong", "unknown"]:
    if over_member:
        return "none"
    if stiffness is None or frequency is None:
        return "unknown"
    if stiffness < SOFT_N_MM and frequency < DRUMS_BELOW_HZ:
        return "strong"
    return "some" if stiffness < FIRM_N_MM else "none"


def _ranking(
    roof: OnRoof, x_mm: float, over_member: bool, share: float | None, stiffness: float | None
) -> tuple[Fastening, ...]:
    """Common practice: member, then bridge, then through-bolt, then blind fastener; plain screws in skin are
    refused.
    """
    soft = stiffness is not None and stiffness < SOFT_N_MM
    ways: list[tuple[Way, str | None, str]] = [
        (
            "member",
            None if over_member else "no member under this spot",
            "the strongest: each hole sealed, nothing drums",
        ),
        (
            "bridge",
            None if share is not None else "needs a member on both sides",
            "a bar or rail from member to member carries the foot",
        ),
        _through(roof, x_mm, soft),
        _blind(roof, soft),
        (
            "plain screws",
            "plain screws in bare skin work loose on the road" if not over_member else None,
            "full thread in the member",
        ),
    ]
    ranked, rank = [], 0
    for way, refused, good in ways:
        rank += refused is None
        ranked.append(Fastening(way, rank if refused is None else None, refused or good))
    return tuple(ranked)


def _through(roof: OnRoof, x_mm: float, soft: bool) -> tuple[Way, str | None, str]:
    way: Way = "through-bolt with large washer"
    opened = open_from_inside(roof.vehicle, roof.survey, x_mm)
    if opened is None:
        return way, "nobody has looked whether the inside is open here", ""
    if not opened:
        return way, "the inside is finished here: no nut can be set", ""
    return way, None, "with a backing plate: the skin is soft here" if soft else "large washers below"


def _blind(roof: OnRoof, soft: bool) -> tuple[Way, str | None, str]:
    skin = roof.vehicle.skin
    part = roof.vehicle.ply_thickness if skin == "membrane" else roof.vehicle.skin_thickness
    if part is None or skin is None:
        return "blind fastener", "the skin's thickness is not known", ""
    if skin == "membrane":
        return (
            "blind fastener",
            "ply on trusses holds rubber sleeve nuts only from 12 mm on" if part.mm < 12 else None,
            "rubber sleeve nuts",
        )
    if part.mm < THIN_FOR_BLIND_MM:
        return "blind fastener", f"skin under {THIN_FOR_BLIND_MM:g} mm", ""
    return (
        "blind fastener",
        "the skin is too soft in mid-bay" if soft else None,
        "expands behind the skin; the weakest that is allowed",
    )
