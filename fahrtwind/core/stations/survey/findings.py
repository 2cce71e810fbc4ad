"""Everything the survey finds out about a roof, in one frozen result."""

from __future__ import annotations

from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.survey.access import Reach, Strip
from fahrtwind.core.stations.survey.crown import CrownFinding
from fahrtwind.core.stations.survey.factory_points import RowFit
from fahrtwind.core.stations.survey.lids import LidSwing
from fahrtwind.core.stations.survey.old_work import SealEntry
from fahrtwind.core.stations.survey.outline import Vertex
from fahrtwind.core.stations.survey.squareness import SquareFinding, StraightFinding


@dataclass(frozen=True, slots=True)
class SurveyFindings:
    """Rings are points in mm; None where nothing was measured. ``outline_trouble`` says why the edge cannot
    be a roof's.
    """

    outline: tuple[Vertex, ...]
    outline_trouble: str
    flat: tuple[Vertex, ...]
    flat_area_m2: float
    crown: CrownFinding | None
    rows: tuple[RowFit, ...]
    lids: tuple[LidSwing, ...]
    reach: Reach | None
    keep_outs: tuple[Strip, ...]
    square: SquareFinding | None
    straight: StraightFinding | None
    seal_entries: tuple[SealEntry, ...]
    removal_h: float
