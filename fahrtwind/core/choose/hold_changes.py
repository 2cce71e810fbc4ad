"""What may be changed to make a panel hold, one kind at a time, each with how much it asks for."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.edits import Edit, SetValue, SpreadFeet, apply_edits
from fahrtwind.core.job.carrier import MOST_STANDINGS, Carrier, Posts, Rack
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import BasePlate, Bracket, Drilled, FoamTape, PlacedPanel, Screws, ThroughBolts
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.hold.carriers.actions import PutOnRails
from fahrtwind.core.stations.hold.carriers.rails import carrier_of
from fahrtwind.core.stations.hold.carriers.standing import StandAnywhere
from fahrtwind.core.stations.hold.schools.drilled import leg_wanted_mm
from fahrtwind.core.stations.hold.schools.lengths import fitting_mm
from fahrtwind.core.stations.hold.tethers.actions import TetherPanel
from fahrtwind.core.tables.feet import BEAD_GAP_MM

FEWEST_FEET, MOST_FEET, MOST_FASTENERS = 4, 12, 4
PLATES_MM, POSTS_MM, MOST_CLAMP_BOLTS = (10.0, 12.0), (48.3, 60.3), 4
FRAME_BOLTS = ("M8", "M10")
MOST_BEADS = 12
PADS_MM = ((120.0, 60.0), (150.0, 75.0), (200.0, 100.0))
SCREWS_UP, BOLTS_UP = ("#12", "#14"), ("M8", "M10")
WASHERS_MM = (40.0, 60.0)
OTHER_WAYS = ("school", "span", "carrier")
"""Kinds that hold the panel in another way altogether."""
OF_THE_WIND = frozenset({"fairing", "carrier", "crossbars"})
"""Kinds after which the wind does something else to the panel: they alone add to what it bears by itself."""


@dataclass(frozen=True, slots=True)
class Change:
    """A change of one kind, so that two of a kind are not combined. ``burden``: the gentler the less."""

    kind: str
    words: str
    edits: tuple[Edit, ...]
    burden: float


def changes_of(job: Job, panel: PlacedPanel) -> Iterator[Change]:
    """All that may be changed, one kind at a time."""
    carrier = carrier_of(panel, job.carriers)
    if carrier is not None:
        yield from _of_carrier(job, carrier)
        return
    path, hold = f"panels.{panel.id}.hold", panel.hold
    for count in range(FEWEST_FEET, MOST_FEET + 1, 2):
        yield from _of_feet(job, panel, count)
    for bolt in FRAME_BOLTS[
        FRAME_BOLTS.index(hold.bracket.frame_bolt) + 1 if hold.bracket.frame_bolt in FRAME_BOLTS else 0 :
    ]:
        edit = SetValue(path=f"{path}.bracket.frame_bolt", value=bolt)
        yield Change("frame bolt", f"{bolt} at the frame", (edit,), 1.0 + FRAME_BOLTS.index(bolt))
    if isinstance(hold, FoamTape):
        yield from _of_tape(path, hold)
        screws = SetValue(path=path, value={"school": "screws"})
        yield Change("school", "screws into members", (screws,), 12.0)
    else:
        yield from _of_fasteners(path, hold, job)
        yield from _onto_tape(path)
    if panel.span is None:
        bars = f"panels.{panel.id}.span"
        edits = (SetValue(path=bars, value={}), SetValue(path=f"{bars}.ends.count", value=4))
        yield Change("span", "bars from member to member, four screws an end", edits, 15.0)
    if job.wish.one_lost and not any(t.panel == panel.id for t in job.tethers):
        yield Change("tether", "two tethers", (TetherPanel(panel=panel.id),), 5.0)
    row = tuple(p.id for p in job.panels if abs(p.y.mm - panel.y.mm) < 50 and p.carrier is None)
    words = "rails under it" if len(row) == 1 else f"rails under its row of {len(row)}"
    yield Change("carrier", words, (PutOnRails(panels=row),), 20.0)
    if job.assumptions.front_edge == "open":
        faired = SetValue(path="assumptions.front_edge", value="faired")
        yield Change("fairing", "a fairing before the front edges", (faired,), 9.0)


def spread_to(panel: PlacedPanel, count: int) -> SpreadFeet:
    """The panel's feet set anew on the members, along the edges where it has them."""
    sides = all(f.side in ("port", "starboard") for f in panel.feet)
    return SpreadFeet(panel=panel.id, count=count, along="sides" if sides else "ends")


def _of_feet(job: Job, panel: PlacedPanel, count: int) -> Iterator[Change]:
    spread, more = spread_to(panel, count), count - len(panel.feet)
    if more:
        yield Change("feet", f"{count} feet", (spread,), max(2.0 * more, 1.0))
        return
    anew = next(p for p in apply_edits(job, [spread]).panels if p.id == panel.id)
    if anew.feet != panel.feet:
        yield Change("feet", "feet set anew on the members", (spread,), 0.5)


def _of_tape(path: str, hold: FoamTape) -> Iterator[Change]:
    for length, width in PADS_MM:
        if length * width > hold.pad_length.mm * hold.pad_width.mm:
            edits = [
                SetValue(path=f"{path}.pad_length", value={"mm": length}),
                SetValue(path=f"{path}.pad_width", value={"mm": width}),
            ]
            if hold.bond == "adhesive":  # as many beads as find room with their gaps
                beads = int((width + BEAD_GAP_MM) / (hold.bead.mm + BEAD_GAP_MM))
                edits.append(SetValue(path=f"{path}.beads", value=max(hold.beads, min(beads, MOST_BEADS))))
            yield Change("pad", f"pads {length:.0f} × {width:.0f} mm", tuple(edits), length * width / 4000)


def _onto_tape(path: str) -> Iterator[Change]:
    """The largest pads of foam tape on brackets that carry them."""
    length, width = PADS_MM[-1]
    lever = Bracket().lever.mm
    bracket = {"length": {"mm": length}, "toe": {"mm": width - lever}}
    pads = {"pad_length": {"mm": length}, "pad_width": {"mm": width}}
    taped = SetValue(path=path, value={"school": "tape", "bracket": bracket, **pads})
    yield Change("school", f"foam tape, pads {length:.0f} × {width:.0f} mm", (taped,), 16.0)


def _of_fasteners(path: str, hold: Drilled, job: Job) -> Iterator[Change]:
    units = job.units
    for count in range(hold.count + 1, MOST_FASTENERS + 1):
        yield so_many_a_foot(path, hold, count, units)
    if isinstance(hold, Screws):
        yield from _longer(path, hold, job)
        for screw in SCREWS_UP[SCREWS_UP.index(hold.screw) + 1 if hold.screw in SCREWS_UP else 0 :]:
            edit = SetValue(path=f"{path}.screw", value=screw)
            yield Change("fastener", f"{screw} screws", (edit,), 1.0)
        return
    for bolt in BOLTS_UP[BOLTS_UP.index(hold.bolt) + 1 if hold.bolt in BOLTS_UP else 0 :]:
        yield Change("fastener", f"{bolt} bolts", (SetValue(path=f"{path}.bolt", value=bolt),), 1.5)
    if not isinstance(hold, ThroughBolts):
        return
    for washer in WASHERS_MM:
        if washer > hold.washer.mm:
            edit = SetValue(path=f"{path}.washer", value={"mm": washer})
            yield Change("washer", f"washers of {washer:.0f} mm", (edit,), 0.5)


def so_many_a_foot(path: str, hold: Drilled, count: int, units: UnitSystem) -> Change:
    """So many fasteners, on a bracket whose base has room for their row."""
    edits = [SetValue(path=f"{path}.count", value=count)]
    leg = leg_wanted_mm(hold.model_copy(update={"count": count}))
    bracket = hold.bracket
    wanted = {
        "lever": (bracket.lever.mm, leg),
        "toe": (bracket.toe.mm, leg),
        "length": (bracket.length.mm, 2 * leg),
    }
    short = {name: need for name, (now, need) in wanted.items() if now < need}
    edits += [SetValue(path=f"{path}.bracket.{name}", value={"mm": need}) for name, need in short.items()]
    words = f"{count} a foot" if count > 1 else "one a foot"
    if short:
        words += f", on brackets with legs of {say_length(leg, units)}"
    return Change("count", words, tuple(edits), 3.0 * (count - hold.count))


def _longer(path: str, hold: Screws, job: Job) -> Iterator[Change]:
    """The longest screws that end in the truss: in wood every millimetre of thread holds."""
    longest = max(fitting_mm(hold, job.vehicle, job.members, job.units), default=0.0)
    if job.members.kind == "wood_truss" and longest > hold.length.mm:
        edit = SetValue(path=f"{path}.length", value={"mm": longest})
        yield Change("length", f"screws {say_length(longest, job.units)} long", (edit,), 0.5)


def _of_carrier(job: Job, carrier: Carrier) -> Iterator[Change]:
    path, hold = f"carriers.{carrier.id}", carrier.hold
    what = "a crossbar" if isinstance(carrier, Rack) and carrier.crossbars else "a foot"
    if carrier.feet_at:
        yield from _of_places(carrier, what)
    elif carrier.every > 1 and not (isinstance(carrier, Rack) and carrier.points):
        yield Change("every", f"{what} at every member", (SetValue(path=f"{path}.every", value=1),), 4.0)
    if isinstance(carrier, Rack):
        yield from _of_rack(path, carrier)
    if isinstance(hold, Drilled) and not (isinstance(carrier, Rack) and carrier.points):
        yield from _of_fasteners(f"{path}.hold", hold, job)
    if isinstance(hold, FoamTape):
        yield from _of_tape(f"{path}.hold", hold)
    for wall in (3.0, 4.0):
        if carrier.section.kind == "tube" and wall > carrier.section.wall.mm:
            edit = SetValue(path=f"{path}.section.wall", value={"mm": wall})
            yield Change("wall", f"rails with a wall of {wall:.0f} mm", (edit,), 2.0)
    if carrier.section.kind == "tube" and carrier.section.height.mm < 60:
        edit = SetValue(path=f"{path}.section.height", value={"mm": 60})
        yield Change("section", "rails 60 mm high", (edit,), 3.0)
    if job.assumptions.front_edge == "open":
        faired = SetValue(path="assumptions.front_edge", value="faired")
        yield Change("fairing", "a fairing before the front edges", (faired,), 9.0)


def _of_places(carrier: Carrier, what: str) -> Iterator[Change]:
    """One or two more, all set anew."""
    now = len(carrier.feet_at)
    for count in (now + 1, now + 2):
        if count <= MOST_STANDINGS:
            edit = StandAnywhere(carrier=carrier.id, count=count)
            words = f"{what} at {count} places under each rail" if what == "a foot" else f"{count} crossbars"
            yield Change("every", words, (edit,), 4.0 * (count - now))


def _of_rack(path: str, rack: Rack) -> Iterator[Change]:
    for wall in (5.0, 6.0, 8.0):
        if rack.joint == "angles" and wall > rack.angle_wall.mm:
            edit = SetValue(path=f"{path}.angle_wall", value={"mm": wall})
            yield Change("corner", f"corner angles of {wall:.0f} mm", (edit,), wall / 4)
        if rack.posts is None and wall > rack.hold.bracket.thickness.mm:
            edit = SetValue(path=f"{path}.hold.bracket.thickness", value={"mm": wall})
            yield Change("bracket", f"brackets of {wall:.0f} mm", (edit,), wall / 4)
    if rack.joint == "clamps" and rack.clamp.bolts < MOST_CLAMP_BOLTS:
        edit = SetValue(path=f"{path}.clamp.bolts", value=MOST_CLAMP_BOLTS)
        yield Change("clamp", "four bolts a clamp", (edit,), 2.0)
    if rack.posts is not None:
        yield from _of_posts(path, rack, rack.posts)
    under = rack.crossbars
    if under is not None and under.section.kind == "tube" and under.section.height.mm < 60:
        higher = rack.height.mm + 60 - under.section.height.mm
        edits = (
            SetValue(path=f"{path}.height", value={"mm": higher}),
            SetValue(path=f"{path}.crossbars.section.height", value={"mm": 60}),
        )
        yield Change("crossbars", "crossbars 60 mm high", edits, 3.0)
    if rack.joint == "bolt":
        edit = SetValue(path=f"{path}.joint", value="angles")
        yield Change("joint", "angles in the corners", (edit,), 3.0)
    if rack.bar_section.kind == "tube" and rack.bar_section.height.mm < 60:
        edit = SetValue(path=f"{path}.bar_section.height", value={"mm": 60})
        yield Change("bars", "bars 60 mm high", (edit,), 3.0)


def _of_posts(path: str, rack: Rack, posts: Posts) -> Iterator[Change]:
    """Thicker plates and posts."""
    if isinstance(rack.hold, BasePlate):
        for thick in PLATES_MM:
            if thick > rack.hold.thickness.mm:
                edit = SetValue(path=f"{path}.hold.thickness", value={"mm": thick})
                yield Change("plate", f"base plates of {thick:.0f} mm", (edit,), thick / 4)
    if posts.section.kind == "round":
        for diameter in POSTS_MM:
            if diameter > posts.section.diameter.mm:
                edit = SetValue(path=f"{path}.posts.section.diameter", value={"mm": diameter})
                yield Change("posts", f"posts of {diameter:.1f} mm", (edit,), diameter / 12)
