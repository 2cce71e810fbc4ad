"""Foam tape under a foot."""

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
    thickness_mm: Annotated[Number, Arg("t", "mm", "tape thickness", 0.2, 6)],
) -> Number:
    return modulus_n_mm2 * length_mm * width_mm / thickness_mm
