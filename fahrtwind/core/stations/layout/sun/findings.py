"""What the sun leaves on this roof, as an answer: by panel, by month, by hour; flat against raised; low
against airy.
"""

from __future__ import annotations

import numpy as np

from fahrtwind.core.engine.beside import go_on
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.job.views import SunnyRoof
from fahrtwind.core.quantities import Angle, Length
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.layout.sun.harvest import Harvest, Stand, explain, harvest_of, stand_of
from fahrtwind.core.stations.layout.sun.sky import MONTHS, FloatArray, site_of

MONTH_NAMES = tuple(
    [
        "January",
        "February",
        "March",
        "April",
        "May",
        "June",
        "July",
        "August",
        "September",
        "October",
        "November",
        "December",
    ]
)
DAYS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
GAPS_MM = (5.0, 25.0, 50.0, 75.0, 100.0)
TILTS_DEG = (0.0, 15.0, 30.0, 45.0, 60.0)
FACING_SUN_NORTH, FACING_SUN_SOUTH = 180.0, 0.0
CAUTION = (
    "At the panels' terminals at their best working point: cable, controller and battery take their share. "
    "The climate decides most of it; a year is not like another."
)


@dataclass(frozen=True, slots=True)
class MonthYield:
    """Energy of a usual day of the month, and the share of its open-sky energy and of its direct light that
    shadow takes.

    ``lost_by_hour`` is the share for each hour by the mean sun, None in the dark.
    """

    month: str
    day_wh: float
    lost: float
    beam_lost: float
    lost_by_hour: tuple[float | None, ...]


@dataclass(frozen=True, slots=True)
class PanelYield:
    """A panel's year. ``lost`` is the share of its open-sky energy that shadow takes, bypass diodes counted.

    ``diffuse_lost`` is the same in every month. ``supposed`` names what the data sheet left blank and is
    taken as usual, on the cautious side.
    """

    panel: str
    name: str
    wh: float
    lost: float
    beam_lost: float
    diffuse_lost: float
    hottest_deg_c: float
    months: tuple[MonthYield, ...]
    supposed: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class TiltYield:
    """One panel raised towards the sun by so much against lying flat, without shadows, as ratios."""

    tilt_deg: float
    year: float
    winter: float
    summer: float


@dataclass(frozen=True, slots=True)
class GapYield:
    """All panels over such an air gap: energy against the widest gap, and the hottest cells."""

    gap_mm: float
    energy: float
    hottest_deg_c: float


@dataclass(frozen=True, slots=True)
class YieldFinding:
    site: str
    stand: str
    year_wh: float
    lost: float
    panels: tuple[PanelYield, ...]
    months: tuple[MonthYield, ...]
    tilts: tuple[TiltYield, ...]
    gaps: tuple[GapYield, ...]
    flat_wh: float | None
    """The year with all panels lying flat, where some are raised; None where none is."""
    caution: str


def yield_of(roof: SunnyRoof) -> YieldFinding:
    """The year's energy of a job's panels. Raises InputError naming what is missing."""
    stand = stand_of(roof)
    go_on(0.0, "light and shadow on every panel")
    found = harvest_of(roof, stand)
    raised = stand.tilted and any(p.tilt.deg > 0 for p in roof.panels)
    go_on(0.45, "the same with all panels flat")
    flat = float(harvest_of(roof, replace(stand, tilted=False)).wh.sum()) if raised else None
    go_on(0.9, "raised against flat, low against airy")
    return YieldFinding(
        site=site_of(roof).words,
        stand=_stand_words(roof),
        year_wh=float(found.wh.sum()),
        lost=_lost(found.wh, found.open_wh),
        panels=_panels(roof, found),
        months=_months(found, list(range(len(roof.panels)))),
        tilts=_tilts(roof),
        gaps=_gaps(roof, stand),
        flat_wh=flat,
        caution=CAUTION,
    )


def explain_yield(roof: SunnyRoof) -> None:
    """Record the working of every panel's power."""
    stand = stand_of(roof)
    for panel in roof.panels:
        explain(roof, panel, stand)


def _bare(roof: SunnyRoof, panels: tuple[PlacedPanel, ...]) -> SunnyRoof:
    """The roof with nothing on it that throws a shadow but these panels."""
    return replace(roof, panels=panels, obstacles=(), survey=roof.survey.model_copy(update={"sections": ()}))


def _lost(kept: FloatArray, whole: FloatArray) -> float:
    """Share that is missing of a whole, both summed."""
    total = float(np.sum(whole))
    return max(1 - float(np.sum(kept)) / total, 0.0) if total > 0 else 0.0


def _stand_words(roof: SunnyRoof) -> str:
    site = roof.site
    if site.standing == "driving":
        return "driving, all headings averaged, panels flat, lids shut"
    lids = "lids open" if site.lids == "open" else "lids shut"
    if site.standing == "any" or site.heading is None:
        return f"parked, heading not known: 24 headings averaged, {lids}"
    return f"parked, front towards {site.heading.deg:g}°, {lids}"


def _panels(roof: SunnyRoof, found: Harvest) -> tuple[PanelYield, ...]:
    return tuple(
        PanelYield(
            p.id,
            p.name,
            float(found.wh[i].sum()),
            _lost(found.wh[i], found.open_wh[i]),
            _lost(found.beam_kept[i], found.beam[i]),
            float(found.diffuse_lost[i]),
            float(found.hottest_deg_c[i]),
            _months(found, [i]),
            _supposed(p),
        )
        for i, p in enumerate(roof.panels)
    )


def _supposed(panel: PlacedPanel) -> tuple[str, ...]:
    blank = (
        ("bypass diodes", panel.model.bypass_diodes),
        ("coefficient of power", panel.model.power_per_k),
        ("NOCT", panel.model.noct),
    )
    return tuple(words for words, value in blank if value is None)


def _months(found: Harvest, panels: list[int]) -> tuple[MonthYield, ...]:
    """The months of these panels together."""
    wh, open_wh = found.wh[panels].sum(axis=0), found.open_wh[panels].sum(axis=0)
    beam, kept = found.beam[panels].sum(axis=0), found.beam_kept[panels].sum(axis=0)
    return tuple(
        MonthYield(
            MONTH_NAMES[m],
            float(wh[m].sum()) / DAYS[m],
            _lost(wh[m], open_wh[m]),
            _lost(kept[m], beam[m]),
            tuple(_lost(k, o) if o > 0 else None for k, o in zip(wh[m], open_wh[m], strict=True)),
        )
        for m in range(MONTHS)
    )


def _tilts(roof: SunnyRoof) -> tuple[TiltYield, ...]:
    """A single panel of the first model on an empty roof, its raised edge away from the sun."""
    if not roof.panels:
        return ()
    site = site_of(roof)
    heading = FACING_SUN_SOUTH if site.latitude_deg >= 0 else FACING_SUN_NORTH
    bare = _bare(roof, ())
    stand = replace(stand_of(roof), headings_deg=(heading,), lids_open=False, tilted=True)
    one, by_month = roof.panels[0], []
    for tilt in TILTS_DEG:  # the front points north, so the raised front edge faces the panel south
        panel = one.model_copy(update={"tilt": Angle(deg=tilt), "tilt_up": "front"})
        by_month.append(harvest_of(replace(bare, panels=(panel,)), stand).wh.sum(axis=(0, 2)))
    dark, bright = (11, 5) if site.latitude_deg >= 0 else (5, 11)
    level = by_month[0]
    return tuple(
        TiltYield(
            t, float(m.sum() / level.sum()), float(m[dark] / level[dark]), float(m[bright] / level[bright])
        )
        for t, m in zip(TILTS_DEG, by_month, strict=True)
        if level.sum() > 0 and level[dark] > 0
    )


def _gaps(roof: SunnyRoof, stand: Stand) -> tuple[GapYield, ...]:
    """The same panels lower and higher; shadows stay as they are, only the heat changes."""
    if not roof.panels:
        return ()
    found = []
    one = replace(stand, headings_deg=stand.headings_deg[:1])
    for gap in GAPS_MM:
        panels = tuple(p.model_copy(update={"stand_off": Length(mm=gap)}) for p in _one_of_each(roof.panels))
        found.append(harvest_of(_bare(roof, panels), one))
    best = float(found[-1].wh.sum())
    return tuple(
        GapYield(g, float(h.wh.sum()) / best, float(np.max(h.hottest_deg_c)))
        for g, h in zip(GAPS_MM, found, strict=True)
    )


def _one_of_each(panels: tuple[PlacedPanel, ...]) -> tuple[PlacedPanel, ...]:
    return tuple({p.model.name: p for p in panels}.values())
