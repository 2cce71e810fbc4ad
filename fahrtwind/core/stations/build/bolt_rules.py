"""Snags of bolts: locking against grease, threads that gall, tubes that are squeezed, nuts out of reach."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.formulas.bolts import engagement
from fahrtwind.core.job.carrier import Carrier, Rack
from fahrtwind.core.job.sections import OwnSection
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_force, say_length, say_torque
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.house import rule
from fahrtwind.core.tables.fasteners import BOLTS

PRACTICE = "common practice, no source"
HEADS = "ISO 4017: across flats, height of the head 0.66 d, from memory"
HEAD_HIGH = 0.66
SUNK = "ISO 10642: height of the head 0.55 d, from memory"
SUNK_DEEP = 0.55
JUNKER = "Junker 1969, DIN 65151: transverse vibration tests"


@rule("grease-and-glue", "stop", "build", "Anti-seize and threadlocker on one thread", PRACTICE)
def grease_and_glue(
    workshop: Workshop, bolts_by_carrier: tuple[tuple[BoltLine, ...], ...]
) -> Iterator[Found]:
    bolting = workshop.bolting
    if any(bolts_by_carrier) and bolting.locking == "threadlocker" and bolting.lubrication != "dry":
        yield Found(
            place="workshop.bolting.locking",
            where="bolts of the carriers",
            why="Threadlocker does not cure on a greased thread: the nut comes off.",
            remedy="Threads clean and dry for threadlocker, or a lock nut with anti-seize.",
        )


@rule("threads-gall", "caution", "build", "Stainless on stainless, dry", PRACTICE)
def threads_gall(workshop: Workshop, bolts_by_carrier: tuple[tuple[BoltLine, ...], ...]) -> Iterator[Found]:
    bolting = workshop.bolting
    if any(bolts_by_carrier) and bolting.lubrication == "dry" and bolting.locking != "threadlocker":
        yield Found(
            place="workshop.bolting.lubrication",
            where="bolts of the carriers",
            why="Dry stainless threads weld to one another and shear off.",
            remedy="Anti-seize on the thread, and the torque that goes with it.",
        )


@rule("locks-little", "caution", "build", "Spring washers do not lock", JUNKER)
def locks_little(workshop: Workshop, bolts_by_carrier: tuple[tuple[BoltLine, ...], ...]) -> Iterator[Found]:
    if any(bolts_by_carrier) and workshop.bolting.locking == "spring_washer":
        yield Found(
            place="workshop.bolting.locking",
            where="bolts of the carriers",
            why="Under vibration across the bolt a spring washer lets the nut turn like none.",
            remedy="Nylon-insert nuts, or serrated flanges on bare metal.",
        )


@rule("tube-squeezed", "caution", "build", "A tight bolt dents its tube", PRACTICE, each="carriers")
def tube_squeezed(carrier: Carrier, bolts: tuple[BoltLine, ...], units: UnitSystem) -> Iterator[Found]:
    for line in bolts:
        if line.tight.set_by == "wall":
            torque, force = line.tight.torque_n_m, say_force(line.tight.preload_n, units)
            bears = f"{force} of preload, {say_torque(torque, units)}"
            yield Found(
                place="workshop.bolting.spacers",
                where=f"{carrier.name}, {line.joint}",
                why=f"The tube's wall bears {bears}; that does not stay tight.",
                remedy=f"A spacer sleeve of {say_length(line.hollow_mm, units)} inside, then full torque.",
                quantity="torque",
                value=torque,
                unit="N·m",
            )


@rule(
    "nut-out-of-reach",
    "stop",
    "build",
    "No room for a spanner",
    "ISO 2725: sockets, from memory",
    each="carriers",
)
def nut_out_of_reach(carrier: Carrier, bolts: tuple[BoltLine, ...], units: UnitSystem) -> Iterator[Found]:
    for line in bolts:
        if line.room_mm is not None and line.room_mm < line.socket_mm / 2:
            yield Found(
                place=f"carriers.{carrier.id}.section",
                where=f"{carrier.name}, {line.joint}",
                why=f"From the bolt to the next wall are {say_length(line.room_mm, units)}; a socket needs "
                f"{say_length(line.socket_mm / 2, units)}.",
                remedy="A wider section, or a bolt held by its head with the nut outside.",
                quantity="room",
                value=line.room_mm,
                limit=line.socket_mm / 2,
                unit="mm",
            )


@rule("thread-in-wall", "stop", "build", "Too little thread in the metal", PRACTICE, each="carriers")
def thread_in_wall(carrier: Carrier, bolts: tuple[BoltLine, ...], units: UnitSystem) -> Iterator[Found]:
    soft = carrier.alloy not in ("1.4301", "S235")
    for line in bolts:
        if line.engaged_mm is None:
            continue
        least = float(engagement(2.0 if soft else 1.0, BOLTS[line.size].diameter_mm))
        if line.engaged_mm < least:
            yield Found(
                place="workshop.bolting.corners",
                where=f"{carrier.name}, {line.joint}",
                why=f"{line.size} has {say_length(line.engaged_mm, units)} of thread in the wall; "
                f"{say_length(least, units)} hold what the bolt does.",
                remedy="Nuts, rivet nuts, or a block of metal behind the wall.",
                quantity="thread",
                value=line.engaged_mm,
                limit=least,
                unit="mm",
            )


@rule("head-too-large", "stop", "build", "The bolt's head does not fit the slot", HEADS, each="carriers")
def head_too_large(carrier: Carrier, units: UnitSystem) -> Iterator[Found]:
    sections = [carrier.section, *([carrier.bar_section] if isinstance(carrier, Rack) else [])]
    bolt = BOLTS[JOINT_BOLT]
    for section in sections:
        if not isinstance(section, OwnSection):
            continue
        for room, needs, way in (
            (section.slot_wide, bolt.flats_mm, "wide"),
            (section.slot_deep, HEAD_HIGH * bolt.diameter_mm, "deep"),
        ):
            if room is not None and room.mm < needs:
                yield Found(
                    place=f"carriers.{carrier.id}.section",
                    where=f"{carrier.name}, head of {bolt.name}",
                    why=f"The slot is {say_length(room.mm, units)} {way} inside; "
                    f"a head needs {say_length(needs, units)}.",
                    remedy="Hammer heads or slot nuts that the profile's maker sells.",
                    quantity=way,
                    value=room.mm,
                    limit=needs,
                    unit="mm",
                )


@rule("countersink-too-deep", "stop", "build", "Countersunk head does not seat", SUNK, each="carriers")
def countersink_too_deep(
    carrier: Carrier, bolts: tuple[BoltLine, ...], workshop: Workshop, units: UnitSystem
) -> Iterator[Found]:
    if workshop.bolting.heads != "countersunk" or not bolts or isinstance(carrier.section, OwnSection):
        return
    walls = [carrier.section.wall.mm]
    if isinstance(carrier, Rack) and not isinstance(carrier.bar_section, OwnSection):
        walls.append(carrier.bar_section.wall.mm)
    deep = SUNK_DEEP * BOLTS[JOINT_BOLT].diameter_mm
    if min(walls) < deep:
        yield Found(
            place="workshop.bolting.heads",
            where=carrier.name,
            why=f"Its head is {say_length(deep, units)} deep, the wall {say_length(min(walls), units)}: "
            "the hole becomes a knife edge.",
            remedy="Button heads, or hexagon heads with a washer.",
            quantity="wall",
            value=min(walls),
            limit=deep,
            unit="mm",
        )
