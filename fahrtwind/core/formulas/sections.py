"""Sections of bars and rails, and what bends them."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

STRENGTH = Source("Section properties (strength of materials)")
HeightArg = Annotated[Number, Arg("h", "mm", "height", 3, 150)]
WidthArg = Annotated[Number, Arg("b", "mm", "width", 3, 150)]
WallArg = Annotated[Number, Arg("t", "mm", "wall", 0.3, 12)]
DiameterArg = Annotated[Number, Arg("D", "mm", "diameter", 5, 150)]


@formula(
    title="second moment of a rectangular tube",
    symbol="I",
    expression="I = (b·h³ − (b − 2·t)·(h − 2·t)³) / 12",
    unit="mm⁴",
    source=STRENGTH,
)
def tube_inertia(height_mm: HeightArg, width_mm: WidthArg, wall_mm: WallArg) -> Number:
    inner = max(width_mm - 2 * wall_mm, 0.0) * max(height_mm - 2 * wall_mm, 0.0) ** 3
    return (width_mm * height_mm**3 - inner) / 12


@formula(
    title="second moment of a round tube",
    symbol="I",
    expression="I = π · (D⁴ − (D − 2·t)⁴) / 64",
    unit="mm⁴",
    source=STRENGTH,
)
def round_inertia(diameter_mm: DiameterArg, wall_mm: WallArg) -> Number:
    return 3.141592653589793 * (diameter_mm**4 - max(diameter_mm - 2 * wall_mm, 0.0) ** 4) / 64


@formula(
    title="torsion constant of a rectangular tube",
    symbol="J",
    expression="J = 2 · t · (h − t)² · (b − t)² / (h + b − 2·t)",
    unit="mm⁴",
    source=Source("Bredt: 4·A_m²·t / s_m round the middle of the wall (strength of materials)"),
)
def tube_torsion(height_mm: HeightArg, width_mm: WidthArg, wall_mm: WallArg) -> Number:
    h, b = max(height_mm - wall_mm, 0.0), max(width_mm - wall_mm, 0.0)
    return 2 * wall_mm * h**2 * b**2 / max(h + b, 1e-9)


@formula(
    title="torsion constant of an open section",
    symbol="J",
    expression="J = s · t³ / 3",
    unit="mm⁴",
    source=Source("Thin open walls, Σ b·t³/3 (strength of materials)"),
)
def open_torsion(
    developed_mm: Annotated[Number, Arg("s", "mm", "length of the wall along its middle", 3, 600)],
    wall_mm: WallArg,
) -> Number:
    return developed_mm * wall_mm**3 / 3


@formula(
    title="second moment of an equal angle that may move sideways",
    symbol="I_eff",
    expression="I_eff = (I_x² − I_xy²) / I_x, both about the centroid of two rectangles",
    unit="mm⁴",
    source=Source(
        "Unsymmetrical bending, loaded along a leg and free to move sideways (strength of materials)"
    ),
)
def angle_inertia(leg_mm: Annotated[Number, Arg("a", "mm", "leg", 3, 150)], wall_mm: WallArg) -> Number:
    a, t = leg_mm, wall_mm
    about, mixed = _angle_moments(a, t)
    return (about**2 - mixed**2) / about


def angle_centroid_mm(leg_mm: float, wall_mm: float) -> float:
    """From the outer face of a leg to the centroid of an equal angle, mm."""
    return (leg_mm**2 + leg_mm * wall_mm - wall_mm**2) / (2 * (2 * leg_mm - wall_mm))


def _angle_moments(a: float, t: float) -> tuple[float, float]:
    """Second moment about an axis along a leg and mixed moment of an equal angle at its centroid, mm⁴."""
    c = angle_centroid_mm(a, t)
    level, upright = a * t, (a - t) * t  # the level leg whole, the upright one above it
    about = (
        a * t**3 / 12 + level * (c - t / 2) ** 2 + t * (a - t) ** 3 / 12 + upright * ((a + t) / 2 - c) ** 2
    )
    mixed = level * (a / 2 - c) * (t / 2 - c) + upright * (t / 2 - c) * ((a + t) / 2 - c)
    return about, mixed


@formula(
    title="second moment of a channel about its level axis",
    symbol="I",
    expression="I = Σ (b·h³/12 + A·e²) of its back and its two flanges",
    unit="mm⁴",
    source=STRENGTH,
)
def channel_inertia(height_mm: HeightArg, width_mm: WidthArg, wall_mm: WallArg) -> Number:
    t, flange = wall_mm, max(height_mm - wall_mm, 0.0)
    back, sides = width_mm * t, 2 * flange * t
    c = channel_centroid_mm(height_mm, width_mm, wall_mm)
    own = width_mm * t**3 / 12 + 2 * t * flange**3 / 12
    return own + back * (c - t / 2) ** 2 + sides * ((height_mm + t) / 2 - c) ** 2


def channel_centroid_mm(height_mm: float, width_mm: float, wall_mm: float) -> float:
    """From the outer face of the back to the centroid of a channel, mm."""
    back, sides = width_mm * wall_mm, 2 * max(height_mm - wall_mm, 0.0) * wall_mm
    return (back * wall_mm / 2 + sides * (height_mm + wall_mm) / 2) / (back + sides)


@formula(
    title="second moment of a channel about its upright axis",
    symbol="I",
    expression="I = t·b³/12 + 2·((h − t)·t³/12 + (h − t)·t·((b − t)/2)²)",
    unit="mm⁴",
    source=STRENGTH,
)
def channel_side_inertia(height_mm: HeightArg, width_mm: WidthArg, wall_mm: WallArg) -> Number:
    t, flange = wall_mm, max(height_mm - wall_mm, 0.0)
    return t * width_mm**3 / 12 + 2 * (flange * t**3 / 12 + flange * t * ((width_mm - t) / 2) ** 2)


@formula(title="elastic section modulus", symbol="W", expression="W = 2 · I / h", unit="mm³", source=STRENGTH)
def section_modulus(
    inertia_mm4: Annotated[Number, Arg("I", "mm⁴", "second moment", 1)], height_mm: HeightArg
) -> Number:
    return 2 * inertia_mm4 / height_mm


@formula(
    title="bending moment at which a rail yields",
    symbol="M_y",
    expression="M_y = W · f_y",
    unit="N·mm",
    source=Source("EN 1999-1-1:2007, 6.2.5, class 3: elastic to the outer fibre"),
)
def yield_moment(
    modulus_mm3: Annotated[Number, Arg("W", "mm³", "elastic section modulus", 1)],
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield strength", 50, 700)],
) -> Number:
    return modulus_mm3 * yield_n_mm2


@formula(
    title="section modulus of two upright plates with a hole in the middle",
    symbol="W",
    expression="W = 2 · t · (h³ − d³) / (6 · h)",
    unit="mm³",
    source=Source("Rectangle less a rectangle on the same axis (any handbook of structures)"),
)
def net_plates(
    thickness_mm: Annotated[Number, Arg("t", "mm", "one plate", 0.5, 30)],
    height_mm: HeightArg,
    hole_mm: Annotated[Number, Arg("d", "mm", "hole", 0, 40)],
) -> Number:
    return 2 * thickness_mm * (height_mm**3 - hole_mm**3) / (6 * height_mm)


@formula(
    title="bolt pulling on one wall of a tube",
    symbol="F",
    expression="F = π · f_y · t²",
    unit="N",
    source=Source("Yield-line fan between the webs, 4·π·m_p with m_p = f_y·t²/4 (Johansen 1943)"),
)
def wall_pull(
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield strength", 50, 700)], wall_mm: WallArg
) -> Number:
    return 3.141592653589793 * yield_n_mm2 * wall_mm**2


@formula(
    title="tongue of a clamp in bending",
    symbol="F",
    expression="F = f_y · b · t² / (4 · a)",
    unit="N",
    source=Source("Plastic moment of the tongue over its lever (strength of materials)"),
)
def clamp_tongue(
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield strength", 50, 700)],
    width_mm: Annotated[Number, Arg("b", "mm", "width that bends, washer and twice the lever", 5, 100)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness", 1, 10)],
    lever_mm: Annotated[Number, Arg("a", "mm", "bolt to the frame's edge", 2, 60)],
) -> Number:
    return yield_n_mm2 * width_mm * thickness_mm**2 / (4 * lever_mm)


@formula(
    title="force along a rail at which a clamp slips",
    symbol="F_s",
    expression="F_s = μ · 0.7 · F_p",
    unit="N",
    source=Source(
        "Friction with 0.7 of the preload left; μ 0.20 aluminium on aluminium as rolled, EN 1090-2 Table 18 "
        "class D; for stainless bolts a judgement",
        "judgement",
    ),
)
def clamp_slip(
    friction: Annotated[Number, Arg("μ", "", "friction", 0.05, 0.6)],
    preload_n: Annotated[Number, Arg("F_p", "N", "preload of its bolt", 100, 100_000)],
) -> Number:
    return friction * 0.7 * preload_n


@formula(
    title="thermal growth of a rail against the roof",
    symbol="ΔL",
    expression="ΔL = L · (α₁ − α₂) · ΔT",
    unit="mm",
    source=Source(
        "Linear expansion; α 23.1·10⁻⁶ aluminium, 16·10⁻⁶ stainless, 12·10⁻⁶ steel (EN 1999-1-1 3.2.5)"
    ),
)
def thermal_growth(
    length_mm: Annotated[Number, Arg("L", "mm", "length from the fixed foot", 0, 25_000)],
    own_per_k: Annotated[Number, Arg("α₁", "1/K", "expansion of the rail", 0, 1e-4)],
    roof_per_k: Annotated[Number, Arg("α₂", "1/K", "expansion of the roof", 0, 1e-4)],
    change_k: Annotated[Number, Arg("ΔT", "K", "from coldest to hottest", 0, 150)],
) -> Number:
    return length_mm * (own_per_k - roof_per_k) * change_k


@formula(
    title="pull in a bay that bends a bar from member to member",
    symbol="P",
    expression="P = M · L / (a · b)",
    unit="N",
    source=Source("Simple beam with a load at a (any table of beams)"),
)
def span_load(
    moment_n_mm: Annotated[Number, Arg("M", "N·mm", "what the bar bears in bending", 1)],
    front_mm: Annotated[Number, Arg("a", "mm", "foot to the member in front", 0.5, 3000)],
    rear_mm: Annotated[Number, Arg("b", "mm", "foot to the member behind", 0.5, 3000)],
) -> Number:
    return moment_n_mm * (front_mm + rear_mm) / (front_mm * rear_mm)


@formula(
    title="how stiff a bar carries a foot between members",
    symbol="k",
    expression="k = 3 · E · I · L / (a² · b²)",
    unit="N/mm",
    source=Source("Simple beam with a load at a (any table of beams)"),
)
def span_spring(
    ei_n_mm2: Annotated[Number, Arg("E·I", "N·mm²", "of the bar", 1e5)],
    front_mm: Annotated[Number, Arg("a", "mm", "foot to the member in front", 0.5, 3000)],
    rear_mm: Annotated[Number, Arg("b", "mm", "foot to the member behind", 0.5, 3000)],
) -> Number:
    return 3 * ei_n_mm2 * (front_mm + rear_mm) / (front_mm**2 * rear_mm**2)


@formula(
    title="what a foot between members may pull by the end of its bar",
    symbol="P",
    expression="P = R / (s · (1 + 2 · e / w))",
    unit="N",
    source=Source(
        "Lever law of a simple beam; the foot's lever e twists the bar, which its ends hold over half its "
        "width (statics)"
    ),
)
def by_bar_end(
    end_n: Annotated[Number, Arg("R", "N", "what the end bears", 1e-6)],
    share: Annotated[Number, Arg("s", "", "of a foot's pull, at the end that gets most", 0.5, 20)],
    lever_mm: Annotated[Number, Arg("e", "mm", "frame bolt to the bar's middle", 0, 150)],
    width_mm: Annotated[Number, Arg("w", "mm", "bar", 3, 150)],
) -> Number:
    return end_n / (share * (1 + 2 * lever_mm / width_mm))
