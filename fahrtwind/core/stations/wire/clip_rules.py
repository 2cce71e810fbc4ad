"""Snags of cable clips: holes that nobody needs, lines under them, dabs that do not stick."""

from __future__ import annotations

from collections.abc import Iterator

from fahrtwind.core.engine.rule import Found
from fahrtwind.core.job.roof import Survey
from fahrtwind.core.job.wiring import Wiring
from fahrtwind.core.quantities import UnitSystem
from fahrtwind.core.saying import say_length
from fahrtwind.core.stations.house import rule
from fahrtwind.core.stations.seal.choice import KindChoice
from fahrtwind.core.stations.seal.places import SealPlace
from fahrtwind.core.stations.survey.access import distances_to_line
from fahrtwind.core.tables.sealants import SOURCE

PRACTICE = "common practice, no source"


def _screwed(places: tuple[SealPlace, ...]) -> list[SealPlace]:
    return [p for p in places if p.kind == "clip screw"]


@rule("clip-screws-drill", "note", "wire", "Cable clips drill the roof", PRACTICE)
def clip_screws_drill(seal_places: tuple[SealPlace, ...], wiring: Wiring) -> Iterator[Found]:
    holes = sum(p.holes for p in _screwed(seal_places))
    if holes:
        yield Found(
            place="wiring.clip",
            where=f"{holes} screws",
            why="Each is a hole to seal and to look after; a stuck clip needs none.",
            remedy="Stick the clips, or lead the cables along frames and rails.",
            quantity="holes",
            value=float(holes),
            unit="holes",
        )


@rule("clip-screw-in-keep-out", "stop", "wire", "Clip screw over a line under the skin", "geometry")
def clip_screw_in_keep_out(
    seal_places: tuple[SealPlace, ...], survey_notes: Survey, units: UnitSystem
) -> Iterator[Found]:
    for line in survey_notes.keep_outs:
        for place in _screwed(seal_places):
            near = min(distances_to_line(line, [s.x_mm for s in place.spots], [s.y_mm for s in place.spots]))
            if near < line.clear.mm:
                yield Found(
                    place="wiring.clip",
                    where=f"{place.name} at {line.name}",
                    why=f"A screw is {say_length(near, units)} from the {line.kind} line; "
                    f"{say_length(line.clear.mm, units)} is to stay clear.",
                    remedy="Stick the clips, or drag the cable round it.",
                    quantity="distance",
                    value=near,
                    limit=line.clear.mm,
                    unit="mm",
                )


@rule("clip-does-not-stick", "caution", "wire", "The dab under cable clips does not stick", SOURCE)
def clip_does_not_stick(seal_kinds: tuple[KindChoice, ...]) -> Iterator[Found]:
    for kind in seal_kinds:
        bonding = kind.choice.round_bond
        if kind.kind == "cable clip" and bonding.bond == "refused":
            yield Found(
                place="seal.kinds",
                where=f"{bonding.family} on {kind.choice.substrate}",
                why=bonding.why,
                remedy="Another family for this kind of place, or screwed clips.",
            )
