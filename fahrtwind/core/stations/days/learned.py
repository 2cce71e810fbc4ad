"""The shop's own rates, learnt from steps that are done: minutes a piece, as they really were."""

from __future__ import annotations

from collections import defaultdict

from fahrtwind.core.job.days import Days
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.activities import Network
from fahrtwind.core.tables.work import RATES, StepKind

LEAST_MIN = 0.1


@dataclass(frozen=True, slots=True)
class LearnedRate:
    """Of all done steps of a kind together. ``table_min``: what is planned with where nothing is learnt."""

    kind: StepKind
    minutes: float
    table_min: float
    unit: str
    pieces: int


def learned_rates(network: Network, days: Days) -> tuple[LearnedRate, ...]:
    """Minutes beyond what a kind takes once, for each piece; kinds whose time does not grow with their number
    teach nothing.
    """
    done = {d.step: (d.ended - d.started).total_seconds() / 60 for d in days.done}
    took: dict[StepKind, float] = defaultdict(float)
    pieces: dict[StepKind, int] = defaultdict(int)
    for activity in network.activities:
        if activity.id in done and RATES[activity.kind].each_min:
            took[activity.kind] += done[activity.id] - RATES[activity.kind].fixed_min
            pieces[activity.kind] += activity.pieces
    return tuple(
        LearnedRate(
            kind,
            max(LEAST_MIN, round(minutes / pieces[kind], 1)),
            RATES[kind].each_min,
            RATES[kind].unit,
            pieces[kind],
        )
        for kind, minutes in took.items()
        if pieces[kind]
    )
