"""What is worked out about the order of the work and its days."""

from datetime import date

from fahrtwind.core.job.days import Days
from fahrtwind.core.job.views import Plan
from fahrtwind.core.job.workshop import Workshop
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.stations.build.assembly import AssemblyStep
from fahrtwind.core.stations.build.lifting import LiftedUnit
from fahrtwind.core.stations.build.purchase import PurchaseLine
from fahrtwind.core.stations.days.activities import Network, network_of
from fahrtwind.core.stations.days.conditions import TAIL_DAYS, Calendar
from fahrtwind.core.stations.days.grid import Grid, grid_of
from fahrtwind.core.stations.days.hours import HoursBand, hours_of
from fahrtwind.core.stations.days.kept import KeptPlan
from fahrtwind.core.stations.days.kept import kept_plan as kept_plan_of
from fahrtwind.core.stations.days.learned import LearnedRate, learned_rates
from fahrtwind.core.stations.days.problem import Problem, problem_of
from fahrtwind.core.stations.days.releases import releases_of
from fahrtwind.core.stations.days.skin_working import warmest_skins
from fahrtwind.core.stations.days.steps import Sealing, WorkStep, work_steps
from fahrtwind.core.stations.days.weather import Sunlit, Weather, WeatherTold, weathers_of
from fahrtwind.core.stations.days.work_facts import WorkFacts, facts_of
from fahrtwind.core.stations.hold.schools.school import Mark
from fahrtwind.core.stations.house import rules, stage, working
from fahrtwind.core.stations.layout.holders import Holder
from fahrtwind.core.stations.seal.amounts import Amount
from fahrtwind.core.stations.seal.choice import KindChoice, SealChoice
from fahrtwind.core.stations.seal.cure import CureTimes
from fahrtwind.core.stations.structure.next_check import NextCheck
from fahrtwind.core.stations.wire.work import WireWork

rules.unanswered("days")


@stage("roof-day", "Steps", "panels", otherwise=())
def steps(
    plan: Plan,
    holders: tuple[Holder, ...],
    marks: tuple[Mark, ...],
    seal_choice: SealChoice | None,
    seal_amounts: tuple[Amount, ...],
    cure: CureTimes | None,
    seal_kinds: tuple[KindChoice, ...] | None,
    assembly_by_carrier: tuple[tuple[AssemblyStep, ...], ...],
    wire_work: WireWork | None,
) -> tuple[WorkStep, ...]:
    frames = tuple(step for own in assembly_by_carrier for step in own)
    seal = Sealing(seal_choice, seal_amounts, cure, marks, seal_kinds or ())
    return work_steps(plan, holders, marks, seal, frames, wire_work or WireWork())


@stage("days", "What decides when", "days")
def work_facts(
    lifts: tuple[LiftedUnit, ...],
    seal_choice: SealChoice | None,
    seal_kinds: tuple[KindChoice, ...] | None,
    cure: CureTimes | None,
    coat_days: int,
) -> WorkFacts:
    return facts_of(lifts, seal_choice, seal_kinds or (), cure, coat_days)


@stage("days", "Work and its order", "days.orders", otherwise=None)
def network(
    steps: tuple[WorkStep, ...], work_facts: WorkFacts, calendar: Days, next_check: NextCheck | None
) -> Network:
    survey_left = next_check is not None and not next_check.enough
    return network_of(steps, work_facts, calendar, survey_left)


@stage("days", "Grid of half hours", "days.first")
def day_grid(dated: Days) -> Grid:
    assert dated.first is not None and dated.zone is not None, "asked for by the view"
    return grid_of(dated.first, dated.horizon + TAIL_DAYS, dated.zone)


@stage("days", "Weather", "days.forecast")
def weathers(weather_told: WeatherTold, day_grid: Grid, sunlit: Sunlit) -> tuple[Weather, ...]:
    return weathers_of(weather_told, day_grid, sunlit)


@stage("days", "What has to be there first", "days.deliveries")
def releases(
    purchase: tuple[PurchaseLine, ...], workshop: Workshop, dated: Days
) -> dict[str, tuple[date, str]]:
    return releases_of(purchase, workshop, dated)


@stage("days", "Calendars", "days")
def calendars(
    dated: Days,
    day_grid: Grid,
    weathers: tuple[Weather, ...],
    releases: dict[str, tuple[date, str]],
    units: UnitSystem,
) -> tuple[Calendar, ...]:
    """One for each way the weather may go, the first is planned by."""
    present = tuple(day_grid.attended(person) for person in dated.crew)
    return tuple(Calendar(day_grid, dated, w, present, releases, units) for w in weathers)


@working("skin")
def skin_working(calendars: tuple[Calendar, ...]) -> None:
    warmest_skins(calendars[0])


@stage("days", "Hours", "days", otherwise=None)
def hours(calendars: tuple[Calendar, ...], work_facts: WorkFacts) -> HoursBand:
    return hours_of(calendars[0], work_facts)


@stage("days", "What is to be planned", "days", slow=True)
def day_problem(network: Network, calendars: tuple[Calendar, ...]) -> Problem:
    return problem_of(network, calendars[0])


@stage("days", "Rates that were learnt", "days.rates", otherwise=())
def learned(network: Network, calendar: Days) -> tuple[LearnedRate, ...]:
    return learned_rates(network, calendar)


@stage("days", "The kept plan", "days.kept", otherwise=None)
def kept_plan(network: Network, calendars: tuple[Calendar, ...], dated: Days) -> KeptPlan | None:
    """Looked at afresh whenever the work, the people or the weather change."""
    return kept_plan_of(problem_of(network, calendars[0]), dated.kept) if dated.kept else None
