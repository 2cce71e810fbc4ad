"""Snags of foam tape: surface, warmth, time, pad."""

from collections.abc import Callable, Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.formulas.adhesive import thermal_shear
from fahrtwind.core.formulas.sealing import cure_time
from fahrtwind.core.job.carrier import Carrier
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import FoamTape
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length, say_pressure, say_run, say_share, say_temperature
from fahrtwind.core.stations.hold.schools.tape.chain import bonded_pad_mm
from fahrtwind.core.stations.hold.schools.tape.stress import TapedFoot
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.survey.findings import SurveyFindings
from fahrtwind.core.tables.feet import (
    ADHESIVE_DEPTH_MM,
    ADHESIVE_LEAST_DEG_C,
    BEAD_GAP_MM,
    TAPE_FOR_EVER_N_MM2,
    TAPE_LEAST_DEG_C,
)

TAPE_GUIDANCE = "Adhesive foam tape makers' general guidance"
FULL_DWELL_H, SLOW_BELOW_C, USUAL_C = 72.0, 15.0, 21.0
"""Below 15 °C a bond takes twice as long for every 10 K (judgement)."""
TOUCHING_MM = 1.0
USUAL_HPA = 14.0
"""Vapour at 23 °C and 50 %, on which the depth of a day is told."""
CURES = "moisture cure from the air: common practice, no source"


def _set_at(hold: FoamTape) -> float:
    return hold.temperature.deg_c if hold.temperature is not None else USUAL_C


def _full_h(hold: FoamTape) -> float:
    """Until a tape has flowed, or until beads have cured from both sides to their middle, hours."""
    if hold.bond == "foam tape":
        return FULL_DWELL_H
    return float(cure_time(hold.bead.mm / 2, ADHESIVE_DEPTH_MM, USUAL_HPA, USUAL_HPA))


def _taped(holders: tuple[Holder, ...]) -> Iterator[tuple[Holder, FoamTape]]:
    for holder in holders:
        if isinstance(holder.hold, FoamTape):
            yield (holder, holder.hold)


@rule("tape-on-membrane", "stop", "hold", "Bonded to a membrane", TAPE_GUIDANCE)
def tape_on_membrane(vehicle: Vehicle, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, _ in _taped(holders):
        if vehicle.skin == "membrane":
            why = (
                "The membrane is loose: the bond holds on the membrane, the membrane on nothing."
                if vehicle.membrane == "loose"
                else "Nothing bonds to roof membranes for sure, and the membrane's own bond is not known."
            )
            yield Found(
                place=f"{holder.hold_path}",
                where=holder.name,
                why=why,
                remedy="Screw into the trusses and seal every hole.",
            )


@rule("tape-surface", "caution", "hold", "Surface for tape not known to be sound", TAPE_GUIDANCE)
def tape_surface(vehicle: Vehicle, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, _ in _taped(holders):
        if vehicle.skin != "membrane" and vehicle.surface != "sound":
            yield Found(
                place=f"{holder.hold_path}",
                where=holder.name,
                why="It holds no better than the paint or gelcoat under it.",
                remedy="Cross-cut a hidden spot and pull tape from it; then set the surface to "
                "sound or go down to metal.",
            )


@rule("tape-crown-unknown", "caution", "hold", "Bonded to a roof whose crown is not known", TAPE_GUIDANCE)
def tape_crown_unknown(surveyed: SurveyFindings, holders: tuple[Holder, ...]) -> Iterator[Found]:
    if surveyed.crown is None:
        for holder, hold in _taped(holders):
            yield Found(
                place=f"{holder.hold_path}",
                where=holder.name,
                why="Nobody has measured the curve: beads may not reach the roof at a base's edges."
                if hold.bond == "adhesive"
                else "A flat foot pulled down onto a curve keeps a peel load for ever; nobody has "
                "measured the curve.",
                remedy="Lay a straight-edge across at the feet and type the gaps in Survey.",
            )


THIN_UP_TO = 5.0
"""Times the permanent stress that makers allow: beyond it a foot is refused (judgement)."""
LEAST_TOUCHING = 0.8
CREEP = "Makers' guidance for lasting load, straight in logarithms: judgement"


def _worst_of(
    feet: tuple[TapedFoot, ...], holder: str, of: Callable[[TapedFoot], float | None]
) -> tuple[TapedFoot, float] | None:
    """The foot of a holder with the most of something, and how much; None where nobody knows."""
    known = [(f, value) for f in feet if f.panel == holder and (value := of(f)) is not None]
    return max(known, key=lambda pair: pair[1], default=None)


def _forced(taped: tuple[TapedFoot, ...], holder: Holder, hold: FoamTape, units: UnitSystem) -> Found | None:
    """The foot that its curve pulls at most, in words; None where none is forced."""
    found = _worst_of(taped, holder.id, lambda f: f.permanent_n_mm2)
    if found is None:
        return None
    foot, stress = found
    if stress <= TAPE_FOR_EVER_N_MM2 or foot.radius_mm is None:
        return None
    width, bears = bonded_pad_mm(hold)[1], say_pressure(TAPE_FOR_EVER_N_MM2 * 1e6, units)
    narrow = f", pad them, or at most {say_length(foot.widest_mm, units)} wide" if foot.widest_mm else ""
    return Found(
        place=f"{holder.hold_path}.shaped",
        where=f"{holder.name}, foot {foot.foot}",
        why=f"A flat base {say_length(width, units)} wide on a radius of {say_run(foot.radius_mm, units)} "
        f"pulls with {say_pressure(stress * 1e6, units)} for good; {bears} is what tape bears.",
        remedy=f"Bend or wedge the feet to the roof{narrow}.",
        quantity="permanent peel",
        value=stress * 1e6,
        limit=TAPE_FOR_EVER_N_MM2 * 1e6,
        unit="Pa",
    )


@rule("tape-crown-peels", "stop", "hold", "Flat foot forced onto the crown: it peels", TAPE_GUIDANCE)
def tape_crown_peels(
    taped: tuple[TapedFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        found = _forced(taped, holder, hold, units)
        if found is not None and (found.value or 0.0) > THIN_UP_TO * (found.limit or 0.0):
            yield found


@rule("tape-crown-strains", "caution", "hold", "Flat foot strained by the crown", TAPE_GUIDANCE)
def tape_crown_strains(
    taped: tuple[TapedFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        found = _forced(taped, holder, hold, units)
        if found is not None and (found.value or 0.0) <= THIN_UP_TO * (found.limit or 0.0):
            yield found


@rule(
    "tape-touches-partly", "stop", "hold", "Foot touches the roof only partly", "geometry: chord of the crown"
)
def tape_touches_partly(
    taped: tuple[TapedFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        found = _worst_of(taped, holder.id, lambda f: None if f.touching is None else -f.touching)
        if found is not None and -found[1] < LEAST_TOUCHING:
            width = bonded_pad_mm(hold)[1]
            yield Found(
                place=f"{holder.hold_path}.shaped",
                where=f"{holder.name}, foot {found[0].foot}",
                why=f"It touches on {say_share(-found[1])} of its face, {say_length(width, units)} wide on "
                "this curve: it will peel.",
                remedy="Narrower or bent feet, thicker tape, or a pad shaped to the roof.",
                quantity="touching",
                value=-found[1],
                limit=LEAST_TOUCHING,
                unit="",
            )


@rule("tape-creeps", "stop", "hold", "The bond creeps off on a long drive", CREEP)
def tape_creeps(
    taped: tuple[TapedFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    for holder, _ in _taped(holders):
        found = _worst_of(taped, holder.id, lambda f: f.lasting_n_mm2 - f.lasting_bears_n_mm2)
        if found is not None and found[1] > 0:
            foot = found[0]
            yield Found(
                place=f"{holder.hold_path}.pad_length",
                where=f"{holder.name}, foot {foot.foot}",
                why=f"Cruising pulls with {say_pressure(foot.lasting_n_mm2 * 1e6, units)} at its edge for "
                f"hours; in summer it bears {say_pressure(foot.lasting_bears_n_mm2 * 1e6, units)} so long.",
                remedy="Larger pads, twice the feet, or a fairing.",
                quantity="lasting stress",
                value=foot.lasting_n_mm2 * 1e6,
                limit=foot.lasting_bears_n_mm2 * 1e6,
                unit="Pa",
            )


MOST_SHEAR = 0.5
SETTING_TO_HOT_K = 40.0
ALUMINIUM_ON_STEEL_PER_K = 11.1e-6


@rule(
    "tape-sheared-by-heat", "caution", "hold", "Heat shears the tape under a long rail", "EN 1999-1-1, 3.2.5"
)
def tape_sheared_by_heat(
    carriers: tuple[Carrier, ...], taped: tuple[TapedFoot, ...], units: UnitSystem
) -> Iterator[Found]:
    on_tape = {f.panel for f in taped}
    for carrier in carriers:
        if carrier.id not in on_tape or not isinstance(carrier.hold, FoamTape):
            continue
        run = (carrier.end.mm - carrier.start.mm) / 2
        shear = float(
            thermal_shear(run, ALUMINIUM_ON_STEEL_PER_K, SETTING_TO_HOT_K, carrier.hold.thickness.mm)
        )
        if shear > MOST_SHEAR:
            yield Found(
                place=f"carriers.{carrier.id}.hold.thickness",
                where=carrier.name,
                why=f"Its ends, {say_run(run, units)} from its middle, move {say_share(shear)} of the tape's "
                "thickness between setting and summer.",
                remedy="Thicker tape, two shorter rails with a gap, or slots in the outer feet.",
                quantity="shear",
                value=shear,
                limit=MOST_SHEAR,
                unit="",
            )


@rule("tape-too-cold", "stop", "hold", "Too cold to bond", TAPE_GUIDANCE)
def tape_too_cold(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        glued = hold.bond == "adhesive"
        least = ADHESIVE_LEAST_DEG_C if glued else TAPE_LEAST_DEG_C
        if hold.temperature is not None and hold.temperature.deg_c < least:
            told = say_temperature(hold.temperature.deg_c, units)
            yield Found(
                place=f"{holder.hold_path}.temperature",
                where=holder.name,
                why=f"At {told} the adhesive hardly cures."
                if glued
                else f"At {told} the tape does not flow into the surface.",
                remedy=f"Wait for {say_temperature(21, units)} or warm the roof and the panel.",
                quantity="temperature",
                value=hold.temperature.deg_c,
                limit=least,
                unit="°C",
            )


@rule("tape-dwell", "caution", "hold", "Loaded before full bond", TAPE_GUIDANCE)
def tape_dwell(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        full = _full_h(hold) * 2 ** max((SLOW_BELOW_C - _set_at(hold)) / 10, 0.0)
        if hold.dwell_h < full:
            yield Found(
                place=f"{holder.hold_path}.dwell_h",
                where=holder.name,
                why=f"After {hold.dwell_h:g} h the bond is not complete; {full:.0f} h near "
                f"{say_temperature(_set_at(hold), units)} are.",
                remedy="Do not drive before.",
                quantity="dwell",
                value=hold.dwell_h,
                limit=full,
                unit="h",
            )


@rule("beads-run-together", "stop", "hold", "Beads that cannot cure", CURES)
def beads_run_together(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    """Beads take their moisture from the air in the gaps between them."""
    for holder, hold in _taped(holders):
        room = bonded_pad_mm(hold)[1]
        needed = hold.beads * hold.bead.mm + (hold.beads - 1) * BEAD_GAP_MM
        if hold.bond == "adhesive" and needed > room + TOUCHING_MM:
            yield Found(
                place=f"{holder.hold_path}.beads",
                where=holder.name,
                why=f"{hold.beads} beads and their gaps take {say_length(needed, units)}; the base is "
                f"{say_length(room, units)} wide. No air reaches the middle: it stays soft.",
                remedy="Fewer or narrower beads, with gaps between them.",
                quantity="beads and gaps",
                value=needed,
                limit=room,
                unit="mm",
            )


@rule("bead-under-gap", "stop", "hold", "Beads do not reach the roof", "geometry: sagitta of the crown")
def bead_under_gap(
    taped: tuple[TapedFoot, ...], holders: tuple[Holder, ...], units: UnitSystem
) -> Iterator[Found]:
    """A flat base on a curve stands off at its edges; beads have to fill that too."""
    for holder, hold in _taped(holders):
        found = _worst_of(taped, holder.id, lambda f: None if f.radius_mm is None else -f.radius_mm)
        if hold.bond == "foam tape" or hold.shaped != "flat" or found is None:
            continue
        gap = bonded_pad_mm(hold)[1] ** 2 / (8 * -found[1])
        if gap > hold.thickness.mm:
            yield Found(
                place=f"{holder.hold_path}.thickness",
                where=f"{holder.name}, foot {found[0].foot}",
                why=f"The base stands {say_length(gap, units)} off at its edges; the beads are "
                f"{say_length(hold.thickness.mm, units)} high.",
                remedy="Higher beads on spacers, narrower feet, or feet shaped to the roof.",
                quantity="gap",
                value=gap,
                limit=hold.thickness.mm,
                unit="mm",
            )


@rule("tape-edge-open", "caution", "hold", "Edge of the bond not shielded", TAPE_GUIDANCE)
def tape_edge_open(holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        if not hold.sealed_edge:
            yield Found(
                place=f"{holder.hold_path}.sealed_edge",
                where=holder.name,
                why="Sun and water creep in at an open edge.",
                remedy="Run a bead of sealant round each pad.",
            )


@rule(
    "pad-beyond-base",
    "stop",
    "hold",
    "Pad larger than the base that presses it",
    "geometry: only what is pressed bonds",
)
def pad_beyond_base(holders: tuple[Holder, ...], units: UnitSystem) -> Iterator[Found]:
    for holder in holders:
        hold = holder.hold
        if not isinstance(hold, FoamTape) or not holder.feet:
            continue
        length, width = bonded_pad_mm(hold)
        if hold.pad_length.mm - length > TOUCHING_MM or hold.pad_width.mm - width > TOUCHING_MM:
            yield Found(
                place=f"{holder.hold_path}.pad_width",
                where=holder.name,
                why=f"The pad is {say_length(hold.pad_length.mm, units)} × "
                f"{say_length(hold.pad_width.mm, units)}, the bracket's base "
                f"{say_length(hold.bracket.length.mm, units)} × {say_length(hold.bracket.base_mm, units)}.",
                remedy="Take a bracket as large as the pad, or a smaller pad.",
                quantity="pad area",
                value=hold.pad_length.mm * hold.pad_width.mm,
                limit=length * width,
                unit="mm²",
            )
