"""Schools side by side: each is held alike on all panels, made to hold or refused with its reason."""

from __future__ import annotations

import pytest

from fahrtwind.core.choose.schools import side_by_side
from fahrtwind.core.edits import AddEntry, apply_edits
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.document import Job

ON_CARRIERS = {"rails", "rack", "frame"}


def test_each_way_holds_when_its_edits_are_done_or_says_why_not(one_panel: Job) -> None:
    lines = side_by_side(one_panel)
    assert {line.way for line in lines} == {"screws", "bolts", "tape", *ON_CARRIERS}
    refused = [bool(line.stops) for line in lines]
    assert refused == sorted(refused) and not refused[0]
    driven = one_panel.vehicle.top_speed
    for line in lines:
        held = apply_edits(one_panel, list(line.edits))
        plan = evaluate(held).findings.plan
        assert all(bool(p.carrier) == (line.way in ON_CARRIERS) for p in held.panels)
        if line.way not in ON_CARRIERS:
            assert {p.hold.school for p in held.panels} == {line.way}
        if not line.stops:
            assert plan is not None and driven is not None and plan.safe_m_s >= driven.m_s
            assert line.safe_m_s == plan.safe_m_s
    holes = {line.way: line.holes for line in lines}
    assert holes["tape"] == 0 < holes["bolts"] and holes["screws"] > 0


def test_the_reason_for_a_way_is_kept_and_an_empty_roof_is_told(one_panel: Job) -> None:
    entry = {"about": "hold", "chosen": "rails", "name": "Rails", "reason": "panels move later"}
    decided = apply_edits(one_panel, [AddEntry(path="decisions", value=entry)])
    assert decided.decisions[-1].about == "hold" and decided.decisions[-1].reason == "panels move later"
    assert not any(s.id == "other-than-chosen" for s in evaluate(decided).snags)
    with pytest.raises(InputError, match="No panel"):
        side_by_side(one_panel.model_copy(update={"panels": ()}))
