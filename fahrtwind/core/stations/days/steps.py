"""The order of work. Orderings are common practice: most rework comes from a step done too late."""

from __future__ import annotations

from collections.abc import Callable

from fahrtwind.core.job.views import RoofPlan
from fahrtwind.core.records import dataclass
from fahrtwind.core.saying import say_run
from fahrtwind.core.stations.build.assembly import AssemblyStep
from fahrtwind.core.stations.hold.schools import SCHOOLS
from fahrtwind.core.stations.hold.schools.school import Mark, MarksInHand, Task
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.amounts import Amount
from fahrtwind.core.stations.seal.choice import KindChoice, SealChoice
from fahrtwind.core.stations.seal.cure import CureTimes
from fahrtwind.core.stations.wire.work import WireWork
from fahrtwind.core.tables.sealants import FOOT_KINDS
from fahrtwind.core.tables.work import StepKind

Work = Callable[[RoofPlan, int, str], list[Task]]


@dataclass(frozen=True, slots=True)
class WorkStep:
    """One step; ``wait_h`` is how long to wait after it before the next one, ``marks`` which are in hand,
    ``count`` how much of its kind of work it is.
    """

    number: int
    title: str
    detail: str
    check: str
    wait_h: float
    marks: MarksInHand
    kind: StepKind
    count: int


@dataclass(frozen=True, slots=True)
class Sealing:
    """What the seal says about the work: with what, how much, how long; and the marks it closes."""

    choice: SealChoice | None
    amounts: tuple[Amount, ...]
    cure: CureTimes | None
    marks: tuple[Mark, ...]
    kinds: tuple[KindChoice, ...] = ()

    @property
    def under(self) -> str:
        """What lies under the feet that are fastened, of all their kinds."""
        fastened = (k for k in self.kinds if k.kind in FOOT_KINDS.values() and k.kind != "tape edge")
        return _or([k.choice.under.words for k in fastened], self.choice.under.words if self.choice else "")

    @property
    def round(self) -> str:
        """What goes round feet, of all their kinds."""
        feet = (k for k in self.kinds if k.kind in FOOT_KINDS.values())
        return _or([k.choice.round.words for k in feet], self.choice.round.words if self.choice else "")

    @property
    def waits(self) -> str:
        """When rain may fall and the vehicle drive, in a sentence."""
        if self.cure is None:
            return ""
        cool = " if the day is cool" if self.cure.assumed else ""
        return (
            f" Rain does no harm after {self.cure.rain_h.most:.0f} h, drive after "
            f"{self.cure.fillet_h.most / 24:.0f} days{cool}, when it has cured through."
        )


NOT_WIRED = WireWork()


def _or(words: list[str], usual: str) -> str:
    """Each once; the usual where there is none."""
    return " or ".join(dict.fromkeys(words)) or usual or "sealant"


def work_steps(
    plan: RoofPlan,
    holders: tuple[Holder, ...],
    marks: tuple[Mark, ...],
    seal: Sealing,
    frames: tuple[AssemblyStep, ...] = (),
    wired: WireWork = NOT_WIRED,
) -> tuple[WorkStep, ...]:
    """The work in its order, numbered. ``frames``: how carriers are put together; ``wired``: what the wiring
    adds.
    """
    measured, *reached = _before(len(plan.panels))
    feet = sum(len(h.feet) for h in holders)
    tasks = [
        measured,
        *(_of(step) for step in frames if not step.on_roof),
        *_frames_drilled(plan, holders),
        *reached,
        *_old_work(plan),
        *_on_the_roof(holders, len(marks), feet, len(plan.panels)),
        *_by_school(plan, holders, marks, seal),
        *(_of(step) for step in frames if step.on_roof),
    ]
    if any(h.feet for h in holders) or frames:
        tasks += _after(plan, seal, wired, feet)
    return tuple(
        WorkStep(i, task.title, task.detail, task.check, task.wait_h, task.marks, task.kind, task.count)
        for i, task in enumerate(tasks, start=1)
    )


def _of(step: AssemblyStep) -> Task:
    return Task(step.kind, step.title, step.detail, step.check, step.wait_h, count=step.count)


def _by_school(
    plan: RoofPlan, holders: tuple[Holder, ...], marks: tuple[Mark, ...], seal: Sealing
) -> list[Task]:
    """The work of each school that holds something; schools that share their work do it once, for all their
    marks.
    """
    holds = {h.id: h.hold.school for h in holders}
    counts: dict[Work, int] = {}
    for name, school in SCHOOLS.items():
        own = sum(holds[m.panel] == name for m in marks)
        if not school.marked:
            own = sum(len(h.feet) for h in holders if h.hold.school == name)
        if own:
            counts[school.tasks] = counts.get(school.tasks, 0) + own
    return [task for work, count in counts.items() for task in work(plan, count, seal.under)]


def _before(panels: int) -> list[Task]:
    return [
        Task(
            "measure",
            "Measure the delivered panels",
            "Length, width and frame height of each one; type them in before cutting or drilling.",
            "Plan re-checked with the measured sizes.",
            count=max(1, panels),
        ),
        Task(
            "reach",
            "Make the roof safe to reach",
            "Ladder on firm ground, second person below; the roof may not bear you. "
            "Panels covered: they are live in light.",
            "Wind low enough to carry a panel.",
        ),
    ]


def _old_work(plan: RoofPlan) -> list[Task]:
    scars = sum(s.count for s in plan.survey.scars)
    if not scars:
        return []
    return [
        Task(
            "scars",
            "Take old work off and close every scar",
            f"{scars} on the seal list, front to rear. Before any panel covers them.",
            "Each one ticked; water runs off it.",
            24,
            count=scars,
        )
    ]


def _frames_drilled(plan: RoofPlan, holders: tuple[Holder, ...]) -> list[Task]:
    """Where brackets are bolted to frames that have no hole for them."""
    on_feet = {h.id for h in holders if h.feet}
    bare = [p for p in plan.panels if p.id in on_feet and p.model.build == "framed" and not p.model.holes]
    if not bare:
        return []
    return [
        Task(
            "frames",
            "Drill the panels' frames through their brackets",
            "Clamp each bracket where it goes and mark through it from outside. A block of wood behind the "
            "frame and a depth stop: a bit that runs through ends in the glass. Ask the maker whether the "
            "warranty bears new holes.",
            "Deburred, no chip between frame and glass.",
            count=sum(len(p.feet) or 4 for p in bare),
        )
    ]


def _on_the_roof(holders: tuple[Holder, ...], marks: int, feet: int, panels: int) -> list[Task]:
    """A rack on factory points marks nothing, but stands on the roof; an outer frame does neither."""
    clean = Task(
        "clean",
        "Clean and dry the roof round every foot",
        "Wash, rinse, dry. Damp under a foot stays for years.",
        "Cloth stays clean and dry.",
        count=max(1, feet),
    )
    mark = Task(
        "mark",
        "Mark the feet from the datum",
        f"{marks} marks with their numbers; measure each from the datum, not from its neighbour.",
        "Diagonals of each panel's feet agree.",
        marks="all",
        count=marks,
    )
    dry_fit = Task(
        "dry fit",
        "Dry-fit",
        "Set panels or full-size templates on the marks. Try every lid and hatch.",
        "Lids open fully; cable ends reach.",
        count=max(1, panels),
    )
    standing = [SCHOOLS[h.hold.school] for h in holders if h.feet]
    beside = bool(standing) and not any(school.marked for school in standing)
    return [*([] if beside else [clean]), *([mark] if marks else []), dry_fit]


def _tethered(plan: RoofPlan) -> list[Task]:
    if not plan.tethers:
        return []
    return [
        Task(
            "tethers",
            "Fit the tethers",
            f"{len(plan.tethers)} of them, through deburred holes of the frame, as short as they will go.",
            "Lift the frame by hand: the line is tight at once.",
            count=len(plan.tethers),
        )
    ]


def _raised(plan: RoofPlan) -> list[Task]:
    up = {p.id for p in plan.panels if p.tilt.deg > 0}
    units = [r for r in plan.raisings if up & set(r.panels)]
    if not units:
        return []
    return [
        Task(
            "raise",
            "Pin hinges and struts, raise it once, lay it flat and lock it",
            "Every pin with its ring. By two, a line on the raised edge; hands clear of the hinges.",
            "No lead is pinched or pulled; every latch is closed and seen from the ground.",
            count=sum(r.hinges + 2 * r.struts for r in units),
        )
    ]


UNPLANNED_CABLES = Task(
    "plug",
    "Join cables that a panel will cover",
    "Covered panels only; never let live ends touch.",
    "Tug-test every crimp.",
)


def _after(plan: RoofPlan, seal: Sealing, wired: WireWork, feet: int) -> list[Task]:
    bead = sum(a.bead_mm for a in seal.amounts)
    sealed = Task(
        "seal",
        "Seal round every foot",
        f"{seal.round.capitalize()}, {say_run(bead, plan.units)} of bead, over every head. Do it before a "
        f"panel covers the feet.{seal.waits}",
        "Unbroken bead, no gap at the corners; nothing on the glass.",
        24,
        marks="all",
        count=max(1, feet),
    )
    trimmed = Task(
        "trim",
        "Trim what squeezed out",
        "Cut it flush with a plastic blade, then bead and caps over it.",
        "No soft edge is left to draw dirt.",
        count=max(1, feet),
    )
    night = Task(
        "night",
        "Before evening",
        "Every chip off the roof with magnet and vacuum; open holes covered against dew.",
        "A cloth wiped over the roof shows no metal.",
    )
    drilled = any(m.kind == "hole" for m in seal.marks) and plan.vehicle.skin == "steel"
    trims = seal.cure is not None and seal.cure.trim_h is not None and bead > 0
    first = [*([night] if drilled else []), *([trimmed] if trims else [])]
    return [
        *first,
        *([sealed] if bead > 0 else []),
        *(wired.before or [UNPLANNED_CABLES]),
        Task(
            "lift",
            "Lift the panels on and set the frame bolts loose",
            "Two people lift, a third guides. A panel in wind is a sail.",
            "All bolts started by hand.",
            count=max(1, len(plan.panels)),
        ),
        Task(
            "tighten",
            "Square up, then tighten in order",
            "Front, rear, middle; torque as the bolt's maker says.",
            "No foot rocks; paint mark on each nut.",
            count=max(1, len(plan.panels)),
        ),
        *_raised(plan),
        *_tethered(plan),
        *wired.after,
        *(
            [
                Task(
                    "hose",
                    "Hose test, from low to high",
                    "A soft jet on each place of the seal list, the lowest first, five minutes each; one "
                    "person inside with a lamp and a dry finger.",
                    "Dry inside; readings written down.",
                    count=max(1, feet),
                )
            ]
            if bead > 0
            else []
        ),
        Task(
            "write",
            "Write down what was done",
            "Positions, torque, temperature, batch of tape and sealant.",
            "Re-check the bolts after the first 100 km.",
        ),
    ]
