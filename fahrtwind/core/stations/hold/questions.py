"""What the hold asks for."""

from __future__ import annotations

from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import Missing
from fahrtwind.core.job.panel import PlacedPanel
from fahrtwind.core.quantities import Temperature
from fahrtwind.core.stations.house import view


@view(each="panels")
def bonding_temperature(panel: PlacedPanel) -> Temperature | Missing | None:
    """How warm the roof is when tape is set; None for what is not taped."""
    if panel.hold.school != "tape":
        return None
    words = f"{panel.name}: how warm will the roof be when you tape?"
    return panel.hold.temperature or Missing(Question(f"panels.{panel.id}.hold.temperature", "hold", words))
