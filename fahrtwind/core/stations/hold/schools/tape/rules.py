"""Snags of foam tape: surface, warmth, time, pad."""

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.document import Vehicle
from fahrtwind.core.job.panel import FoamTape
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length, say_temperature
from fahrtwind.core.stations.hold.schools.tape.chain import bonded_pad_mm
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.survey.findings import SurveyFindings
from fahrtwind.core.tables.feet import TAPE_LEAST_DEG_C

TAPE_GUIDANCE = "Adhesive foam tape makers' general guidance"
FULL_DWELL_H = 72.0
TOUCHING_MM = 1.0


def _taped(holders: tuple[Holder, ...]) -> Iterator[tuple[Holder, FoamTape]]:
    for holder in holders:
        if isinstance(holder.hold, FoamTape):
            yield (holder, holder.hold)


@rule("tape-on-membrane", "stop", "hold", "Tape on a membrane", TAPE_GUIDANCE)
def tape_on_membrane(vehicle: Vehicle, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, _ in _taped(holders):
        if vehicle.skin == "membrane":
            why = (
                "The membrane is loose: the tape holds on the membrane, the membrane on nothing."
                if vehicle.membrane == "loose"
                else "Foam tape does not hold on roof membranes, and the membrane's own bond is not known."
            )
            yield Found(
                place=f"{holder.path}.hold",
                where=holder.name,
                why=why,
                remedy="Screw into the trusses and seal every hole.",
            )


@rule("tape-surface", "caution", "hold", "Surface for tape not known to be sound", TAPE_GUIDANCE)
def tape_surface(vehicle: Vehicle, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, _ in _taped(holders):
        if vehicle.skin != "membrane" and vehicle.surface != "sound":
            yield Found(
                place=f"{holder.path}.hold",
                where=holder.name,
                why="Tape holds no better than the paint or gelcoat under it.",
                remedy="Cross-cut a hidden spot and pull tape from it; then set the surface to "
                "sound or go down to metal.",
            )


@rule("tape-crown-unknown", "caution", "hold", "Tape on a roof whose crown is not known", TAPE_GUIDANCE)
def tape_crown_unknown(surveyed: SurveyFindings, holders: tuple[Holder, ...]) -> Iterator[Found]:
    if surveyed.crown is None:
        for holder, _ in _taped(holders):
            yield Found(
                place=f"{holder.path}.hold",
                where=holder.name,
                why="A flat foot pulled down onto a curve keeps a peel load for ever; nobody has "
                "measured the curve.",
                remedy="Lay a straight-edge across at the feet and type the gaps in Survey.",
            )


@rule("tape-too-cold", "stop", "hold", "Too cold for tape", TAPE_GUIDANCE)
def tape_too_cold(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        if hold.temperature is not None and hold.temperature.deg_c < TAPE_LEAST_DEG_C:
            yield Found(
                place=f"{holder.path}.hold.temperature",
                where=holder.name,
                why=f"At {say_temperature(hold.temperature.deg_c, units)} the tape does not flow "
                f"into the surface.",
                remedy=f"Wait for {say_temperature(21, units)} or warm the roof and the panel.",
                quantity="temperature",
                value=hold.temperature.deg_c,
                limit=TAPE_LEAST_DEG_C,
                unit="°C",
            )


@rule("tape-dwell", "caution", "hold", "Tape loaded before full bond", TAPE_GUIDANCE)
def tape_dwell(units: UnitSystem, holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        if hold.dwell_h < FULL_DWELL_H:
            yield Found(
                place=f"{holder.path}.hold.dwell_h",
                where=holder.name,
                why=f"After {hold.dwell_h:g} h the bond is not complete; 72 h near "
                f"{say_temperature(21, units)} are.",
                remedy="Do not drive before.",
                quantity="dwell",
                value=hold.dwell_h,
                limit=FULL_DWELL_H,
                unit="h",
            )


@rule("tape-edge-open", "caution", "hold", "Tape edge not shielded", TAPE_GUIDANCE)
def tape_edge_open(holders: tuple[Holder, ...]) -> Iterator[Found]:
    for holder, hold in _taped(holders):
        if not hold.sealed_edge:
            yield Found(
                place=f"{holder.path}.hold.sealed_edge",
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
                place=f"{holder.path}.hold.pad_width",
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
