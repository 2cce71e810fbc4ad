"""What the wiring asks for."""

from __future__ import annotations

from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import Missing
from fahrtwind.core.job.wiring import Controller
from fahrtwind.core.stations.house import view
from fahrtwind.core.stations.views import Asked
from fahrtwind.core.stations.wire.limit import Air


@view()
def controllers_wanted(asked: Asked) -> tuple[Controller, ...] | Missing:
    """Asked for once there are panels."""
    if asked.job.panels and not asked.job.wiring.controllers:
        return _unplugged(asked) or ()
    return asked.job.wiring.controllers


@view()
def strings_wanted(asked: Asked) -> tuple[str, ...] | Missing:
    """The strings' ids, asked for once there are panels and controllers."""
    return _unplugged(asked) or tuple(s.id for s in asked.job.wiring.strings)


def _unplugged(asked: Asked) -> Missing | None:
    """What has to be told before anything else is worth asking."""
    wiring = asked.job.wiring
    if not asked.job.panels or wiring.strings:
        return None
    if not wiring.controllers:
        return Missing(Question("wiring.controllers", "wire", "Which charge controller do they plug into?"))
    return Missing(Question("wiring.strings", "wire", "Plug the panels into strings, or take a proposal."))


@view()
def electric_air(asked: Asked) -> Air | Missing:
    """Record low, hot air and code."""
    wiring = asked.job.wiring
    if (first := _unplugged(asked)) is not None:
        return first
    if wiring.coldest is None:
        words = "How cold has it ever been where it will stand?"
        return Missing(Question("wiring.coldest", "wire", words))
    if wiring.warmest is None:
        return Missing(Question("wiring.warmest", "wire", "How warm is the air on its hottest day?"))
    return Air(wiring.coldest.deg_c, wiring.warmest.deg_c, wiring.code, asked.job.units)


@view()
def length_inside(asked: Asked) -> float | Missing:
    """From the gland to the controllers, mm."""
    if (first := _unplugged(asked)) is not None:
        return first
    if asked.job.wiring.inside is None:
        words = "How far is it from the gland to the controller?"
        return Missing(Question("wiring.inside", "wire", words))
    return asked.job.wiring.inside.mm


@view()
def gland_spot(asked: Asked) -> tuple[float, float] | Missing:
    """Where cables go in."""
    if (first := _unplugged(asked)) is not None:
        return first
    gland = asked.job.seal.gland
    if gland is None:
        return Missing(Question("seal.gland", "wire", "Where do the cables go in? Place the gland in Seal."))
    return gland.x.mm, gland.y.mm
