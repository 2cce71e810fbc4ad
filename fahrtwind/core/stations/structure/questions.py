"""What the structure asks for: only of those who fasten into members."""

from __future__ import annotations

from fahrtwind.core.engine.silence import Question
from fahrtwind.core.engine.stage import Missing
from fahrtwind.core.job.document import Job, MemberKind, Reading, holds_of
from fahrtwind.core.quantities import Length
from fahrtwind.core.stations.house import view
from fahrtwind.core.stations.views import Asked


def _ask(path: str, words: str) -> Missing:
    return Missing(Question(path, "structure", words))


def into_members(job: Job) -> bool:
    """Whether anything asks for ribs: tape does not, nor do bolts through a deck or a truck bed's rails."""
    schools = {hold.school for hold in holds_of(job)}
    if job.vehicle.kind in ("boat", "truck_bed"):
        return "screws" in schools and job.vehicle.kind == "truck_bed"
    return not job.panels or bool(schools - {"tape", "base_plate", "outer_foot"})


@view()
def screwed(asked: Asked) -> bool:
    """Whether anything is held by screws."""
    return any(hold.school == "screws" for hold in holds_of(asked.job))


@view()
def readings_wanted(asked: Asked) -> tuple[Reading, ...] | Missing:
    if into_members(asked.job) and not asked.job.readings:
        return _ask("readings", "Take readings along the roof: magnet, rivets, knocking.")
    return asked.job.readings


@view()
def rib_kind(asked: Asked) -> MemberKind | Missing | None:
    if into_members(asked.job) and asked.job.members.kind is None:
        return _ask("members.kind", "What are the members: steel hat ribs, aluminium boxes or wood trusses?")
    return asked.job.members.kind


def _known(asked: Asked, value: Length | None, path: str, words: str) -> Length | Missing | None:
    """Asked for once the kind of member is known."""
    wanted = into_members(asked.job) and asked.job.members.kind is not None
    return _ask(path, words) if wanted and value is None else value


@view()
def rib_face(asked: Asked) -> Length | Missing | None:
    words = "How wide is the member's face under the skin?"
    return _known(asked, asked.job.members.face_width, "members.face_width", words)


@view()
def rib_wall(asked: Asked) -> Length | Missing | None:
    if asked.job.members.kind == "wood_truss":
        return None
    return _known(asked, asked.job.members.wall, "members.wall", "How thick is the member's wall?")


@view()
def rib_depth(asked: Asked) -> Length | Missing | None:
    words = "How deep is the member, down to the ceiling?"
    return _known(asked, asked.job.members.depth, "members.depth", words)
