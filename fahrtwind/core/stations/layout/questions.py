"""What the layout asks for."""

from __future__ import annotations

from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import Missing
from fahrtwind.core.job.panel import Foot, PlacedPanel
from fahrtwind.core.stations.house import view
from fahrtwind.core.stations.views import Asked


@view()
def panels_wanted(asked: Asked) -> tuple[PlacedPanel, ...] | Missing:
    if not asked.job.panels:
        return Missing(Question("panels", "layout", "Choose a panel and place it on the roof."))
    return asked.job.panels


@view(each="panels")
def feet_wanted(panel: PlacedPanel) -> tuple[Foot, ...] | Missing:
    if panel.feet or panel.carrier:
        return panel.feet
    return Missing(Question(f"panels.{panel.id}.feet", "layout", f"Give {panel.name} its feet."))
