"""What the survey asks for. A missing input is asked for, never assumed."""

from __future__ import annotations

from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import Missing
from fahrtwind.core.job.document import SkinKind, holds_of
from fahrtwind.core.quantities import Length, Mass, Speed
from fahrtwind.core.stations.house import view
from fahrtwind.core.stations.views import Asked


def _ask(field: str, words: str) -> Missing:
    return Missing(Question(f"vehicle.{field}", "survey", words))


@view()
def drilled(asked: Asked) -> bool:
    """Whether anything makes holes in the roof."""
    return any(hold.school != "tape" for hold in holds_of(asked.job))


@view()
def roof_length(asked: Asked) -> Length | Missing:
    return asked.job.vehicle.roof_length or _ask(
        "roof_length", "Measure the roof from its front edge to its rear edge."
    )


@view()
def roof_width(asked: Asked) -> Length | Missing:
    return asked.job.vehicle.roof_width or _ask("roof_width", "Measure the roof across, edge to edge.")


@view()
def skin_kind(asked: Asked) -> SkinKind | Missing:
    return asked.job.vehicle.skin or _ask(
        "skin", "What is the skin: steel, aluminium, fibreglass or membrane on ply?"
    )


@view()
def top_speed(asked: Asked) -> Speed | Missing:
    return asked.job.vehicle.top_speed or _ask("top_speed", "How fast will it be driven at most?")


@view()
def altitude(asked: Asked) -> Length | Missing:
    words = "How high above the sea does it drive at its lowest? Low roads have denser air."
    return asked.job.vehicle.altitude or _ask("altitude", words)


@view()
def roof_load_limit(asked: Asked) -> Mass | Missing | None:
    """Asked for unless there are no papers that could tell it."""
    vehicle = asked.job.vehicle
    if vehicle.roof_load_limit is None and not vehicle.no_papers:
        return _ask(
            "roof_load_limit",
            "Roof load limit while driving: see the vehicle's papers, or say that there are none.",
        )
    return vehicle.roof_load_limit


@view()
def skin_thickness(asked: Asked) -> Length | Missing | None:
    """Of the sheet or laminate, or of the ply under a membrane; None while the kind of skin is not known
    either.
    """
    vehicle = asked.job.vehicle
    if vehicle.skin == "membrane":
        words = "How thick is the ply under the membrane? Look at a vent's cut edge."
        return vehicle.ply_thickness or _ask("ply_thickness", words)
    if vehicle.skin is None:
        return None
    return vehicle.skin_thickness or _ask(
        "skin_thickness", "How thick is the skin? Measure a cut edge; gauge will do."
    )
