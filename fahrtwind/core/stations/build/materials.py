"""What to have in hand before climbing: quantities with spares."""

from __future__ import annotations

from collections import Counter
from functools import partial
from math import ceil

from fahrtwind.core.job.carrier import Rack
from fahrtwind.core.job.panel import BasePlate, OuterFoot
from fahrtwind.core.job.sections import OwnSection
from fahrtwind.core.job.tether import Plate, Strap, WireRope
from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.saying import say_length, say_run, say_size
from fahrtwind.core.stations.build.bolts import BoltLine
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.core.stations.hold.carriers.forced import SHIM_MM, Forced
from fahrtwind.core.stations.hold.carriers.links import JOINT_BOLT
from fahrtwind.core.stations.hold.carriers.rails import clamps_of
from fahrtwind.core.stations.hold.schools import SCHOOLS
from fahrtwind.core.stations.hold.schools.drilled import drills_metal
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.amounts import Amount
from fahrtwind.core.stations.survey.factory_points import PointPlace, RowFit, fit_row
from fahrtwind.core.stations.wire.parts import WirePart
from fahrtwind.core.tables.sealants import FAMILIES

SPARE_SHARE = 0.1
LEAST_SPARES = 2
TAPE_WASTE = 1.2
SMALL_MM = 500.0
HEADED = {"hex": "bolt", "button": "button-head bolt", "countersunk": "countersunk bolt"}
CALLED = {"bridge": "bar"}
"""A bar from member to member is a bar to whoever buys it."""


@dataclass(frozen=True, slots=True)
class Material:
    """``key``: the same whatever units the job is shown in, by which the shop's items are found."""

    item: str
    needed: float
    spare: float
    unit: str
    note: str
    key: str = ""


def materials(
    plan: RoofPlan,
    holders: tuple[Holder, ...],
    marks: tuple[Mark, ...],
    seal: tuple[Amount, ...],
    pieces: tuple[Piece, ...],
    bolts: tuple[BoltLine, ...],
    workshop: Workshop,
) -> tuple[Material, ...]:
    """Everything to buy or to lay ready; like items of all panels are added up. ``bolts``: of carriers."""
    lines = [
        Material(f"panel {name}", count, 0, "pc", "measure it on delivery")
        for name, count in Counter(p.model.name for p in plan.panels).items()
    ]
    lines += _pieces(pieces, plan)
    bent = workshop.brackets == "bent here"
    lines += _carriers(plan, pieces, bent)
    lines += _bolts(bolts, HEADED[workshop.bolting.heads])
    lines += _spacers(bolts, workshop, plan.units)
    lines += _feet(plan, holders, {line.carrier for line in bolts if line.joint.startswith("feet")}, bent)
    lines += _by_school(plan, holders)
    lines += _tethers(plan)
    lines += _spans(holders)
    lines += _sealing(plan, marks, seal)
    scars = sum(s.count for s in plan.survey.scars)
    if scars:
        patch = (
            "membrane patch with its primer" if plan.vehicle.skin == "membrane" else "plug or bonded patch"
        )
        lines.append(_counted(f"{patch}, for old scars", scars, "see the seal list"))
    oil = "sharp; cutting oil" if drills_metal(plan) else "sharp"
    bits = sorted({d for m in marks for d in (m.pilot_mm, m.final_mm) if d})
    lines += [Material(f"drill bit {d:g} mm with depth stop", 1, 1, "pc", oil) for d in bits]
    return tuple(lines)


def keyed(shown: tuple[Material, ...], metric: tuple[Material, ...]) -> tuple[Material, ...]:
    """The lines as they are shown, each with what it is called in metric units. Where sizes that differ by a
    hair fall together in inches the lists differ in length, and a line's own words have to do.
    """
    if len(shown) != len(metric):
        metric = shown
    return tuple(replace(line, key=other.item) for line, other in zip(shown, metric, strict=True))


def wiring_materials(parts: tuple[WirePart, ...]) -> tuple[Material, ...]:
    """What the wiring takes. Small parts have spares, cable its slack already, devices neither."""
    return tuple(
        _counted(p.item, round(p.amount), p.note)
        if p.unit == "pc" and p.amount > 2
        else Material(p.item, p.amount, 0, p.unit, p.note)
        for p in parts
    )


def shim_materials(forced: tuple[tuple[Forced, ...], ...], units: UnitSystem) -> tuple[Material, ...]:
    """What goes under the feet of straight rails on a roof that is not; ``forced``: by carrier."""
    shims = [mm for own in forced for line in own for mm in line.shims_mm if mm > SHIM_MM]
    if not shims:
        return ()
    thick = f"{say_length(min(shims), units)} to {say_length(max(shims), units)}"
    note = "metal or hard plastic, bedded in sealant; or feet with slots that reach"
    return (Material(f"shims under feet, {thick}", len(shims), 0, "pc", note),)


def _counted(item: str, needed: int, note: str = "") -> Material:
    return Material(item, needed, max(LEAST_SPARES, ceil(needed * SPARE_SHARE)), "pc", note)


def _pieces(pieces: tuple[Piece, ...], plan: RoofPlan) -> list[Material]:
    """Rails, bars and posts by what they are and how long."""
    names = {s.id: s.name for s in (*plan.carriers, *plan.panels)}
    names |= {p.part_of: p.name.split(",")[0] for p in pieces if p.kind == "strut"}
    counts: Counter[tuple[str, str, str]] = Counter(
        (f"{CALLED.get(p.kind, p.kind)} {p.says}", f"pc of {_long(p, plan.units)}", names.get(p.part_of, ""))
        for p in pieces
    )
    return [Material(item, n, 0, run, name) for (item, run, name), n in counts.items()]


def _long(piece: Piece, units: UnitSystem) -> str:
    """Bars by the run, small pieces by their size."""
    return say_run(piece.length_mm, units) if piece.length_mm > SMALL_MM else say_size(piece.length_mm, units)


def _carriers(plan: RoofPlan, pieces: tuple[Piece, ...], bent: bool) -> list[Material]:
    """A clamp at each edge of each panel on every rail or bar, corners, what meets factory points."""
    lines = []
    for carrier in plan.carriers:
        if isinstance(carrier, Rack):
            lines += _rack(carrier, plan, tuple(p for p in pieces if p.part_of == carrier.id), bent)
        clamps = sum(len(clamps_of(carrier, p)) for p in plan.panels if p.carrier == carrier.id)
        if clamps:
            lines.append(_counted("panel clamp with bolt", clamps, f"{carrier.name}; two panels may share"))
    return lines


def _bolts(bolts: tuple[BoltLine, ...], headed: str) -> list[Material]:
    """Of all carriers, by length; each with what its stack counts on."""
    counts: Counter[str] = Counter()
    for line in bolts:
        long = f" × {line.length_mm:.0f} mm" if line.length_mm else ", longer than is sold"
        set_in = "washer, into its thread" if line.engaged_mm is not None else "two washers and lock nut"
        counts[f"stainless {headed} {line.size}{long} with {set_in}"] += line.count
    return [_counted(item, n, "joints of rails and bars; anti-seize") for item, n in counts.items()]


def _rack(rack: Rack, plan: RoofPlan, pieces: tuple[Piece, ...], bent: bool) -> list[Material]:
    """Corners, and what meets the factory points; ``bent``: brackets are among its ``pieces``."""
    lines: list[Material] = []
    corners = len(rack.bars) * len(rack.rails)
    own = isinstance(rack.section, OwnSection) + isinstance(rack.bar_section, OwnSection)
    in_slots = own * corners * {"angles": 2, "bolt": 1}.get(rack.joint, 0)
    crossbars = sum(p.kind == "crossbar" for p in pieces)
    if crossbars and rack.crossbars:
        crossings = 2 * crossbars * len(rack.rails)
        in_slots += crossings * isinstance(rack.section, OwnSection)
        slotted = isinstance(rack.crossbars.section, OwnSection)
        in_slots += (crossings + crossbars * len(rack.crossbars.feet)) * slotted
    if in_slots:
        lines.append(
            _counted(
                "hammer-head bolt M8 with flange nut",
                in_slots,
                "corners and crossings; fits its slot" if crossbars else "corners; fits its slot",
            )
        )
    if rack.joint == "clamps":
        about, clamp = say_size(rack.section.height.mm, plan.units), rack.clamp
        lined = ", lined" if clamp.lined else ""
        what = f"two-piece clamp for {about} tube{lined}, {clamp.bolts} × {clamp.bolt}"
        lines.append(_counted(what, corners, "saddles that fit the tube"))
    if rack.points:
        standing = sum(len(_stands(rack, row)) for row in map(fit_row, plan.survey.point_rows))
        if not bent:
            lines.append(_counted("bracket for a factory point", standing, rack.name))
        lines.append(_counted("foam pad under a bracket", standing, "keeps paint and water apart"))
    return lines


def _stands(rack: Rack, row: RowFit) -> list[PointPlace]:
    if row.row not in rack.points:
        return []
    return [p for p in row.points if p.usable and rack.start.mm <= p.x_mm <= rack.end.mm]


def _spacers(bolts: tuple[BoltLine, ...], workshop: Workshop, units: UnitSystem) -> list[Material]:
    """A sleeve inside every closed tube that a bolt goes through, where somebody wants them."""
    counts: Counter[float] = Counter()
    for line in bolts if workshop.bolting.spacers else ():
        if line.hollow_mm:
            counts[line.hollow_mm] += line.count
    return [
        _counted(f"spacer sleeve for {JOINT_BOLT}, {say_size(long, units)} long", n, "inside the tube")
        for long, n in counts.items()
    ]


def _feet(plan: RoofPlan, holders: tuple[Holder, ...], bolted: set[str], bent: bool) -> list[Material]:
    """Brackets and what joins them to a frame; ``bolted``: carriers whose bolts are listed by length;
    ``bent``: brackets are among the pieces.
    """
    size = partial(say_size, system=plan.units)
    brackets: Counter[str] = Counter()
    bolts: Counter[str] = Counter()
    for holder in holders:
        if isinstance(holder.hold, BasePlate | OuterFoot):
            continue  # its plates or feet are among what its school needs
        b = holder.hold.bracket
        brackets[
            f"{b.metal} bracket {size(b.length.mm)} × {size(b.thickness.mm)}, lever "
            f"{size(b.lever.mm)}, toe {size(b.toe.mm)}"
        ] += len(holder.feet)
        if holder.id not in bolted:
            bolts[b.frame_bolt] += len(holder.feet)
    lines = [Material(item, n, 0, "pc", "deburred") for item, n in brackets.items() if n and not bent]
    return lines + [
        _counted(f"stainless bolt {b} with washers and lock nut, frame", n, "anti-seize on stainless threads")
        for b, n in bolts.items()
        if n
    ]


def _by_school(plan: RoofPlan, holders: tuple[Holder, ...]) -> list[Material]:
    """What each school needs for all panels it holds: pieces with spares, runs with waste, sets once."""
    totals: dict[tuple[str, str, str], float] = {}
    for name, school in SCHOOLS.items():
        for holder in holders:
            if holder.hold.school == name and holder.feet:
                for need in school.needs(holder.hold, len(holder.feet), plan.units):
                    key = (need.item, need.unit, need.note)
                    totals[key] = need.amount if need.unit == "set" else totals.get(key, 0.0) + need.amount
    return [_with_spares(item, amount, unit, note) for (item, unit, note), amount in totals.items()]


def _with_spares(item: str, amount: float, unit: str, note: str) -> Material:
    if unit == "pc":
        return _counted(item, int(amount), note)
    spare = round(amount * (TAPE_WASTE - 1), 2) if unit == "m" else 0
    return Material(item, round(amount, 2), spare, unit, note)


def _spans(holders: tuple[Holder, ...]) -> list[Material]:
    """What holds feet on bars from member to member; the bars are among the pieces."""
    feet = sum(len(bar.feet_mm) for h in holders for bar in h.bars)
    bolt = f"stainless bolt {JOINT_BOLT} with large washers and lock nut, foot on its bar"
    return [_counted(bolt, feet)] if feet else []


def _tethers(plan: RoofPlan) -> list[Material]:
    """Lines by kind and length, with what closes their ends."""
    lines: Counter[tuple[str, str]] = Counter()
    for tether in plan.tethers:
        run = say_run(tether.length.mm, plan.units) if tether.length else "cut to fit"
        match tether.line:
            case WireRope(diameter=d, ends=ends):
                closed = "loops swaged over thimbles" if ends == "swaged" else "thimbles, three grips an end"
                lines[f"stainless wire rope {say_size(d.mm, plan.units)}, {run}", closed] += 1
            case Strap():
                lines[f"woven strap with sewn loops, {run}", "two shackles"] += 1
            case Plate(width=w, thickness=t, alloy=alloy):
                size = f"{say_size(w.mm, plan.units)} × {say_size(t.mm, plan.units)}"
                lines[f"strip {alloy} {size}, {run}", "M6 bolt at both ends"] += 1
    return [_counted(f"tether, {item}", count, note) for (item, note), count in lines.items()]


def _sealing(plan: RoofPlan, marks: tuple[Mark, ...], seal: tuple[Amount, ...]) -> list[Material]:
    """What the seal list takes, in the packs it is sold in; a cartridge more, since one always fails."""
    lines = []
    for amount in (a for a in seal if a.packs):
        words = FAMILIES[amount.family].words
        told = (
            f"{amount.volume_ml:.0f} ml with waste; used up within {amount.opened_days} days of opening"
            if amount.volume_ml
            else f"{say_run(amount.tape_mm, plan.units)} with waste"
        )
        lines.append(Material(words, amount.packs, 1 if amount.volume_ml else 0, amount.pack, told))
    if any(m.kind == "hole" for m in marks) and plan.vehicle.skin in ("steel", "aluminium"):
        lines.append(Material("rust-proof primer for drilled edges", 1, 0, "tin", "before the foot goes on"))
    return lines
