"""Bolts, and washers that bear on a skin."""

from typing import Annotated

from fahrtwind.core.formulas.declare import Arg, Number, Source, formula

Area = Annotated[Number, Arg("A_s", "mm²", "stress area", 1, 200)]
Strength = Annotated[Number, Arg("R_m", "N/mm²", "tensile strength", 100, 1300)]


@formula(
    title="bolt in tension",
    symbol="N",
    expression="N = R_m · A_s",
    unit="N",
    source=Source("ISO 898-1:2013 and ISO 3506-1:2020, load at tensile strength over the stress area"),
)
def bolt_tension(strength_n_mm2: Strength, area_mm2: Area) -> Number:
    return strength_n_mm2 * area_mm2


@formula(
    title="bolt in shear",
    symbol="V",
    expression="V = 0.5 · R_m · A_s",
    unit="N",
    source=Source(
        "EN 1993-1-4:2006, 6.2(3): α_v = 0.5 for stainless bolts through the thread (0.6 for class 8.8)"
    ),
)
def bolt_shear(strength_n_mm2: Strength, area_mm2: Area) -> Number:
    return 0.5 * strength_n_mm2 * area_mm2


@formula(
    title="stress area of a thread",
    symbol="A_s",
    expression="A_s = π/4 · (d − c · P)²",
    unit="mm²",
    source=Source("ISO 898-1:2013, 9.1.6.1 (metric, c = 0.9382); ASME B1.1 Appendix B (inch, c = 0.9743)"),
)
def thread_stress_area(
    diameter_mm: Annotated[Number, Arg("d", "mm", "nominal diameter", 2, 30)],
    pitch_mm: Annotated[Number, Arg("P", "mm", "thread pitch", 0.3, 4)],
    form: Annotated[Number, Arg("c", "", "form of the thread", 0.9, 1.0)],
) -> Number:
    return 3.141592653589793 / 4 * (diameter_mm - form * pitch_mm) ** 2


@formula(
    title="tightening torque",
    symbol="T",
    expression="T = K · d · F / 1000",
    unit="N·m",
    source=Source(
        "Nut-factor relation; K about 0.20 dry, 0.15 oiled (Shigley, Mechanical Engineering Design, 8-8)"
    ),
)
def tightening_torque(
    nut_factor: Annotated[Number, Arg("K", "", "nut factor", 0.05, 0.4)],
    diameter_mm: Annotated[Number, Arg("d", "mm", "nominal diameter", 2, 30)],
    preload_n: Annotated[Number, Arg("F", "N", "preload", 0)],
) -> Number:
    return nut_factor * diameter_mm * preload_n / 1000


@formula(
    title="bearing of a fastener on the edge of its hole",
    symbol="B",
    expression="B = min(1.2 · l_c · t, 2.4 · d · t) · F_u, l_c = e − d_h/2",
    unit="N",
    source=Source("AISC 360-16, expressions (J3-6a) and (J3-6c): full bearing from 2.5 d to the edge"),
)
def hole_bearing(
    diameter_mm: Annotated[Number, Arg("d", "mm", "fastener diameter", 2, 30)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "thickness", 0.2, 30)],
    strength_n_mm2: Annotated[Number, Arg("F_u", "N/mm²", "strength of the sheet", 5, 700)],
    edge_mm: Annotated[Number, Arg("e", "mm", "middle of the hole to the edge it is pulled to", 1, 5000)],
    hole_mm: Annotated[Number, Arg("d_h", "mm", "hole", 2, 35)],
) -> Number:
    clear = max(edge_mm - hole_mm / 2, 0.0)
    return min(1.2 * clear, 2.4 * diameter_mm) * thickness_mm * strength_n_mm2


@formula(
    title="washer punching through the skin",
    symbol="P",
    expression="P = π · d_w · t · τ",
    unit="N",
    source=Source(
        "Punching shear on the washer's edge; strength of ply and laminate across the thickness: judgement, "
        "cautious end",
        "judgement",
    ),
)
def washer_punching(
    washer_mm: Annotated[Number, Arg("d_w", "mm", "washer or thread", 3, 150)],
    thickness_mm: Annotated[Number, Arg("t", "mm", "skin thickness", 0.5, 60)],
    shear_strength_n_mm2: Annotated[Number, Arg("τ", "N/mm²", "punching shear strength", 0.2, 300)],
) -> Number:
    return 3.141592653589793 * washer_mm * thickness_mm * shear_strength_n_mm2


@formula(
    title="how far a plate spreads what a bolt presses",
    symbol="c",
    expression="c = t · √(f_y / (3 · f_j))",
    unit="mm",
    source=Source("EN 1993-1-8:2005, (6.5), γ_M0 1: T-stub in compression"),
)
def plate_spread(
    thickness_mm: Annotated[Number, Arg("t", "mm", "backing plate", 0.3, 150)],
    yield_n_mm2: Annotated[Number, Arg("f_y", "N/mm²", "its yield", 50, 700)],
    bears_n_mm2: Annotated[Number, Arg("f_j", "N/mm²", "pressure that it bears on", 0.3, 300)],
) -> Number:
    return thickness_mm * (yield_n_mm2 / (3 * bears_n_mm2)) ** 0.5


@formula(
    title="pull that loads a worst bolt like a moment",
    symbol="F",
    expression="F = N + 2 · M / z",
    unit="N",
    source=Source("Bolts in tension, half of all, over the lever to the compressed edge (statics)"),
)
def moment_pull(
    pull_n: Annotated[Number, Arg("N", "N", "pull on the plate")],
    moment_n_mm: Annotated[Number, Arg("M", "N·mm", "moment at the foot of the post", 0)],
    lever_mm: Annotated[Number, Arg("z", "mm", "compressed edge to the bolts in tension", 1, 500)],
) -> Number:
    return pull_n + 2 * moment_n_mm / lever_mm


@formula(
    title="length of a bolt through a stack",
    symbol="l",
    expression="l = g + w + n + 2 · p",
    unit="mm",
    source=Source("Two threads beyond the nut: common practice, no source", "common practice"),
)
def bolt_length(
    grip_mm: Annotated[Number, Arg("g", "mm", "parts between head and nut", 0, 400)],
    washers_mm: Annotated[Number, Arg("w", "mm", "washers", 0, 20)],
    nut_mm: Annotated[Number, Arg("n", "mm", "height of the nut", 0, 30)],
    pitch_mm: Annotated[Number, Arg("p", "mm", "thread pitch", 0.2, 4)],
) -> Number:
    return grip_mm + washers_mm + nut_mm + 2 * pitch_mm


@formula(
    title="preload that a bolt is tightened to",
    symbol="F_V",
    expression="F_V = s · R_p · A_s",
    unit="N",
    source=Source(
        "Shigley, Mechanical Engineering Design, (8-31): 0.75 of proof where joints are taken apart"
    ),
)
def proof_preload(
    share: Annotated[Number, Arg("s", "", "share of proof", 0.1, 1)],
    proof_n_mm2: Annotated[Number, Arg("R_p", "N/mm²", "proof stress", 100, 1100)],
    area_mm2: Area,
) -> Number:
    return share * proof_n_mm2 * area_mm2


@formula(
    title="thread that has to be engaged",
    symbol="l_e",
    expression="l_e = m · d",
    unit="mm",
    source=Source(
        "One diameter in steel, two in aluminium: common practice, no source", confidence="common practice"
    ),
)
def engagement(
    times: Annotated[Number, Arg("m", "", "diameters", 0.8, 3)],
    diameter_mm: Annotated[Number, Arg("d", "mm", "nominal diameter", 2, 30)],
) -> Number:
    return times * diameter_mm
