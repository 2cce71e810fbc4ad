"""Shape of the roof: crown, lean, wedges, open lids, squareness."""

from typing import Annotated

import numpy as np

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

GEOMETRY = "Plane geometry (for example Bronstein et al., Handbook of Mathematics)"


@formula(
    title="radius from the gap under a straight-edge",
    symbol="R",
    expression="R = w² / (8·s) + s / 2",
    unit="mm",
    source=Source(f"{GEOMETRY}: circle through a chord w with sagitta s"),
)
def radius_from_sagitta(
    chord_mm: Annotated[Number, Arg("w", "mm", "chord: width under which the gap is taken", 10, 5000)],
    sagitta_mm: Annotated[Number, Arg("s", "mm", "gap in the middle", 0.05, 1000)],
) -> Number:
    return chord_mm**2 / (8 * sagitta_mm) + sagitta_mm / 2


@formula(
    title="gap under a flat foot on a curved roof",
    symbol="s",
    expression="s = R − √(R² − (w/2)²)",
    unit="mm",
    source=Source(f"{GEOMETRY}: sagitta of a circle"),
)
def sagitta(
    width_mm: Annotated[Number, Arg("w", "mm", "width of the foot", 1, 5000)],
    radius_mm: Annotated[Number, Arg("R", "mm", "local radius of the roof", 100, 1e6)],
) -> Number:
    return radius_mm - (radius_mm**2 - (width_mm / 2) ** 2) ** 0.5


@formula(
    title="local radius of the roof",
    symbol="R",
    expression="R = (1 + z′²)^(3/2) / |z″|",
    unit="mm",
    source=Source("Curvature of a plane curve (for example Bronstein et al., differential geometry)"),
)
def radius_of_curvature(
    slope: Annotated[Number, Arg("z′", "", "slope", -5, 5)],
    bend_per_mm: Annotated[Number, Arg("|z″|", "1/mm", "second derivative, its size", 1e-7, 1)],
) -> Number:
    return (1 + slope**2) ** 1.5 / bend_per_mm


@formula(
    title="true slope from a gauge reading",
    symbol="φ",
    expression="φ = φ_gauge − φ_zero − φ_lean",
    unit="°",
    source=Source(
        "Gauge zeroed on a level part, lean of the parked vehicle taken out: common practice",
        "common practice",
    ),
)
def true_slope(
    gauge_deg: Annotated[Number, Arg("φ_gauge", "°", "gauge on the roof", -180, 180)],
    zero_deg: Annotated[Number, Arg("φ_zero", "°", "gauge on the level part", -180, 180)],
    lean_deg: Annotated[Number, Arg("φ_lean", "°", "lean of the vehicle", -90, 90)],
) -> Number:
    return gauge_deg - zero_deg - lean_deg


@formula(
    title="residual lean of a foot beside its plumb mark",
    symbol="δ",
    expression="δ = (y_line − y_mark) / R · 180/π",
    unit="°",
    source=Source(f"{GEOMETRY}: arc over radius; positive leans outward"),
)
def residual_lean(
    line_mm: Annotated[Number, Arg("y_line", "mm", "offset of the line from the centre", 0, 6000)],
    mark_mm: Annotated[Number, Arg("y_mark", "mm", "offset where the foot stands plumb", 0, 6000)],
    radius_mm: Annotated[Number, Arg("R", "mm", "local radius of the roof", 100, 1e6)],
) -> Number:
    return (line_mm - mark_mm) / radius_mm * 57.29577951308232


@formula(
    title="bar under one edge of a foot that takes out a lean",
    symbol="t",
    expression="t = (x_b − x_0)·tan δ + (x_b² − x_0²) / (2·R), x_b = b/2 − w, x_0 = −min(R·tan δ, b/2)",
    unit="mm",
    source=Source(
        f"{GEOMETRY}: straight base that touches a circle of radius R at x_0 and the inner edge of "
        f"a flush bar at x_b"
    ),
)
def wedge_thickness(
    base_mm: Annotated[Number, Arg("b", "mm", "base width of the foot", 5, 500)],
    lean_deg: Annotated[Number, Arg("δ", "°", "lean to take out", -60, 60)],
    bar_mm: Annotated[Number, Arg("w", "mm", "width of the bar, flush with the edge", 0, 500)],
    radius_mm: Annotated[Number, Arg("R", "mm", "local radius of the roof", 100, 1e6)],
) -> Number:
    """A bar wider than half the base sits beyond the middle; wider than the base there is nothing left to
    lean on.
    """
    rise = np.tan(abs(lean_deg) / 57.29577951308232)
    inner = base_mm / 2 - min(bar_mm, base_mm)
    touch = -min(radius_mm * rise, base_mm / 2)
    return max((inner - touch) * rise + (inner**2 - touch**2) / (2 * radius_mm), 0.0)


@formula(
    title="how far an open lid leans beyond its hinge",
    symbol="r",
    expression="r = max(0, −ℓ · cos α)",
    unit="mm",
    source=Source(f"{GEOMETRY}: lid of length ℓ opened by α from shut"),
)
def lid_lean(
    length_mm: Annotated[Number, Arg("ℓ", "mm", "length of the lid from its hinge", 1, 6000)],
    angle_deg: Annotated[Number, Arg("α", "°", "opening angle", 0, 180)],
) -> Number:
    lean = -length_mm * np.cos(angle_deg / 57.29577951308232)
    return lean if lean > 1e-9 else 0.0


@formula(
    title="height of the open lid's edge over the roof",
    symbol="h",
    expression="h = h_0 + ℓ · sin α",
    unit="mm",
    source=Source(f"{GEOMETRY}: lid of length ℓ opened by α from shut"),
)
def lid_tip_height(
    hinge_mm: Annotated[Number, Arg("h_0", "mm", "height of the hinge", 0, 2000)],
    length_mm: Annotated[Number, Arg("ℓ", "mm", "length of the lid from its hinge", 1, 6000)],
    angle_deg: Annotated[Number, Arg("α", "°", "opening angle", 0, 180)],
) -> Number:
    return hinge_mm + length_mm * np.sin(angle_deg / 57.29577951308232)


@formula(
    title="height of the open lid over a spot beyond its hinge",
    symbol="h",
    expression="h = h_0 + d · tan(180° − α)",
    unit="mm",
    source=Source(f"{GEOMETRY}: straight lid leaning over by α from shut"),
)
def lid_height_beyond(
    hinge_mm: Annotated[Number, Arg("h_0", "mm", "height of the hinge", 0, 2000)],
    distance_mm: Annotated[Number, Arg("d", "mm", "distance beyond the hinge", 0, 6000)],
    angle_deg: Annotated[Number, Arg("α", "°", "opening angle", 90.5, 180)],
) -> Number:
    return hinge_mm + distance_mm * np.tan((180 - angle_deg) / 57.29577951308232)


@formula(
    title="out of square, from the diagonals",
    symbol="e",
    expression="e = (d_1² − d_2²) / (4·W)",
    unit="mm",
    source=Source(
        "Parallelogram law: d_1² − d_2² = 4 a·b (any textbook of vector geometry); e is the shift of the rear"
    ),
)
def skew_from_diagonals(
    first_mm: Annotated[Number, Arg("d_1", "mm", "diagonal front port to rear starboard", 10, 30_000)],
    second_mm: Annotated[Number, Arg("d_2", "mm", "diagonal front starboard to rear port", 10, 30_000)],
    width_mm: Annotated[Number, Arg("W", "mm", "width", 10, 25_000)],
) -> Number:
    return (first_mm**2 - second_mm**2) / (4 * width_mm)


@formula(
    title="sag allowed for in the middle of a panel",
    symbol="w",
    expression="w = L / 200",
    unit="mm",
    source=Source("Flex of a framed glass panel between its feet: judgement, no source", "judgement"),
)
def panel_sag(span_mm: Annotated[Number, Arg("L", "mm", "shorter span between feet", 0, 3000)]) -> Number:
    return span_mm / 200


@formula(
    title="clear height under a panel",
    symbol="c",
    expression="c = z_panel − z_roof − 1.96 · s_z − w",
    unit="mm",
    source=Source(f"{GEOMETRY}: plane through the feet over the crown, its 95 % band and the sag taken off"),
)
def clear_height(
    panel_mm: Annotated[Number, Arg("z_panel", "mm", "underside of the panel there")],
    roof_mm: Annotated[Number, Arg("z_roof", "mm", "height of the roof there")],
    sigma_mm: Annotated[Number, Arg("s_z", "mm", "uncertainty of that height", 0)],
    sag_mm: Annotated[Number, Arg("w", "mm", "sag allowed for", 0, 50)],
) -> Number:
    return panel_mm - roof_mm - 1.96 * sigma_mm - sag_mm


@formula(
    title="labour to take old work off",
    symbol="T",
    expression="T = n · t_each",
    unit="min",
    source=Source(
        "Six glued panels about three person-hours, others likewise: common practice, no source",
        "common practice",
    ),
)
def removal_labour(
    count: Annotated[Number, Arg("n", "", "how many", 0)],
    each_min: Annotated[Number, Arg("t_each", "min", "minutes for one", 0, 600)],
) -> Number:
    return count * each_min
