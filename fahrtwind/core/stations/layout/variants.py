"""Keeping layouts as variants, going back to one, and choosing one with a reason."""

from __future__ import annotations

from fahrtwind.core.errors import InputError
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.identifiers import next_id
from fahrtwind.core.job.layout import Decision, Variant
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.part import Part

LAID = ("panels", "carriers", "tethers", "raisings")
"""Lists of the job that a variant keeps."""


def kept(
    job: Job, name: str, note: str = "", panels: tuple[PlacedPanel, ...] | None = None
) -> tuple[Variant, ...]:
    """The variants with the present layout, or the given panels on feet of their own, as one more."""
    new = next_id("variants", [v.id for v in job.variants])
    laid = {part: getattr(job, part) for part in LAID} if panels is None else {"panels": panels}
    return (*job.variants, Variant(id=new, name=name, note=note, **laid))


def laid_out(job: Job, variant: Variant) -> dict[str, tuple[Part, ...]]:
    """What lies on the roof with a variant. One kept before carriers were kept with it finds those that its
    panels lay on still in the job.
    """
    found: dict[str, tuple[Part, ...]] = {part: getattr(variant, part) for part in LAID}
    under = {p.carrier for p in variant.panels} - {c.id for c in variant.carriers}
    found["carriers"] = (*variant.carriers, *(c for c in job.carriers if c.id in under))
    return found


def same(job: Job, variant: Variant) -> bool:
    """Whether a variant is what lies on the roof now."""
    return all(getattr(job, part) == entries for part, entries in laid_out(job, variant).items())


def used(job: Job, variant_id: str) -> dict[str, tuple[Part, ...]]:
    """What changes when a variant is put on the roof. A layout that is on the roof and not kept anywhere is
    kept first.
    """
    variant = find_variant(job, variant_id)
    variants = job.variants
    if job.panels and not any(same(job, v) for v in variants):
        variants = kept(job, f"Before {variant.name}"[:80], "Kept when another layout was put on the roof.")
    return {**laid_out(job, variant), "variants": variants}


def chosen(job: Job, variant_id: str, reason: str) -> dict[str, tuple[Part, ...]]:
    """What changes when a variant is chosen: it is put on the roof, and the reason is kept. Raises
    InputError where there is none of that id or it has no panels.
    """
    variant = find_variant(job, variant_id)
    if not variant.panels:
        raise InputError(
            f"{variant.name} has no panels.", remedy="Choose a layout with panels.", field="variant"
        )
    changes = used(job, variant_id)
    decision = Decision(
        id=next_id("decisions", [d.id for d in job.decisions]),
        chosen=variant.id,
        name=variant.name,
        reason=reason.strip(),
        over=tuple(v.name for v in job.variants if v.id != variant_id),
    )
    return {**changes, "decisions": (*job.decisions, decision)}


def find_variant(job: Job, variant_id: str) -> Variant:
    """The variant of that id. Raises InputError where there is none."""
    found = next((v for v in job.variants if v.id == variant_id), None)
    if found is None:
        raise InputError(
            f"There is no variant {variant_id}.",
            remedy="Reload the job: it may have been removed.",
            field="variant",
        )
    return found
