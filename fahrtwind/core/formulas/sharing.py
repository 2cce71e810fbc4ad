"""How a stiff panel on elastic feet shares its load."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

STATICS = Source(
    "Equilibrium of a rigid plate on linear springs (statics of a statically indeterminate support)"
)


@formula(
    title="pull on one foot",
    symbol="F",
    expression="F = k · (w + θ_x · x + θ_y · y), from ΣF, ΣF·x and ΣF·y",
    unit="N",
    source=STATICS,
)
def foot_pull(
    stiffness_n_mm: Annotated[Number, Arg("k", "N/mm", "stiffness of the foot", 0)],
    lift_mm: Annotated[Number, Arg("w", "mm", "lift of the panel's centre")],
    pitch: Annotated[Number, Arg("θ_x", "rad", "tilt along")],
    roll: Annotated[Number, Arg("θ_y", "rad", "tilt across")],
    x_mm: Annotated[Number, Arg("x", "mm", "foot along, from the panel's centre")],
    y_mm: Annotated[Number, Arg("y", "mm", "foot across, from the panel's centre")],
) -> Number:
    return stiffness_n_mm * (lift_mm + pitch * x_mm + roll * y_mm)


@formula(
    title="force on one foot along the roof",
    symbol="S",
    expression="S = √((H_x/n − M·y/J)² + (H_y/n + M·x/J)²)",
    unit="N",
    source=Source("Eccentrically loaded fastener group, elastic method (statics; AISC Manual, Part 7)"),
)
def foot_shear(
    along_n: Annotated[Number, Arg("H_x/n", "N", "even share along")],
    across_n: Annotated[Number, Arg("H_y/n", "N", "even share across")],
    twist_n_mm: Annotated[Number, Arg("M/J", "N/mm", "twisting moment over the polar sum of the feet")],
    x_mm: Annotated[Number, Arg("x", "mm", "foot along, from the centre of the feet")],
    y_mm: Annotated[Number, Arg("y", "mm", "foot across, from the centre of the feet")],
) -> Number:
    return ((along_n - twist_n_mm * y_mm) ** 2 + (across_n + twist_n_mm * x_mm) ** 2) ** 0.5


@formula(
    title="pull on one foot by a beam on its feet",
    symbol="F",
    expression="F = F₀ + F₁ · q, from EI·w⁗ = p(x) and F = k·w at the feet",
    unit="N",
    source=Source(
        "Euler–Bernoulli beam on springs (statics): a side of the frame loaded by the glass at 45° or "
        "evenly, which bounds a plate-and-frame model within 1 %, or a rail loaded by its clamps"
    ),
)
def side_frame_pull(
    constant_n: Annotated[Number, Arg("F₀", "N", "weight and inertia")],
    per_pa: Annotated[Number, Arg("F₁", "N/Pa", "slipstream of one pascal")],
    pressure_pa: Annotated[Number, Arg("q", "Pa", "dynamic pressure", 0)],
) -> Number:
    return constant_n + per_pa * pressure_pa
