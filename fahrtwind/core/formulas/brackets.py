"""The bracket between frame and roof: prying, bending."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

Lever = Annotated[Number, Arg("a", "mm", "frame bolt to fastener line", 0, 150)]


@formula(title="prying of the bracket", symbol="m", expression="m = (a + b) / b", unit="",
         source=Source("Lever about the toe of the bracket (statics)"))  # fmt: skip
def prying(lever_mm: Lever, toe_mm: Annotated[Number, Arg("b", "mm", "fastener line to toe", 3, 150)]) -> Number:
    return (lever_mm + toe_mm) / toe_mm


@formula(title="capacity of the foot's pull behind the prying", symbol="F", expression="F = P / m", unit="N",
         source=Source("Lever about the toe of the bracket (statics)"))  # fmt: skip
def behind_prying(
    strength_n: Annotated[Number, Arg("P", "N", "strength at the fasteners", 0)],
    factor: Annotated[Number, Arg("m", "", "prying factor", 1, 20)],
) -> Number:
    return strength_n / factor


@formula(title="bending of the bracket's leg", symbol="F", expression="F = f_y · w · t² / (4 · a)", unit="N",
         source=Source("Plastic moment of a rectangular section f_y·w·t²/4 over the lever (strength of materials)"))  # fmt: skip
def bracket_bending(
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield strength", 50, 700)],
    width_mm: Annotated[Number, Arg("w", "mm", "bracket width", 10, 600)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "bracket thickness", 0.8, 15)],
    lever_mm: Annotated[Number, Arg("a", "mm", "frame bolt to fastener line", 1, 150)],
) -> Number:
    return yield_n_mm2 * width_mm * thickness_mm**2 / (4 * lever_mm)


@formula(title="springs one behind the other", symbol="k", expression="1/k = 1/k₁ + 1/k₂", unit="N/mm",
         source=Source("Springs in series (statics)"))  # fmt: skip
def in_series(
    first_n_mm: Annotated[Number, Arg("k₁", "N/mm", "first stiffness", 1e-6)],
    second_n_mm: Annotated[Number, Arg("k₂", "N/mm", "second stiffness", 1e-6)],
) -> Number:
    return first_n_mm * second_n_mm / (first_n_mm + second_n_mm)
