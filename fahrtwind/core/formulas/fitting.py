"""Holes that have to meet: how far they may miss, and the slot that takes it up."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

Most = Annotated[Number, Arg("a", "mm", "most that it is off, either way", 0, 50)]


@formula(
    title="how far a hole is off, one standard deviation",
    symbol="σ",
    expression="σ = √((a₁² + a₂² + a₃²) / 3)",
    unit="mm",
    source=Source("JCGM 100:2008 (GUM), 4.3.7: equally likely within ± a has the standard deviation a/√3"),
)
def hole_sigma(
    measuring_mm: Annotated[Number, Arg("a₁", "mm", "measured, at most off", 0, 50)],
    marking_mm: Annotated[Number, Arg("a₂", "mm", "marked, at most off", 0, 50)],
    drilling_mm: Annotated[Number, Arg("a₃", "mm", "drilled, at most off", 0, 50)],
) -> Number:
    return ((measuring_mm**2 + marking_mm**2 + drilling_mm**2) / 3) ** 0.5


@formula(
    title="slot that lets a bolt through",
    symbol="l",
    expression="l = d + 2 · (|δ| + z · √2 · σ + g)",
    unit="mm",
    source=Source(
        "Two holes of the same scatter, one of them where the row begins; all of them fit with the wanted "
        "likelihood if each does with its root (Šidák 1967): on the safe side"
    ),
)
def slot_length(
    diameter_mm: Annotated[Number, Arg("d", "mm", "bolt", 2, 30)],
    off_mm: Annotated[Number, Arg("δ", "mm", "known to be off", -1000, 1000)],
    quantile: Annotated[Number, Arg("z", "", "quantile of the normal distribution, both sides", 0, 6)],
    sigma_mm: Annotated[Number, Arg("σ", "mm", "standard deviation of a hole", 0, 60)],
    growth_mm: Annotated[Number, Arg("g", "mm", "grows and shrinks with warmth, either way", 0, 50)],
) -> Number:
    return diameter_mm + 2 * (abs(off_mm) + quantile * 2**0.5 * sigma_mm + growth_mm)
