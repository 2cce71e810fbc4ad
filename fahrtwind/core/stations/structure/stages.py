"""What is worked out about the members, the bays between them and the lines along the edges."""

from __future__ import annotations

from itertools import pairwise

from fahrtwind.core.job.document import Members, Vehicle
from fahrtwind.core.job.roof import MountingLines
from fahrtwind.core.job.views import Roof
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.house import rules, stage, view, working
from fahrtwind.core.stations.layout.feet import FootPlace
from fahrtwind.core.stations.structure.bays import Spot, judge_spot
from fahrtwind.core.stations.structure.members import (
    EvidenceKey,
    MemberFit,
    explain_members,
    fit_members,
    not_known,
)
from fahrtwind.core.stations.structure.mounting_lines import LinesFinding
from fahrtwind.core.stations.structure.mounting_lines import mounting_lines as lines_from
from fahrtwind.core.stations.structure.next_check import NextCheck, cheap_kinds, next_check_for
from fahrtwind.core.stations.structure.reading_of_job import Noted, evidence_key
from fahrtwind.core.stations.survey.crown import CrownSurface
from fahrtwind.core.stations.views import Asked

rules.unanswered("structure")
NO_ROOF = not_known("The roof has no length yet.", "Measure the roof first.")
NOT_FOUND = not_known("The members could not be worked out.", "See the stop.")


@view()
def noted(asked: Asked) -> Noted:
    job = asked.job
    return Noted(job.readings, job.scans, job.members, job.trust, job.units)


@stage("structure", "Evidence", "readings")
def evidence(noted: Noted, vehicle: Vehicle) -> EvidenceKey | None:
    """All readings and known facts; None while the roof has no length and no width."""
    if vehicle.roof_length is None or vehicle.roof_width is None:
        return None
    return evidence_key(noted, vehicle.roof_length.mm)


@stage("structure", "Members", "readings", otherwise=NOT_FOUND)
def members(evidence: EvidenceKey | None) -> MemberFit:
    return fit_members(evidence) if evidence is not None else NO_ROOF


@working("structure/member")
def member_working(evidence: EvidenceKey) -> None:
    explain_members(evidence)


@view()
def no_holes(asked: Asked) -> frozenset[str]:
    """Panels and carriers that need no member: they are taped, or stand on base plates."""
    standing = (*asked.job.panels, *asked.job.carriers)
    return frozenset(s.id for s in standing if s.hold.school in ("tape", "base_plate", "outer_foot"))


@stage("structure", "Members used", "panels")
def used_members(feet: tuple[FootPlace, ...], no_holes: frozenset[str]) -> frozenset[int]:
    """Numbers of the members that feet will be drilled into."""
    drilled = (f for f in feet if f.panel not in no_holes and f.landing in ("member", "perhaps"))
    return frozenset(f.member for f in drilled if f.member is not None)


@stage("structure", "Next spot to check", "readings")
def next_check(
    evidence: EvidenceKey, used_members: frozenset[int], vehicle: Vehicle, ribs: Members, units: UnitSystem
) -> NextCheck:
    return next_check_for(evidence, used_members, cheap_kinds(vehicle, ribs), units)


@stage("structure", "Strength of the bays", "members", place="structure/bay", otherwise=())
def bays(roof_notes: Roof, ribs: Members, members: MemberFit) -> tuple[Spot, ...]:
    """The middle of every bay: the weakest spot of each."""
    found = members.members
    return tuple(judge_spot(roof_notes, ribs, found, (a.x_mm + b.x_mm) / 2) for a, b in pairwise(found))


@stage(
    "structure",
    "Mounting lines",
    "mounting",
    place="mounting",
    otherwise=LinesFinding((), None, None, None, None),
)
def lines(mounting: MountingLines, members: MemberFit, crown: CrownSurface | None) -> LinesFinding:
    return lines_from(mounting, members.members, crown)
