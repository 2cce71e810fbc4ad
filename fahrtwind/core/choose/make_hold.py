"""Make it hold: the least changes that bring a panel over the speed that is driven, and over the gusts at its
site, each worked out before it is offered.

Changes are tried alone first, then two and three together, gentlest first; what needs fewer new holes, less
money, less work and less height stands first. Only the panel's own verdict is worked out while searching, and
only for what the changes alone let hope for; what is offered has been evaluated whole and brings no new stop.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Sequence
from functools import partial

from fahrtwind.core.choose.hold_changes import changes_of
from fahrtwind.core.choose.hold_search import OF_A_FRAME, THOROUGH, Effort, HoldOffer, Search, fails
from fahrtwind.core.choose.look import Look, subject
from fahrtwind.core.engine.beside import apart, go_on
from fahrtwind.core.engine.rule import Snag
from fahrtwind.core.job.document import Job
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.saying import say_speed

MOST_OFFERS = 4
"""Offers for one panel, a lower speed not counted."""
ONE_LOST = ("one-foot-lost", "carrier-foot-lost")


@dataclass(frozen=True, slots=True)
class PanelOffers:
    """What would make one panel hold, the least first; ``why`` where nothing that is known here does."""

    panel: str
    name: str
    offers: tuple[HoldOffer, ...]
    why: str


@dataclass(frozen=True, slots=True)
class MadeToHold:
    """Panels that do not hold as they are, each with its offers; empty where all hold."""

    panels: tuple[PanelOffers, ...]


def make_hold(job: Job, show: Callable[[MadeToHold], None] = lambda found: None) -> MadeToHold:
    """Offers for every panel that does not hold at the speed that is driven or at its site; also where a foot
    is lost, if that is wished. ``show`` is told what there is whenever one more panel is worked out.
    """
    failing = failing_panels(job, Look(job).near)
    # what lies on one carrier is held by the same changes
    alike: dict[str, list[PlacedPanel]] = {}
    for panel in failing:
        alike.setdefault(panel.carrier or f"panel {panel.id}", []).append(panel)
    groups = list(alike.values())
    known: dict[str, PanelOffers] = {}

    def there() -> MadeToHold:
        return MadeToHold(tuple(known[p.id] for p in failing if p.id in known))

    for number, offers in apart(partial(_offers_in, job), [group[0].id for group in groups]):
        known |= {p.id: replace(offers, panel=p.id, name=p.name) for p in groups[number]}
        go_on(len(known) / len(failing), f"{', '.join(p.name for p in failing if p.id not in known)} …")
        show(there())
    return there()


def _offers_in(job: Job, panel: str) -> PanelOffers:
    return offers_for(Look(job), next(p for p in job.panels if p.id == panel))


def failing_panels(job: Job, snags: tuple[Snag, ...]) -> list[PlacedPanel]:
    """Panels that have a stop of the hold among what its rules find, or whose carrier has."""
    return [p for p in job.panels if fails(snags, p) or (job.wish.one_lost and _tips(snags, p))]


def offers_for(
    before: Look,
    panel: PlacedPanel,
    without: Collection[str] = (),
    most: int = MOST_OFFERS,
    effort: Effort | None = None,
) -> PanelOffers:
    """What would make a panel hold, ``most`` ways at once, leaving out changes of the kinds ``without``. The
    ``effort`` is by itself what panels on feet or on a frame are worth.
    """
    effort = effort or usual_effort(panel)
    changes = sorted(
        (c for c in changes_of(before.job, panel) if c.kind not in without), key=lambda c: c.burden
    )
    search = Search(before, panel, changes, most, effort.near)
    found = [] if search.hopeless() else search.found(effort)
    told = sorted({o.words: o for o in reversed(found)}.values(), key=_ranked(found))[:most]
    if "speed" not in without:
        told += search.slower()
    return PanelOffers(panel.id, panel.name, tuple(told), "" if told else _why(search))


def usual_effort(panel: PlacedPanel) -> Effort:
    """What a panel on feet or on a carrier is worth."""
    return THOROUGH if panel.carrier is None else OF_A_FRAME


def _tips(snags: tuple[Snag, ...], panel: PlacedPanel) -> bool:
    """Whether it lets go at the speed that is driven once a foot is lost."""
    mine = {f"panels.{panel.id}", f"carriers.{panel.carrier}"}
    return any(s.id in ONE_LOST and subject(s.place) in mine for s in snags)


def _why(search: Search) -> str:
    """Why nothing was found, from what came nearest."""
    nearest, now, job = search.nearest, search.now, search.job
    if nearest is None or now is None:
        return "Nothing that holds it could be worked out: answer what Hold asks first."
    if search.refused is not None:
        words, stops = search.refused
        return f"It would be held by {words}, and refused for: {', '.join(stops)}."
    road = nearest.safe_m_s >= search.driven_m_s
    if road and nearest.parked < 1.0:
        return (
            "The road would be held, a storm where it stands would not: another place, or drive away from it."
        )
    if road and job.wish.one_lost and nearest.lost_m_s < search.driven_m_s:
        return "The road would be held with all feet there, with one lost it would not: tethers, or slower."
    return (
        "No change of feet, fasteners or carriers that was tried is enough: a smaller panel, or as it is at "
        f"most {say_speed(now.safe_m_s, job.units)}. What gives way is the {nearest.weakest}."
    )


def _ranked(offers: Sequence[HoldOffer]) -> Callable[[HoldOffer], tuple[float, ...]]:
    """By holes, cost, hours and height; by cost only where it is known of all."""
    priced = all(offer.dearer is not None for offer in offers)

    def rank(offer: HoldOffer) -> tuple[float, ...]:
        cost = round(offer.dearer or 0.0, 2) if priced else 0.0
        return (max(offer.holes, 0), cost, round(offer.hours, 1), offer.height_mm, -offer.safe_m_s)

    return rank
