"""A whole roof made to hold: what one panel needs is done to all that are held alike, until none is left."""

from __future__ import annotations

from collections.abc import Collection

from fahrtwind.core.choose.hold_search import Effort
from fahrtwind.core.choose.look import Look
from fahrtwind.core.choose.make_hold import failing_panels, offers_for, usual_effort
from fahrtwind.core.edits import Edit, SetValue, SpreadFeet, TetherPanel, apply_edits
from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.errors import FahrtwindError
from fahrtwind.core.job.document import Job
from fahrtwind.core.records import dataclass, replace

MOST_ROUNDS = 4


@dataclass(frozen=True, slots=True)
class HeldRoof:
    """The job with the ``edits`` that make it hold, each in words; where something still does not, ``why``
    and the ``panel``.
    """

    job: Job
    edits: tuple[Edit, ...]
    words: tuple[str, ...]
    why: str
    panel: str | None = None


def hold_all(
    job: Job, without: Collection[str] = (), *, but_locked: bool = False, effort: Effort | None = None
) -> HeldRoof:
    """Make every panel hold, leaving out changes of the kinds ``without``; with ``but_locked`` what is locked
    stays as it is. New stops of water, cables and days do not count: who shows the whole looks at them.
    """
    kept = {p.id for p in job.panels if p.locked and but_locked}
    edits: list[Edit] = []
    words: list[str] = []
    why, panel = "", None
    for _ in range(MOST_ROUNDS):
        go_on()
        before = Look(job)
        failing = [p for p in failing_panels(job, before.near) if p.id not in kept]
        if not failing:
            break
        safe = {v.panel: v.safe_m_s for v in before.seen["verdicts"]}
        worst = min(failing, key=lambda p: safe.get(p.id, 0.0))
        own = effort or usual_effort(worst)
        found = offers_for(before, worst, without, 1, replace(own, near=True))
        if not found.offers:  # one that nothing holds is enough
            why, panel = f"{worst.name}: {found.why}", worst.id
            break
        more = _for_all(job, worst.id, found.offers[0].edits, kept, {p.id for p in failing})
        try:
            job = apply_edits(job, more)
        except FahrtwindError as error:
            why, panel = f"{worst.name}: {error}", worst.id
            break
        edits += more
        words.append(found.offers[0].words)
    else:
        why = "Panel after panel needs something else: look at each by itself."
    return HeldRoof(job, tuple(edits), tuple(dict.fromkeys(words)), why, panel)


def _for_all(job: Job, panel: str, edits: tuple[Edit, ...], kept: set[str], failing: set[str]) -> list[Edit]:
    """The change of one panel made to all that are held the same way: nobody mixes brackets on one roof. The
    number of feet is each panel's own: only those that fail get other feet.
    """
    others = [p.id for p in job.panels if p.carrier is None and p.id not in kept]
    on = next(p.carrier for p in job.panels if p.id == panel)
    kind = next((c.kind for c in job.carriers if c.id == on), None)
    alike = [c.id for c in job.carriers if c.kind == kind]
    return [
        of_one
        for edit in edits
        for of_one in (_of_each(edit, panel, others, failing) or _of_carriers(edit, on, alike) or [edit])
    ]


def _of_carriers(edit: Edit, on: str | None, alike: list[str]) -> list[Edit]:
    own = f"carriers.{on}."
    if isinstance(edit, SetValue) and edit.path.startswith(own):
        return [edit.model_copy(update={"path": edit.path.replace(own, f"carriers.{c}.")}) for c in alike]
    return []


def _of_each(edit: Edit, panel: str, others: list[str], failing: set[str]) -> list[Edit]:
    if isinstance(edit, SpreadFeet):
        return [edit.model_copy(update={"panel": other}) for other in others if other in failing]
    if isinstance(edit, TetherPanel):
        return [edit.model_copy(update={"panel": other}) for other in others]
    own = f"panels.{panel}."
    if isinstance(edit, SetValue) and edit.path.startswith(own):
        return [edit.model_copy(update={"path": edit.path.replace(own, f"panels.{o}.")}) for o in others]
    return []
