"""How a strip of bracket bends in this workshop."""

from __future__ import annotations

from fahrtwind.core.formulas.bending import bend_length, neutral_line, spring_back, tool_angle
from fahrtwind.core.formulas.declare import given
from fahrtwind.core.job.panel import Bracket
from fahrtwind.core.tables.materials import BRACKET_METALS

INSIDE_RADII = {"aluminium": 2.0, "stainless": 1.0}
"""Inside radius over thickness at which a strip does not crack: common practice; its sheet decides."""
MODULUS = {"aluminium": 70_000.0, "stainless": 200_000.0}


def inside_mm(bracket: Bracket) -> float:
    return INSIDE_RADII[bracket.metal] * bracket.thickness.mm


def arc_mm(bracket: Bracket, angle_deg: float) -> float:
    """How long a bend is on the flat strip."""
    r, t = _sizes(bracket)
    return float(bend_length(given(angle_deg, "chosen", "bend"), r, t, neutral_line(r, t)))


def tool_deg(bracket: Bracket, angle_deg: float) -> float:
    """How far the tool has to go for an angle that stays."""
    r, t = _sizes(bracket)
    metal = BRACKET_METALS[bracket.metal]
    yields = given(metal.yield_n_mm2, "table", metal.source)
    ratio = spring_back(r, t, yields, given(MODULUS[bracket.metal], "table", metal.source))
    return float(tool_angle(given(angle_deg, "chosen", "bend"), r, t, ratio))


def _sizes(bracket: Bracket) -> tuple[float, float]:
    return given(inside_mm(bracket), "default", "inside radius"), given(
        bracket.thickness.mm, "chosen", "strip"
    )
