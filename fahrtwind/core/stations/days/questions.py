"""What the calendar asks for, once there is something to be done."""

from __future__ import annotations

from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import Missing
from fahrtwind.core.job.days import Days
from fahrtwind.core.stations.days.weather import Sunlit, WeatherTold
from fahrtwind.core.stations.house import view
from fahrtwind.core.stations.views import Asked
from fahrtwind.core.tables.climates import CLIMATES

ASKED = (
    ("first", "Which is the first day somebody can work?"),
    ("zone", "In which time zone does it stand while it is worked on?"),
    ("crew", "Who works, and when?"),
    ("weather", "What will the weather be: a forecast, told by you, or ignored?"),
)
GIVEN_AWAY = ("powder", "anodised")
DEG_AN_HOUR = 15.0
NOTHING_TO_DO = Missing(Question("panels", "days", "Place a panel first."))


@view()
def weather_told(asked: Asked) -> WeatherTold:
    """All of the calendar that makes the weather; it does not change while steps are pinned."""
    d = asked.job.days
    return WeatherTold(d.weather, d.spells, d.forecast, d.shelter, d.shelter_warm.deg_c, d.colour)


@view()
def dated(asked: Asked) -> Days | Missing:
    """The calendar with its days, people and weather told; asked for once something lies on the roof."""
    days = asked.job.days
    if not asked.job.panels:
        return NOTHING_TO_DO
    for field, words in ASKED:
        if not getattr(days, field):
            return Missing(Question(f"days.{field}", "days", words))
    if days.weather == "forecast" and days.forecast is None:
        return Missing(Question("days.forecast", "days", "Load a forecast, or fetch one."))
    if days.weather == "told" and not days.spells:
        return Missing(Question("days.spells", "days", "Until when does it stay dry, how warm is it?"))
    return days


@view()
def sunlit(asked: Asked) -> Sunlit | Missing:
    """Where the sun is looked for: the site's place, its climate's, its longitude as the clock has it."""
    site, days = asked.job.site, asked.job.days
    climate = CLIMATES.get(site.climate) if site.climate else None
    latitude = site.latitude.deg if site.latitude else climate.latitude_deg if climate else None
    if latitude is None:
        if not asked.job.panels:
            return NOTHING_TO_DO
        return Missing(Question("site.latitude", "days", "On which latitude does it stand, north positive?"))
    if site.longitude is not None:
        return Sunlit(latitude, site.longitude.deg)
    if climate is not None and site.latitude is None:
        return Sunlit(latitude, climate.longitude_deg)
    return Sunlit(latitude, _clock_longitude(days))


def _clock_longitude(days: Days) -> float:
    """In the middle of the zone by its winter clock: within an hour of sun or so, where nobody said more."""
    if days.zone is None or days.first is None:
        return 0.0
    moment = datetime(days.first.year, 1, 1, 12, tzinfo=ZoneInfo(days.zone))
    offset = (moment.utcoffset() or timedelta()) - (moment.dst() or timedelta())
    return DEG_AN_HOUR * offset.total_seconds() / 3600


@view()
def coat_days(asked: Asked) -> int | Missing:
    """Working days at the coater's; own paint dries by the next."""
    coat = asked.job.workshop.coat
    if coat.kind == "none":
        return 0
    if coat.days is None and coat.kind in GIVEN_AWAY:
        words = "In how many working days are the coated pieces back?"
        return Missing(Question("workshop.coat.days", "days", words))
    return 1 if coat.days is None else coat.days
