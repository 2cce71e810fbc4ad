"""The bracket between frame and roof: prying, bending."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

NOTHING_INSIDE = 1e4
Lever = Annotated[Number, Arg("a", "mm", "frame bolt to fastener line", 0, 150)]


@formula(
    title="prying of the bracket",
    symbol="m",
    expression="m = (a + b) / b",
    unit="",
    source=Source("Lever about the toe of the bracket (statics)"),
)
def prying(
    lever_mm: Lever, toe_mm: Annotated[Number, Arg("b", "mm", "fastener line to toe", 3, 150)]
) -> Number:
    return (lever_mm + toe_mm) / toe_mm


@formula(
    title="share of the worst fastener in a row along the lever",
    symbol="κ",
    expression="κ = (a + b) · d_max / Σd², d_i = b − (i − (n − 1)/2) · p, holes with d > 0 only",
    unit="",
    source=Source(
        "Rotation of a stiff base about its toe: fastener forces grow with their distance from it (statics)"
    ),
)
def row_share(
    lever_mm: Lever,
    toe_mm: Annotated[Number, Arg("b", "mm", "middle of the row to toe", 3, 150)],
    count: Annotated[Number, Arg("n", "", "fasteners in the row", 1, 12)],
    pitch_mm: Annotated[Number, Arg("p", "mm", "distance of neighbours", 1, 600)],
) -> Number:
    """Of the pull on the foot. Holes beyond the toe hold nothing; where none is inside, the whole pull many
    times over.
    """
    from_toe = [toe_mm - (i - (count - 1) / 2) * pitch_mm for i in range(int(count))]
    inside = [
        d for d in from_toe if d > 0
    ]  # whether the inner ones miss the upright is a question of geometry: a stop of its own
    return (lever_mm + toe_mm) * max(inside) / sum(d * d for d in inside) if inside else NOTHING_INSIDE


@formula(
    title="share of each fastener in a row beside the lever",
    symbol="κ",
    expression="κ = m / n",
    unit="",
    source=Source("Equal distance from the toe, so equal shares (statics)"),
)
def even_share(
    factor: Annotated[Number, Arg("m", "", "prying factor", 1, 60)],
    count: Annotated[Number, Arg("n", "", "fasteners in the row", 1, 12)],
) -> Number:
    return factor / count


@formula(
    title="capacity of the foot's pull by its worst fastener",
    symbol="F",
    expression="F = P / κ",
    unit="N",
    source=Source("The fastener with the largest share fails first (statics)"),
)
def by_worst_fastener(
    strength_n: Annotated[Number, Arg("P", "N", "strength at one fastener", 0)],
    share: Annotated[Number, Arg("κ", "", "share of the worst fastener", 0.01, 1e6)],
) -> Number:
    return strength_n / share


@formula(
    title="width of the bracket's leg that bends",
    symbol="w",
    expression="w = min(l − d_h, 4·a + 1.25·b, 2·π·a)",
    unit="mm",
    source=Source(
        "EN 1993-1-8:2005, Table 6.4: effective lengths of a T-stub with one bolt; net of its hole"
    ),
)
def bending_width(
    length_mm: Annotated[Number, Arg("l", "mm", "bracket length", 10, 600)],
    hole_mm: Annotated[Number, Arg("d_h", "mm", "hole for the frame bolt", 2, 30)],
    lever_mm: Annotated[Number, Arg("a", "mm", "frame bolt to fastener line", 1, 150)],
    toe_mm: Annotated[Number, Arg("b", "mm", "fastener line to toe", 0.3, 150)],
) -> Number:
    return max(min(length_mm - hole_mm, 4 * lever_mm + 1.25 * toe_mm, 2 * 3.141592653589793 * lever_mm), 1.0)


@formula(
    title="force along the roof that bends the upright",
    symbol="F",
    expression="F = f_y · (l − d_h) · t² / (4 · h)",
    unit="N",
    source=Source(
        "Plastic moment of the net section about its weak axis over the stand-off (strength of materials)"
    ),
)
def upright_bending(
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield strength", 50, 700)],
    length_mm: Annotated[Number, Arg("l", "mm", "bracket length", 10, 600)],
    hole_mm: Annotated[Number, Arg("d_h", "mm", "hole for the frame bolt", 2, 30)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "bracket thickness", 0.3, 150)],
    height_mm: Annotated[Number, Arg("h", "mm", "frame over the roof", 1, 2000)],
) -> Number:
    return yield_n_mm2 * max(length_mm - hole_mm, 1.0) * thickness_mm**2 / (4 * height_mm)


@formula(
    title="force along the roof when the foot also tips",
    symbol="S",
    expression="1/S = 1/S₀ + (h / (a + b)) / P",
    unit="N",
    source=Source(
        "A force at the frame's height tips the base about its toe: it pulls like H·h/(a + b) on the foot "
        "(statics). The panel's stiffness against tipping is left out: on the safe side"
    ),
)
def with_tipping(
    along_n: Annotated[Number, Arg("S₀", "N", "strength along the roof alone", 0)],
    pull_n: Annotated[Number, Arg("P", "N", "strength in pull on the foot", 1e-9)],
    height_mm: Annotated[Number, Arg("h", "mm", "frame over the roof", 0, 2000)],
    base_mm: Annotated[Number, Arg("a + b", "mm", "upright to toe", 0.3, 300)],
) -> Number:
    return along_n * pull_n / (pull_n + along_n * height_mm / base_mm)


@formula(
    title="bending of the bracket's leg",
    symbol="F",
    expression="F = f_y · w · t² / (4 · a)",
    unit="N",
    source=Source(
        "Plastic moment of a rectangular section f_y·w·t²/4 over the lever (strength of materials)"
    ),
)
def bracket_bending(
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "yield strength", 50, 700)],
    width_mm: Annotated[Number, Arg("w", "mm", "width that bends", 1, 600)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "bracket thickness", 0.8, 15)],
    lever_mm: Annotated[Number, Arg("a", "mm", "frame bolt to fastener line", 1, 150)],
) -> Number:
    return yield_n_mm2 * width_mm * thickness_mm**2 / (4 * lever_mm)


@formula(
    title="springs one behind the other",
    symbol="k",
    expression="1/k = 1/k₁ + 1/k₂",
    unit="N/mm",
    source=Source("Springs in series (statics)"),
)
def in_series(
    first_n_mm: Annotated[Number, Arg("k₁", "N/mm", "first stiffness", 1e-6)],
    second_n_mm: Annotated[Number, Arg("k₂", "N/mm", "second stiffness", 1e-6)],
) -> Number:
    return first_n_mm * second_n_mm / (first_n_mm + second_n_mm)
