"""Members under the skin: where a regular spacing and their own readings put them, and how surely."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

REGRESSION = (
    "Straight-line regression x = a + p·k (for example Draper and Smith, Applied Regression Analysis)"
)
MIXED = (
    "Random effect of each member (Searle, Casella, McCulloch, Variance Components, 1992, best "
    "linear unbiased prediction)"
)


@formula(
    title="place of a member by the spacing",
    symbol="x_line",
    expression="x_line = a + p · k",
    unit="mm",
    source=Source(REGRESSION),
)
def member_position(
    first_mm: Annotated[Number, Arg("a", "mm", "first member")],
    pitch_mm: Annotated[Number, Arg("p", "mm", "pitch", 50, 3000)],
    index: Annotated[Number, Arg("k", "", "bays from the first")],
) -> Number:
    return first_mm + pitch_mm * index


@formula(
    title="place of a member beyond an odd bay or a change of spacing",
    symbol="x_line",
    expression="x_line = a + p · k + q · m",
    unit="mm",
    source=Source(REGRESSION),
)
def member_position_beyond(
    first_mm: Annotated[Number, Arg("a", "mm", "first regular member")],
    pitch_mm: Annotated[Number, Arg("p", "mm", "pitch", 50, 3000)],
    index: Annotated[Number, Arg("k", "", "bays of that pitch from the first")],
    other_mm: Annotated[Number, Arg("q", "mm", "odd bay or second pitch", 20, 3000)],
    other_index: Annotated[Number, Arg("m", "", "bays of that length; negative in front")],
) -> Number:
    return first_mm + pitch_mm * index + other_mm * other_index


@formula(
    title="weight of a member's own readings",
    symbol="g",
    expression="g = s_build² / (s_build² + s_own²)",
    unit="",
    source=Source(MIXED),
)
def own_share(
    build_mm: Annotated[Number, Arg("s_build", "mm", "scatter of the members about the spacing", 0.1, 60)],
    own_mm: Annotated[Number, Arg("s_own", "mm", "noise of the member's own readings together", 0.1)],
) -> Number:
    return build_mm**2 / (build_mm**2 + own_mm**2)


@formula(
    title="place of a member",
    symbol="x",
    expression="x = x_line + g · (x_own − x_line)",
    unit="mm",
    source=Source(MIXED),
)
def pulled_position(
    line_mm: Annotated[Number, Arg("x_line", "mm", "place by the spacing")],
    own_mm: Annotated[Number, Arg("x_own", "mm", "mean of its own readings")],
    share: Annotated[Number, Arg("g", "", "weight of its own readings", 0, 1)],
) -> Number:
    return line_mm + share * (own_mm - line_mm)


@formula(
    title="uncertainty of a member's place",
    symbol="s",
    expression="s = √((1 − g)² · s_line² + (1 − g) · s_build²)",
    unit="mm",
    source=Source(
        f"{MIXED}; how far members stand off a perfect spacing is told by the readings, within 2 … 13 mm"
    ),
)
def member_uncertainty(
    line_sigma_mm: Annotated[Number, Arg("s_line", "mm", "uncertainty of the spacing there", 0)],
    build_mm: Annotated[Number, Arg("s_build", "mm", "scatter of the members about the spacing", 0, 60)],
    share: Annotated[Number, Arg("g", "", "weight of its own readings", 0, 1)],
) -> Number:
    return ((1 - share) ** 2 * line_sigma_mm**2 + (1 - share) * build_mm**2) ** 0.5


@formula(
    title="share of a pull that reaches the near end of a member",
    symbol="R",
    expression="R = F · (B − x) / B",
    unit="N",
    source=Source("Simple beam from wall to wall (statics)"),
)
def end_share(
    pull_n: Annotated[Number, Arg("F", "N", "pull of a foot", 0)],
    at_mm: Annotated[Number, Arg("x", "mm", "foot from that end", 0, 6000)],
    length_mm: Annotated[Number, Arg("B", "mm", "member from wall to wall", 100, 6000)],
) -> Number:
    return pull_n * (length_mm - at_mm) / length_mm
