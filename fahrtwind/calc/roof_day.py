"""Calculations of the roof day: what was built, beside what was planned."""

from __future__ import annotations

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import calculation
from fahrtwind.core.choose.as_built import Reality, reality
from fahrtwind.core.job.load import load_job


@calculation("roof_day.as_built")
def roof_day_as_built(given: JobInput) -> Reality:
    """How fast it may drive as planned and as built, and what can be done about feet that are off."""
    return reality(load_job(given.job))
