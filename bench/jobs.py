"""The large job the speed figures are about: 12 panels, 72 feet, 24 members, 10 obstacles."""

from __future__ import annotations

from fahrtwind.core.job.document import Job
from fahrtwind.core.job.edits import AddEntry, Edit, PlacePanel, SetValue, SpreadFeet, apply_edits
from fahrtwind.demo import demo_jobs


def large_job() -> Job:
    bus = next(j for j in demo_jobs() if j.vehicle.kind == "bus")
    job = Job.model_validate({**bus.model_dump(), "name": "large", "panels": [], "obstacles": []})
    edits: list[Edit] = [SetValue(path="vehicle.roof_length", value="15.7 m"), SetValue(path="vehicle.roof_width", value="2.5 m")]
    fan = {"kind": "fan", "y": "0", "length": "300 mm", "width": "300 mm", "lid_hinge": "rear", "lid_reach": "100 mm"}
    edits += [AddEntry(path="obstacles", value={**fan, "name": f"Fan {i}", "x": f"{1700 + i * 1300} mm"}) for i in range(10)]
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


def nudged(job: Job, by_mm: float) -> Job:
    return apply_edits(job, [SetValue(path="panels.p4.x", value={"mm": 4040.0 + by_mm})])
