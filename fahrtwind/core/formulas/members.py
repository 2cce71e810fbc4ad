"""Members under the skin: where a regular spacing puts them and how surely."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

REGRESSION = "Straight-line regression x = a + p·k (for example Draper and Smith, Applied Regression Analysis)"


@formula(title="position of a member", symbol="x_k", expression="x_k = a + p · k", unit="mm", source=Source(REGRESSION))
def member_position(
    first_mm: Annotated[Number, Arg("a", "mm", "first member")],
    pitch_mm: Annotated[Number, Arg("p", "mm", "pitch", 50, 3000)],
    index: Annotated[Number, Arg("k", "", "count from the first")],
) -> Number:
    return first_mm + pitch_mm * index


@formula(title="uncertainty of a member's position", symbol="s_k",
         expression="s_k = √(s_a² + 2·k·cov(a, p) + k²·s_p² + s_build²)", unit="mm",
         source=Source(f"{REGRESSION}; s_build, how far members stand off a perfect spacing: common practice, no source"))  # fmt: skip
def member_uncertainty(
    first_variance_mm2: Annotated[Number, Arg("s_a²", "mm²", "variance of the first member", 0)],
    covariance_mm2: Annotated[Number, Arg("cov(a, p)", "mm²", "covariance of first member and pitch")],
    pitch_variance_mm2: Annotated[Number, Arg("s_p²", "mm²", "variance of the pitch", 0)],
    index: Annotated[Number, Arg("k", "", "count from the first")],
    build_mm: Annotated[Number, Arg("s_build", "mm", "scatter of the members themselves", 0, 50)],
) -> Number:
    return (first_variance_mm2 + 2 * index * covariance_mm2 + index**2 * pitch_variance_mm2 + build_mm**2) ** 0.5
