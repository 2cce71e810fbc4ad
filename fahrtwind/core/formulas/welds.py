"""Fillet welds all round the end of a tube or between two bars that cross: the weld as a line."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

LINE = "Weld treated as a line of its throat's width about the section (strength of materials)"
Throat = Annotated[Number, Arg("a", "mm", "throat of the weld", 0.5, 15)]
Along = Annotated[Number, Arg("h", "mm", "side of the weld along which it is bent", 5, 400)]
Beside = Annotated[Number, Arg("b", "mm", "side of the weld across that", 5, 400)]
Round = Annotated[Number, Arg("d", "mm", "diameter of the weld", 5, 400)]


@formula(
    title="elastic modulus of a weld round a rectangle",
    symbol="W",
    expression="W = a · (b · h + h² / 3)",
    unit="mm³",
    source=Source(LINE),
)
def weld_modulus(throat_mm: Throat, along_mm: Along, beside_mm: Beside) -> Number:
    return throat_mm * (beside_mm * along_mm + along_mm**2 / 3)


@formula(
    title="elastic modulus of a weld round a circle",
    symbol="W",
    expression="W = π · d² · a / 4",
    unit="mm³",
    source=Source(LINE),
)
def round_weld_modulus(throat_mm: Throat, diameter_mm: Round) -> Number:
    return 3.141592653589793 * diameter_mm**2 * throat_mm / 4


@formula(
    title="what a fillet weld bears",
    symbol="f_w",
    expression="f_w = f_u / (√3 · β_w)",
    unit="N/mm²",
    source=Source(
        "EN 1993-1-8:2005, 4.5.3.3, simplified: the same whichever way the force runs; aluminium with the "
        "strength of its weld metal and β_w 1 (EN 1999-1-1:2007, 8.6.3.3); without partial factors"
    ),
)
def fillet_strength(
    ultimate_n_mm2: Annotated[Number, Arg("f_u", "N/mm²", "tensile strength of the weaker metal", 50, 900)],
    correlation: Annotated[Number, Arg("β_w", "", "how weld and metal go together", 0.8, 1.0)],
) -> Number:
    return ultimate_n_mm2 / (3**0.5 * correlation)
