"""Foam tape: its pad in pull and in peel at the edge, and how soft it is."""

from __future__ import annotations

from fahrtwind.core.formulas.adhesive import (
    bond_share,
    crown_peel,
    cured_share,
    foundation_share,
    hot_share,
    soft_foot_peak,
    tape_edge_strength,
    tape_stiffness,
    tape_strength,
)
from fahrtwind.core.formulas.brackets import in_series
from fahrtwind.core.formulas.declare import Number, given, scope
from fahrtwind.core.job.panel import FoamTape
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.links import Chain, Link, chosen, link, stiffness_ends
from fahrtwind.core.stations.hold.schools.foot import chain_over
from fahrtwind.core.stations.hold.schools.school import Ground
from fahrtwind.core.tables import feet as ft


def chain(hold: FoamTape, ground: Ground) -> Chain:
    soft, stiff = (_tape_spring(hold, end) for end in stiffness_ends(ground.vehicle, ground.bay))
    return chain_over(ground, hold.bracket, _tape(hold), min(bonded_pad_mm(hold)) / 2, (soft, stiff))


def bonded_pad_mm(hold: FoamTape) -> tuple[float, float]:
    """Length and width of the pad that the base presses onto the roof: what hangs out of the base bonds to
    nothing that carries.
    """
    return min(hold.pad_length.mm, hold.bracket.length.mm), min(hold.pad_width.mm, hold.bracket.base_mm)


def _tape(hold: FoamTape) -> list[Link]:
    length, width = bonded_pad_mm(hold)
    pad = (chosen(length, "pad length under the base"), chosen(width, "pad width under the base"))
    bond = _bond(hold)
    with scope("link tape", "hot"):
        nominal = bond.cold * hot_share(chosen(hold.hottest.deg_c, "roof in the sun"))
    with scope("link tape"):
        bonded = _bonded(hold)
        whole = tape_strength(nominal, *pad, bonded)
        spread = link(
            "tape",
            f"{bond.word}, pull spread over the pad",
            (whole, bond.factor),
            (whole, bond.factor),
            source=bond.source,
            confidence="common practice",
        )
    with scope("link tape edge"):
        off = chosen(max(hold.bracket.lever.mm, ft.TAPE_ECCENTRICITY_MM), "bracket lever, at least 5 mm")
        edge = min(
            float(tape_edge_strength(nominal, *pad, bonded, off)),
            float(whole) / float(soft_foot_peak(_beta(hold, bond.modulus_n_mm2), pad[1])),
        )
        edge_link = link(
            "tape edge",
            f"{bond.word}, peel at the pad's edge",
            (edge, bond.factor),
            (whole, bond.factor),
            source=bond.source,
            confidence="common practice",
        )
    return [spread, edge_link]


@dataclass(frozen=True, slots=True)
class _Bond:
    """What a layer bears when cold, with its factor, in N/mm²; how soft it is."""

    word: str
    cold: Number
    factor: float
    modulus_n_mm2: float
    source: str


def _bond(hold: FoamTape) -> _Bond:
    glued = hold.bond == "adhesive"
    design = ft.ADHESIVE_DESIGN_N_MM2 if glued else ft.TAPE_DESIGN_N_MM2
    factor = ft.ADHESIVE_FACTOR if glued else ft.TAPE_FACTOR
    source = ft.ADHESIVE_SOURCE if glued else ft.TAPE_SOURCE
    cold = given(design * factor, "default", ft.ADHESIVE_SOURCE if glued else ft.TAPE_FACTOR_SOURCE)
    if hold.bears_kpa is not None:
        cold, source = chosen(hold.bears_kpa / 1000 * factor, "maker's design stress"), "the maker's sheet"
    if not glued:
        return _Bond("tape", cold, factor, ft.TAPE_MODULUS_N_MM2, source)
    return _Bond("adhesive", cold, factor, ft.ADHESIVE_MODULUS_N_MM2 * hold.filled, source)


def _bonded(hold: FoamTape) -> float:
    """Share of the pad's area that bonds by the end of the wait, as a ratio."""
    wait = chosen(hold.dwell_h, "dwell")
    if hold.bond == "foam tape":
        return max(float(bond_share(wait)), 1e-6)
    deep = given(ft.ADHESIVE_DEPTH_MM, "default", "cured in a day, the slow end")
    cured = float(cured_share(wait, deep, chosen(hold.bead.mm, "width of a bead")))
    return max(cured * hold.filled, 1e-6)


def _beta(hold: FoamTape, foam_n_mm2: float) -> float:
    """Foam against the foot's base, 1/mm."""
    metal = hold.bracket.metal
    return float(
        foundation_share(
            given(foam_n_mm2, "default", "foam: judgement"),
            chosen(hold.thickness.mm, "tape thickness"),
            given(ft.BASE_MODULUS_N_MM2[metal], "table", metal),
            chosen(hold.bracket.thickness.mm, "thickness of the base"),
        )
    )


def permanent_peel_n_mm2(hold: FoamTape, radius_mm: float) -> float:
    """What a flat foot forced onto the roof's curve leaves at its edge for good; 0 where it is shaped."""
    if hold.shaped != "flat" or hold.bond == "adhesive":  # a wet bead takes the roof's shape
        return 0.0
    return float(
        crown_peel(
            given(ft.TAPE_RELAXED_N_MM2, "default", "foam, relaxed: judgement"),
            chosen(hold.thickness.mm, "tape thickness"),
            _beta(hold, ft.TAPE_RELAXED_N_MM2),
            chosen(bonded_pad_mm(hold)[1], "pad width under the base"),
            given(radius_mm, "inferred", "radius of the roof at the foot"),
        )
    )


def _tape_spring(hold: FoamTape, base: float) -> float:
    with scope("stiffness"):
        length, width = bonded_pad_mm(hold)
        spring = tape_stiffness(
            given(_bond(hold).modulus_n_mm2, "default", "judgement"),
            chosen(length, "pad length under the base"),
            chosen(width, "pad width under the base"),
            chosen(hold.thickness.mm, "tape thickness"),
        )
        return float(in_series(spring, base))
