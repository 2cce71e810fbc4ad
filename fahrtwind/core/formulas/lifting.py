"""What people can lift, and when wind takes it from them."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula


@formula(
    title="load that one person may lift",
    symbol="RWL",
    expression="RWL = 23 · 250/H · (1 − 0.0003 · |V − 750|) · (0.82 + 45/D) · CM",
    unit="kg",
    source=Source(
        "NIOSH 94-110 (Waters, Putz-Anderson, Garg 1994), revised lifting equation without twisting, now and "
        "then (AM = FM = 1)"
    ),
)
def recommended_weight(
    reach_mm: Annotated[Number, Arg("H", "mm", "hands in front of the ankles", 250, 630)],
    height_mm: Annotated[Number, Arg("V", "mm", "hands over the ground", 0, 1750)],
    travel_mm: Annotated[Number, Arg("D", "mm", "how far up", 250, 1750)],
    coupling: Annotated[Number, Arg("CM", "", "grip", 0.9, 1)],
) -> Number:
    return 23.0 * (250 / reach_mm) * (1 - 0.0003 * abs(height_mm - 750)) * (0.82 + 45 / travel_mm) * coupling


@formula(
    title="wind at which a force is reached",
    symbol="v",
    expression="v = √(2 · F / (ρ · c · A))",
    unit="m/s",
    source=Source("Wind force F = ½ · ρ · v² · c · A; c of a flat plate 1.8 (EN 1991-1-4:2005, 7.4.3)"),
)
def wind_of_force(
    force_n: Annotated[Number, Arg("F", "N", "force", 0)],
    density_kg_m3: Annotated[Number, Arg("ρ", "kg/m³", "air", 0.5, 1.6)],
    coefficient: Annotated[Number, Arg("c", "", "force coefficient", 0.3, 3)],
    area_m2: Annotated[Number, Arg("A", "m²", "area", 0.01, 60)],
) -> Number:
    return (2 * force_n / (density_kg_m3 * coefficient * area_m2)) ** 0.5
