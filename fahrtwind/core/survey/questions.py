"""What has not been measured or chosen yet. A missing input is asked for, never assumed."""

from __future__ import annotations

from dataclasses import dataclass

from fahrtwind.core.job.document import Job


@dataclass(frozen=True, slots=True)
class Question:
    """A missing input: the job path that answers it, the station that asks, and how to find out."""

    path: str
    station: str
    ask: str


def open_questions(job: Job) -> tuple[Question, ...]:
    asked = [*_vehicle(job), *(_members(job) if _into_members(job) else [])]
    if not job.panels:
        asked.append(Question("panels", "layout", "Choose a panel and place it on the roof."))
    for panel in job.panels:
        if not panel.feet:
            asked.append(Question(f"panels.{panel.id}.feet", "layout", f"Give {panel.name} its feet."))
        if panel.hold.school == "tape" and panel.hold.temperature is None:
            asked.append(
                Question(f"panels.{panel.id}.hold.temperature", "hold", f"{panel.name}: how warm will the roof be when you tape?")
            )
    return tuple(asked)


def _into_members(job: Job) -> bool:
    """Whether anything asks for ribs: tape does not, nor do bolts through a deck or a truck bed's rails."""
    if job.vehicle.kind in ("boat", "truck_bed"):
        return any(p.hold.school == "screws" for p in job.panels) and job.vehicle.kind == "truck_bed"
    return not job.panels or any(p.hold.school != "tape" for p in job.panels)


def _vehicle(job: Job) -> list[Question]:
    vehicle = job.vehicle
    wanted: list[tuple[str, object, str]] = [
        ("roof_length", vehicle.roof_length, "Measure the roof from its front edge to its rear edge."),
        ("roof_width", vehicle.roof_width, "Measure the roof across, edge to edge."),
        ("skin", vehicle.skin, "What is the skin: steel, aluminium, fibreglass or membrane on ply?"),
        ("top_speed", vehicle.top_speed, "How fast will it be driven at most?"),
        ("altitude", vehicle.altitude, "How high above the sea does it drive at its lowest? Low roads have denser air."),
    ]
    if not vehicle.no_papers:
        ask = "Roof load limit while driving: see the vehicle's papers, or say that there are none."
        wanted.append(("roof_load_limit", vehicle.roof_load_limit, ask))
    if vehicle.skin == "membrane":
        wanted.append(
            ("ply_thickness", vehicle.ply_thickness, "How thick is the ply under the membrane? Look at a vent's cut edge.")
        )
    elif vehicle.skin is not None:
        wanted.append(("skin_thickness", vehicle.skin_thickness, "How thick is the skin? Measure a cut edge; gauge will do."))
    return [Question(f"vehicle.{name}", "survey", ask) for name, value, ask in wanted if value is None]


def _members(job: Job) -> list[Question]:
    members, asked = job.members, []
    if not job.readings:
        asked.append(Question("readings", "structure", "Take readings along the roof: magnet, rivets, knocking."))
    if members.kind is None:
        return [
            *asked,
            Question("members.kind", "structure", "What are the members: steel hat ribs, aluminium boxes or wood trusses?"),
        ]
    if members.face_width is None:
        asked.append(Question("members.face_width", "structure", "How wide is the member's face under the skin?"))
    if members.kind != "wood_truss" and members.wall is None:
        asked.append(Question("members.wall", "structure", "How thick is the member's wall?"))
    if members.depth is None:
        asked.append(Question("members.depth", "structure", "How deep is the member, down to the ceiling?"))
    return asked
