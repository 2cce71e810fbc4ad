"""The large job the speed figures are about: 12 panels, 72 feet, 24 members, 10 obstacles."""

from __future__ import annotations

from fahrtwind.core.edits import (
    AddEntry,
    Edit,
    PlacePanel,
    PutOnRails,
    RemoveEntry,
    SetValue,
    SpreadFeet,
    apply_edits,
)
from fahrtwind.core.job.document import Job
from fahrtwind.core.road import Station
from fahrtwind.demo import demo_jobs

IN_SIGHT: tuple[Station, ...] = ("survey", "structure", "layout", "hold")
"""The stations that follow a drag on the roof (``web/src/roof/RoofStrip.tsx``)."""


def large_job() -> Job:
    bus = next(j for j in demo_jobs() if j.vehicle.kind == "bus")
    job = Job.model_validate({**bus.model_dump(), "name": "large", "panels": [], "obstacles": []})
    edits: list[Edit] = [
        SetValue(path="vehicle.roof_length", value="15.7 m"),
        SetValue(path="vehicle.roof_width", value="2.5 m"),
    ]
    fan = {
        "kind": "fan",
        "y": "0",
        "length": "300 mm",
        "width": "300 mm",
        "lid_hinge": "rear",
        "lid_reach": "100 mm",
    }
    edits += [
        AddEntry(path="obstacles", value={**fan, "name": f"Fan {i}", "x": f"{1700 + i * 1300} mm"})
        for i in range(10)
    ]
    job = apply_edits(job, edits)
    for i in range(12):
        job = apply_edits(job, [PlacePanel(model="Kiesel 185")])
        panel = job.panels[-1].id
        place = [
            SetValue(path=f"panels.{panel}.x", value={"mm": 200.0 + 1280 * i}),
            SetValue(path=f"panels.{panel}.y", value={"mm": -560.0}),
        ]
        job = apply_edits(job, [*place, SpreadFeet(panel=panel, count=6)])
    return job


def railed_job(every: int = 2) -> Job:
    """Twelve panels on two rails of thirteen feet each, at every second member; nine at every third."""
    job = large_job()
    bare: list[Edit] = [RemoveEntry(path=f"obstacles.{o.id}") for o in job.obstacles]
    railed = apply_edits(job, [*bare, PutOnRails(panels=tuple(p.id for p in job.panels))])
    return apply_edits(
        railed,
        [
            SetValue(path=f"carriers.{railed.carriers[0].id}.every", value=every),
            SetValue(path="name", value=f"large, feet at every {'second' if every == 2 else 'third'} member"),
        ],
    )


def nudged(job: Job, by_mm: float) -> Job:
    return apply_edits(job, [SetValue(path="panels.p4.x", value={"mm": 4040.0 + by_mm})])


def largest_job() -> Job:
    """As much of everything as a job may hold: 24 panels of 16 feet, 40 obstacles, 400 readings, 60 scans, 12
    variants.
    """
    job = apply_edits(large_job(), [SetValue(path="vehicle.roof_length", value="15.7 m")])
    whole = job.model_dump(mode="json")
    panel, fan = whole["panels"][0], whole["obstacles"][0]
    feet = [{**panel["feet"][0], "id": f"f{i + 1}", "along": {"mm": 40.0 + 70 * i}} for i in range(16)]
    whole["panels"] = [
        {
            **panel,
            "id": f"p{i + 1}",
            "x": {"mm": 200.0 + 1280 * (i // 2)},
            "y": {"mm": -620.0 + 1240 * (i % 2)},
            "feet": feet,
        }
        for i in range(24)
    ]
    whole["obstacles"] = [
        {**fan, "id": f"o{i + 1}", "name": f"Fan {i}", "x": {"mm": 60.0 + 385 * i}, "length": {"mm": 100.0}}
        for i in range(40)
    ]
    whole["readings"] = [
        {
            "id": f"r{i + 1}",
            "x": {"mm": 200.0 + 610 * (i % 25) + i // 25},
            "kind": "knock" if i % 2 else "magnet",
        }
        for i in range(400)
    ]
    whole["scans"] = [
        {"id": f"s{i + 1}", "start": {"mm": 250.0 * i}, "end": {"mm": 250.0 * i + 300}, "kind": "magnet"}
        for i in range(60)
    ]
    whole["variants"] = [
        {"id": f"v{i + 1}", "name": f"Variant {i}", "panels": whole["panels"]} for i in range(12)
    ]
    return Job.model_validate(whole)
