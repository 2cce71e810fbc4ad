"""Calculations of the calendar: the plan, why a step is not done on a day, what helps, how sure it is, a
roof's temperature, forecasts from files.
"""

from __future__ import annotations

import time
from datetime import date
from typing import Annotated, Any

from pydantic import Field

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.choose.days import Help, HowSure, ask_why_not, helps, how_sure, plan_days
from fahrtwind.core.choose.together import MOST_TOGETHER, TOGETHER_S, ShopPlan, plan_together
from fahrtwind.core.engine.beside import Hands
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.formulas.sealing import vapour_pressure
from fahrtwind.core.formulas.weather import dew_point, skin_temperature, surface_coefficient
from fahrtwind.core.job.load import load_job
from fahrtwind.core.job.part import Name
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.days.activities import Network
from fahrtwind.core.stations.days.elsewhere import Elsewhere, elsewhere
from fahrtwind.core.stations.days.hours import HoursBand
from fahrtwind.core.stations.days.kept import KeptPlan
from fahrtwind.core.stations.days.plan import DayPlan
from fahrtwind.core.stations.days.why_not import WhyNot
from fahrtwind.core.tables.roof_colours import ABSORPTANCE, EMISSIVITY, RoofColour
from fahrtwind.files.forecast_files import ReadForecast, read_forecast

PATIENT_S = 90.0


@dataclass(frozen=True, slots=True)
class WorkAnswer:
    """The work with its order, what each hour allows, whether the kept plan still goes."""

    work: Network | None
    hours: HoursBand | None
    kept: KeptPlan | None


@calculation("days.work")
def days_work(given: JobInput) -> WorkAnswer:
    """Every step with its time, hands and weather; what comes before what and why; what each hour allows."""
    found = evaluate(load_job(given.job)).findings
    return WorkAnswer(found.work, found.hours, found.kept)


class PlanInput(JobInput):
    seconds: Annotated[float, Field(ge=0.5, le=60)] = 20.0


@calculation("days.plan")
def days_plan(given: PlanInput) -> DayPlan:
    """The plan that ends first, then takes the fewest days on the roof; proved or with its bound."""
    return plan_days(load_job(given.job), given.seconds)


class WhyNotInput(JobInput):
    step: Name
    day: date


@calculation("days.why_not")
def days_why_not(given: WhyNotInput) -> WhyNot:
    """The fewest reasons why a step is not done on a day."""
    return ask_why_not(load_job(given.job), given.step, given.day)


@calculation("days.helps")
def days_helps(given: JobInput) -> tuple[Help, ...]:
    """What would help most: each change planned anew, with the days it saves."""
    return helps(load_job(given.job), _patient(), lambda found: None)


@calculation("days.sure")
def days_sure(given: JobInput) -> HowSure:
    """In how many ways the weather may go the plan holds, and the plan that holds in most."""
    return how_sure(load_job(given.job), _patient())


def _patient() -> Hands:
    began = time.monotonic()
    return Hands(lambda: PATIENT_S - (time.monotonic() - began), lambda: False, lambda share, doing: None)


class TogetherInput(CalcInput):
    jobs: Annotated[tuple[dict[str, Any], ...], Field(min_length=2, max_length=MOST_TOGETHER)]
    seconds: Annotated[float, Field(ge=1, le=60)] = TOGETHER_S


@calculation("days.together")
def days_together(given: TogetherInput) -> ShopPlan:
    """Several vehicles that share people, planned as one: the earliest finishes in sum."""
    return plan_together([load_job(job) for job in given.jobs], given.seconds)


class SkinInput(CalcInput):
    air_c: Annotated[float, Field(ge=-45, le=60)]
    humidity_percent: Annotated[float, Field(ge=1, le=100)]
    wind_m_s: Annotated[float, Field(ge=0, le=40)] = 0.0
    sun_w_m2: Annotated[float, Field(ge=0, le=1400)] = 0.0
    cloud_percent: Annotated[float, Field(ge=0, le=100)] = 0.0
    colour: RoofColour = "white"


@dataclass(frozen=True, slots=True)
class SkinAnswer:
    """The roof's skin and the dew point, °C."""

    skin_c: float
    dew_c: float


@calculation("days.skin")
def days_skin(given: SkinInput) -> SkinAnswer:
    """How warm a roof's skin gets in sun, wind and cloud, and when dew falls on it."""
    cover = given.cloud_percent / 100
    loss = surface_coefficient(given.wind_m_s, given.air_c, EMISSIVITY)
    colour = ABSORPTANCE[given.colour]
    skin = skin_temperature(given.air_c, given.sun_w_m2, colour, EMISSIVITY, cover, loss)
    return SkinAnswer(
        float(skin), float(dew_point(vapour_pressure(given.air_c, given.humidity_percent / 100)))
    )


class ForecastInput(CalcInput):
    text: Annotated[str, Field(min_length=1, max_length=2_000_000)]


@calculation("forecast.parse")
def forecast_parse(given: ForecastInput) -> ReadForecast:
    """An hourly forecast from CSV or JSON in the open layout."""
    return read_forecast(given.text)


class ElsewhereInput(JobInput):
    others: Annotated[tuple[dict[str, Any], ...], Field(max_length=40)]


@calculation("days.elsewhere")
def days_elsewhere(given: ElsewhereInput) -> tuple[Elsewhere, ...]:
    """On which days people of this job are at other jobs, by the plans that those keep."""
    others = [load_job(other) for other in given.others]
    return elsewhere(load_job(given.job).days, [(other.name, other.days) for other in others])
