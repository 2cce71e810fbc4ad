"""Foam tape under a foot."""

import math
from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

GUIDANCE = "Adhesive foam tape makers' general guidance: 83 kPa (12 psi) dynamic in tension or shear"
PadLength = Annotated[Number, Arg("l", "mm", "pad length", 5, 600)]
PadWidth = Annotated[Number, Arg("w", "mm", "pad width", 5, 600)]
Stress = Annotated[Number, Arg("σ", "N/mm²", "tape stress counted", 0, 2)]


@formula(
    title="tape in tension or shear",
    symbol="P",
    expression="P = σ · l · w · f_bond",
    unit="N",
    source=Source(GUIDANCE, "common practice"),
)
def tape_strength(
    stress_n_mm2: Stress,
    length_mm: PadLength,
    width_mm: PadWidth,
    bonded: Annotated[Number, Arg("f_bond", "", "share of full bond after the dwell", 0, 1)],
) -> Number:
    return stress_n_mm2 * length_mm * width_mm * bonded


@formula(
    title="tape at the edge under an eccentric pull",
    symbol="P",
    expression="P = σ · l · w · f_bond / (1 + 6 · e / w)",
    unit="N",
    source=Source("Edge stress F/A·(1 + 6·e/w) of a stiff foot on an elastic layer (statics)", "published"),
)
def tape_edge_strength(
    stress_n_mm2: Stress,
    length_mm: PadLength,
    width_mm: PadWidth,
    bonded: Annotated[Number, Arg("f_bond", "", "share of full bond after the dwell", 0, 1)],
    eccentricity_mm: Annotated[Number, Arg("e", "mm", "pull off the pad's centre", 0, 300)],
) -> Number:
    return stress_n_mm2 * length_mm * width_mm * bonded / (1 + 6 * eccentricity_mm / width_mm)


@formula(
    title="share of full bond after a dwell",
    symbol="f_bond",
    expression="0.5 at 20 min, 0.9 at 24 h, 1.0 at 72 h; straight between them, 0 before 20 min",
    unit="",
    source=Source("Adhesive foam tape makers' general guidance, near 21 °C", "common practice"),
)
def bond_share(dwell_h: Annotated[Number, Arg("t", "h", "dwell before load", 0)]) -> Number:
    if dwell_h < 1 / 3:
        return 0.0
    if dwell_h < 24:
        return 0.5 + 0.4 * (dwell_h - 1 / 3) / (24 - 1 / 3)
    return min(0.9 + 0.1 * (dwell_h - 24) / 48, 1.0)


@formula(
    title="stiffness of a tape pad",
    symbol="k",
    expression="k = E · l · w / t",
    unit="N/mm",
    source=Source("Elastic layer in tension; modulus of the foam is a judgement", "judgement"),
)
def tape_stiffness(
    modulus_n_mm2: Annotated[Number, Arg("E", "N/mm²", "foam modulus", 0.05, 20)],
    length_mm: PadLength,
    width_mm: PadWidth,
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness of tape or bead", 0.2, 15)],
) -> Number:
    return modulus_n_mm2 * length_mm * width_mm / thickness_mm


@formula(
    title="stiffness of the foam against the foot that lies on it",
    symbol="β",
    expression="β = ⁴√(E_foam / t / (4·E·t_p³/12))",
    unit="1/mm",
    source=Source("Beam on an elastic foundation, per millimetre of width (Hetényi 1946)"),
)
def foundation_share(
    foam_n_mm2: Annotated[Number, Arg("E_foam", "N/mm²", "foam modulus, short or relaxed", 0.01, 20)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness of tape or bead", 0.2, 15)],
    plate_n_mm2: Annotated[Number, Arg("E", "N/mm²", "modulus of the foot", 500, 250_000)],
    plate_mm: Annotated[Number, Arg("t_p", "mm", "thickness of the foot's base", 0.3, 150)],
) -> Number:
    return (foam_n_mm2 / thickness_mm / (4 * plate_n_mm2 * plate_mm**3 / 12)) ** 0.25


@formula(
    title="lasting peel of a flat foot pulled onto a curve",
    symbol="σ",
    expression="σ = E_foam/t / (2·β²·R) · (sinh βw − sin βw)/(sinh βw + sin βw)",
    unit="N/mm²",
    source=Source(
        "Beam on an elastic foundation bent to a radius; k·w²/(12·R) for stiff feet (statics; checked "
        "against a spring model)"
    ),
)
def crown_peel(
    foam_n_mm2: Annotated[Number, Arg("E_foam", "N/mm²", "foam modulus, short or relaxed", 0.01, 20)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "tape thickness", 0.2, 6)],
    beta_per_mm: Annotated[Number, Arg("β", "1/mm", "foam against foot", 1e-4, 1)],
    width_mm: PadWidth,
    radius_mm: Annotated[Number, Arg("R", "mm", "radius of the roof there", 100, 1e7)],
) -> Number:
    bw = min(beta_per_mm * width_mm, 50.0)
    share = (math.sinh(bw) - math.sin(bw)) / (math.sinh(bw) + math.sin(bw))
    return foam_n_mm2 / thickness_mm / (2 * beta_per_mm**2 * radius_mm) * share


@formula(
    title="widest stiff foot that a curve leaves in peace",
    symbol="w",
    expression="w = √(12 · R · σ · t / E_foam)",
    unit="mm",
    source=Source("Stiff foot on a curve, σ = k·w²/(12·R), solved for its width (statics)"),
)
def widest_foot(
    radius_mm: Annotated[Number, Arg("R", "mm", "radius of the roof there", 100, 1e7)],
    stress_n_mm2: Annotated[Number, Arg("σ", "N/mm²", "lasting stress the tape bears", 1e-5, 1)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "tape thickness", 0.2, 6)],
    foam_n_mm2: Annotated[Number, Arg("E_foam", "N/mm²", "foam modulus, relaxed", 0.01, 20)],
) -> Number:
    return (12 * radius_mm * stress_n_mm2 * thickness_mm / foam_n_mm2) ** 0.5


@formula(
    title="share of a stiff foot's face that touches a curve",
    symbol="s",
    expression="s = min(1, 2·√(2·R·t/4) / w)",
    unit="",
    source=Source("Chord of the roof's circle; foam gives by a quarter of its thickness", "judgement"),
)
def touching_share(
    radius_mm: Annotated[Number, Arg("R", "mm", "radius of the roof there", 100, 1e7)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "tape thickness", 0.2, 6)],
    width_mm: PadWidth,
) -> Number:
    return min(1.0, 2 * (radius_mm * thickness_mm / 2) ** 0.5 / width_mm)


@formula(
    title="stress that tape bears for so long",
    symbol="σ",
    expression="σ = 83 kPa · (t / 60 s)^−0.322, at least 1.72 kPa",
    unit="N/mm²",
    source=Source(
        "Makers' guidance 83 kPa for a minute and 1.72 kPa for ever, straight in logarithms between",
        "judgement",
    ),
)
def lasting_stress(duration_h: Annotated[Number, Arg("t", "h", "how long", 1 / 60, 1e6)]) -> Number:
    return max(0.083 * (duration_h * 60) ** -0.322, 0.00172)


@formula(
    title="share of strength that tape keeps when hot",
    symbol="f_hot",
    expression="1.0 to 25 °C, 0.5 at 70 °C, 0.3 at 90 °C; straight between",
    unit="",
    source=Source("Makers' curves of acrylic foam tapes, low end, from memory", "judgement"),
)
def hot_share(temperature_c: Annotated[Number, Arg("T", "°C", "roof in the sun", -40, 120)]) -> Number:
    if temperature_c <= 25:
        return 1.0
    if temperature_c <= 70:
        return 1.0 - 0.5 * (temperature_c - 25) / 45
    return max(0.5 - 0.2 * (temperature_c - 70) / 20, 0.05)


@formula(
    title="stress under the leg of a soft foot against the mean",
    symbol="n",
    expression="n = βw · (cosh βw + cos βw + 2) / (2 · (sinh βw + sin βw)), at least 1",
    unit="",
    source=Source("Finite beam on an elastic foundation, load in its middle (Hetényi 1946)"),
)
def soft_foot_peak(
    beta_per_mm: Annotated[Number, Arg("β", "1/mm", "foam against foot", 1e-4, 1)], width_mm: PadWidth
) -> Number:
    bw = min(beta_per_mm * width_mm, 50.0)
    peak = bw * (math.cosh(bw) + math.cos(bw) + 2) / (2 * (math.sinh(bw) + math.sin(bw)))
    return max(peak, 1.0)


@formula(
    title="shear of tape under a rail that grows",
    symbol="γ",
    expression="γ = x · Δα · ΔT / t",
    unit="",
    source=Source("Linear expansion over the thickness of the tape (statics)"),
)
def thermal_shear(
    run_mm: Annotated[Number, Arg("x", "mm", "from the middle of the rail", 0, 25_000)],
    difference_per_k: Annotated[Number, Arg("Δα", "1/K", "rail against roof", 0, 1e-4)],
    change_k: Annotated[Number, Arg("ΔT", "K", "from setting to hot or cold", 0, 150)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness of tape or bead", 0.2, 15)],
) -> Number:
    return run_mm * difference_per_k * change_k / thickness_mm


@formula(
    title="share of a bead that has cured",
    symbol="f_cure",
    expression="f = min(1, 2 · z₂₄ · √(t / 24 h) / b)",
    unit="",
    source=Source(
        "Depth of moisture cure grows with the root of time, Comyn et al., International Journal of Adhesion "
        "and Adhesives 18 (1998); from both sides of a bead"
    ),
)
def cured_share(
    dwell_h: Annotated[Number, Arg("t", "h", "wait before load", 0)],
    depth_24h_mm: Annotated[Number, Arg("z₂₄", "mm", "in a day", 0.1, 20)],
    bead_mm: Annotated[Number, Arg("b", "mm", "width of a bead", 0.3, 150)],
) -> Number:
    return min(1.0, 2 * depth_24h_mm * (dwell_h / 24) ** 0.5 / bead_mm)
