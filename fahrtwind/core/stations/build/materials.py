"""What to have in hand before climbing: quantities with spares."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from functools import partial
from math import ceil

from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.quantities import say_size
from fahrtwind.core.stations.build.drill_map import Mark
from fahrtwind.core.stations.seal.sealant import SealPlan
from fahrtwind.core.tables.fasteners import BOLTS

SPARE_SHARE = 0.1
LEAST_SPARES = 2
TAPE_WASTE = 1.2


@dataclass(frozen=True, slots=True)
class Material:
    item: str
    needed: float
    spare: float
    unit: str
    note: str


def materials(plan: RoofPlan, marks: tuple[Mark, ...], seal: SealPlan) -> tuple[Material, ...]:
    lines = [
        Material(f"panel {name}", count, 0, "pc", "measure it on delivery")
        for name, count in Counter(p.model.name for p in plan.panels).items()
    ]
    lines += _feet(plan)
    lines += _fasteners(plan)
    lines += _tape(plan)
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


def drills_metal(plan: RoofPlan) -> bool:
    """Whether any hole goes through metal: only then there are chips, burrs and oil."""
    return plan.vehicle.skin in ("steel", "aluminium") or plan.members.kind in ("steel_hat", "aluminium_box")


def _counted(item: str, needed: int, note: str = "") -> Material:
    return Material(item, needed, max(LEAST_SPARES, ceil(needed * SPARE_SHARE)), "pc", note)


def _feet(plan: RoofPlan) -> list[Material]:
    size = partial(say_size, system=plan.units)
    brackets: Counter[str] = Counter()
    bolts: Counter[str] = Counter()
    for panel in plan.panels:
        b = panel.hold.bracket
        brackets[
            f"{b.metal} bracket {size(b.length.mm)} × {size(b.thickness.mm)}, lever "
            f"{size(b.lever.mm)}, toe {size(b.toe.mm)}"
        ] += len(panel.feet)
        bolts[b.frame_bolt] += len(panel.feet)
    lines = [Material(item, n, 0, "pc", "deburred") for item, n in brackets.items()]
    return lines + [
        _counted(f"stainless bolt {b} with washers and lock nut, frame", n, "anti-seize on stainless threads")
        for b, n in bolts.items()
    ]


def _fasteners(plan: RoofPlan) -> list[Material]:
    size = partial(say_size, system=plan.units)
    counts: Counter[tuple[str, str]] = Counter()
    for panel in plan.panels:
        hold = panel.hold
        if hold.school == "screws":
            counts[(f"stainless screw {hold.screw} × {size(hold.length.mm)}", "")] += hold.count * len(
                panel.feet
            )
        elif hold.school == "bolts":
            name = BOLTS[hold.bolt].name
            counts[(f"stainless bolt {name} × {size(hold.length.mm)} with lock nut", "")] += hold.count * len(
                panel.feet
            )
            counts[(f"large washer {size(hold.washer.mm)} for {name}", "below the skin")] += hold.count * len(
                panel.feet
            )
    return [_counted(item, n, note) for (item, note), n in counts.items()]


def _tape(plan: RoofPlan) -> list[Material]:
    size = partial(say_size, system=plan.units)
    area: Counter[str] = Counter()
    for panel in plan.panels:
        hold = panel.hold
        if hold.school == "tape":
            area[f"foam tape {size(hold.thickness.mm)} × {size(hold.pad_width.mm)}"] += round(
                len(panel.feet) * hold.pad_length.mm
            )
    lines = [
        Material(
            item,
            round(mm / 1000, 2),
            round(mm / 1000 * (TAPE_WASTE - 1), 2),
            "m",
            "pads in one piece, no overlaps",
        )
        for item, mm in area.items()
    ]
    return lines + (
        [Material("surface wipe and tape primer", 1, 0, "set", "as the tape's maker says")] if lines else []
    )


def _sealing(plan: RoofPlan, marks: tuple[Mark, ...], seal: SealPlan) -> list[Material]:
    lines = []
    if seal.butyl_area_cm2:
        lines.append(
            Material(
                seal.under,
                round(seal.butyl_area_cm2),
                round(seal.butyl_area_cm2 * 0.2),
                "cm²",
                "under every foot",
            )
        )
    if seal.bead_volume_ml:
        lines.append(
            Material(
                seal.round, seal.cartridges, 1, "cartridge 290 ml", f"{seal.bead_volume_ml:.0f} ml with waste"
            )
        )
    if any(m.kind == "hole" for m in marks) and plan.vehicle.skin in ("steel", "aluminium"):
        lines.append(Material("rust-proof primer for drilled edges", 1, 0, "tin", "before the foot goes on"))
    return lines
