"""Every station's questions, stages and rules, collected in the order of the road and checked."""

from importlib import import_module

from fahrtwind.core.stations.hold.schools import SCHOOLS
from fahrtwind.core.stations.house import house, rules

DECLARING = (
    "survey.questions",
    "structure.questions",
    "layout.questions",
    "hold.questions",
    "wire.questions",
    "days.questions",
    "survey.stages",
    "structure.stages",
    "layout.stages",
    "hold.stages",
    "hold.carriers.stages",
    "hold.tethers.stages",
    "hold.raised.stages",
    "build.stages",
    "seal.stages",
    "wire.stages",
    "days.stages",
    "roof_day.stages",
    "log.stages",
    "layout.arrangement_rules",
    "build.rules",
    "seal.rules",
    "wire.rules",
    "wire.clip_rules",
    "days.rules",
    "roof_day.rules",
    "log.rules",
    "build.cut_rules",
    "build.bolt_rules",
    "build.fit_rules",
    "build.metal_rules",
    "build.lift_rules",
    "hold.rules",
    "hold.carriers.rules",
    "hold.carriers.rack_rules",
    "hold.carriers.post_rules",
    "hold.carriers.clamp_rules",
    "hold.tethers.rules",
    "hold.raised.rules",
    "hold.schools.drilled_rules",
    "layout.rules",
    "structure.rules",
    "survey.rules",
)
"""Modules in which parts of the house are declared. A new one is one line here: the order is the one in which
questions are asked.
"""

import_module("fahrtwind.core.formulas")
for _name in (*DECLARING, *(f"hold.schools.{school}.rules" for school in SCHOOLS)):
    import_module(f"fahrtwind.core.stations.{_name}")
house.check()  # types are looked at when the application starts, and by the suite

__all__ = ["house", "rules"]
