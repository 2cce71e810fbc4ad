"""Foam tape: its pad in pull and in peel at the edge, and how soft it is."""

from __future__ import annotations

from fahrtwind.core.formulas.adhesive import (
    bond_share,
    crown_peel,
    foundation_share,
    hot_share,
    soft_foot_peak,
    tape_edge_strength,
    tape_stiffness,
    tape_strength,
)
from fahrtwind.core.formulas.brackets import in_series
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.job.panel import FoamTape
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
    cold = given(ft.TAPE_DESIGN_N_MM2 * ft.TAPE_FACTOR, "default", ft.TAPE_FACTOR_SOURCE)
    with scope("link tape", "hot"):
        nominal = cold * hot_share(chosen(hold.hottest.deg_c, "roof in the sun"))
    with scope("link tape"):
        bonded = max(float(bond_share(chosen(hold.dwell_h, "dwell"))), 1e-6)
        whole = tape_strength(nominal, *pad, bonded)
        spread = link(
            "tape",
            "tape, pull spread over the pad",
            (whole, ft.TAPE_FACTOR),
            (whole, ft.TAPE_FACTOR),
            source=ft.TAPE_SOURCE,
            confidence="common practice",
        )
    with scope("link tape edge"):
        off = chosen(max(hold.bracket.lever.mm, ft.TAPE_ECCENTRICITY_MM), "bracket lever, at least 5 mm")
        edge = min(
            float(tape_edge_strength(nominal, *pad, bonded, off)),
            float(whole) / float(soft_foot_peak(_beta(hold, ft.TAPE_MODULUS_N_MM2), pad[1])),
        )
        edge_link = link(
            "tape edge",
            "tape, peel at the pad's edge",
            (edge, ft.TAPE_FACTOR),
            (whole, ft.TAPE_FACTOR),
            source=ft.TAPE_SOURCE,
            confidence="common practice",
        )
    return [spread, edge_link]


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
    if hold.shaped != "flat":
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
            given(ft.TAPE_MODULUS_N_MM2, "default", "judgement"),
            chosen(length, "pad length under the base"),
            chosen(width, "pad width under the base"),
            chosen(hold.thickness.mm, "tape thickness"),
        )
        return float(in_series(spring, base))
