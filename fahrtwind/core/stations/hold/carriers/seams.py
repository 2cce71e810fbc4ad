"""Welds of a rack, and connectors at the ends of its posts, as far as somebody said what they are."""

from __future__ import annotations

from collections.abc import Callable
from math import pi
from typing import Literal

import numpy as np

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.verdict import limit_pressure, utilisation
from fahrtwind.core.formulas.welds import fillet_strength, round_weld_modulus, weld_modulus
from fahrtwind.core.job.carrier import Posts, Rack
from fahrtwind.core.job.sections import RectangularTube, RoundTube, Section
from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.carriers.limits import Limits, road_speed
from fahrtwind.core.stations.hold.carriers.rack import RackFrame
from fahrtwind.core.stations.hold.carriers.rack_forces import Linear, RackForces
from fahrtwind.core.stations.hold.carriers.verdict import SeamVerdict
from fahrtwind.core.stations.hold.frame.model import FloatArray
from fahrtwind.core.stations.hold.verdict import MOST_PA, Air
from fahrtwind.core.tables.alloys import ALLOYS, AlloyName

WELD_FACTOR, CONNECTOR_FACTOR = 1.95, 1.65
"""Rupture beside yielding and slip: Aluminum Design Manual, from memory."""
LIGHT_N_MM2 = 100_000.0
"""Modulus that tells aluminium from steel."""
Reading = Callable[[FloatArray], FloatArray]
"""What six forces, (…, 6), come to, never negative: N/mm² in a weld, N·mm on a connector."""


@dataclass(frozen=True, slots=True)
class Seam:
    """``at``: in which corner it is, or at which end of which piece of a bar; ``made``: how it reads forces
    and what it bears, worked out anew for the sheet that shows it.
    """

    name: str
    kind: Literal["weld", "connector"]
    at: tuple[Literal["corner", "piece"], int, int]
    made: Callable[[], tuple[Reading, float]]
    reads: Reading
    bears: float
    factor: float

    def of(self, corners: FloatArray, pieces: FloatArray) -> FloatArray:
        """What it reads of forces (…, corners, 6) and (…, pieces, 12), N and N·mm: N/mm² or N·mm, (…)."""
        where, which, end = self.at
        part = corners[..., which, :] if where == "corner" else pieces[..., which, 6 * end : 6 * end + 6]
        return self.reads(part)


def _seam(
    name: str, at: tuple[Literal["corner", "piece"], int, int], made: Callable[[], tuple[Reading, float]]
) -> Seam:
    return Seam(name, "weld", at, made, *made(), WELD_FACTOR)


def seams_of(rack: Rack, frame: RackFrame) -> list[Seam]:
    """Those of which it is known what they bear."""
    found: list[Seam] = []
    if rack.throat is not None and corners_judged(rack):
        throat = rack.throat.mm

        def corner() -> tuple[Reading, float]:
            return _between(rack, throat), strength(_weaker(rack.alloy, rack.bar_alloy))

        corners = frame.frame.ties[: frame.corners]
        found += [_seam(tie.name, ("corner", i, 0), corner) for i, tie in enumerate(corners)]
    if rack.posts is not None and judged(rack):
        for i, bar in enumerate(frame.frame.bars):
            if frame.made_of[bar.part].runs == "up":
                found += [_at_post(rack, rack.posts, bar.part, i, end) for end in (0, 1)]
    return found


def corners_judged(rack: Rack) -> bool:
    """Whether the welds of its corners have a line that is known: tubes of the same kind of metal, round the
    end of a bar between rails, or where two flat faces lie on each other. Round tubes that cross touch at a
    point; angles, channels and slotted profiles are not welded all round.
    """
    if rack.joint != "welded" or rack.throat is None or not weldable(rack.alloy, rack.bar_alloy):
        return False
    if rack.flush:
        return isinstance(rack.bar_section, Tube)
    return isinstance(rack.bar_section, RectangularTube) and isinstance(rack.section, RectangularTube)


def judged(rack: Rack) -> bool:
    """Whether what joins its posts is judged."""
    posts = rack.posts
    if posts is None or posts.joint_nm is not None:
        return posts is not None
    known = rack.throat is not None and isinstance(posts.section, Tube)
    return known and weldable(posts.alloy, rack.alloy)


def posts_welded(rack: Rack) -> bool:
    """Whether its posts are welded to rails and plates, as far as it is told."""
    return rack.posts is not None and rack.posts.joint_nm is None and rack.throat is not None


Tube = RectangularTube | RoundTube


def weldable(*alloys: AlloyName) -> bool:
    """Aluminium is not welded to steel."""
    return len({ALLOYS[alloy].modulus_n_mm2 < LIGHT_N_MM2 for alloy in alloys}) == 1


def strength(alloy: AlloyName) -> float:
    """What a fillet weld of this metal bears in its throat, N/mm²."""
    known = ALLOYS[alloy]
    return float(
        fillet_strength(
            given(known.weld_n_mm2, "table", known.source), given(known.correlation, "table", known.source)
        )
    )


def _weaker(*alloys: AlloyName) -> AlloyName:
    return min(alloys, key=strength)


def _at_post(rack: Rack, posts: Posts, name: str, piece: int, end: int) -> Seam:
    at: tuple[Literal["corner", "piece"], int, int] = ("piece", piece, end)
    title = f"{name} {'top' if end else 'foot'}"
    if posts.joint_nm is not None:
        bears = posts.joint_nm * 1000
        reads = _connected(bears / posts.joint_n if posts.joint_n else 0.0)
        return Seam(title, "connector", at, lambda: (reads, bears), reads, bears, CONNECTOR_FACTOR)
    assert rack.throat is not None, "asked for before"
    throat = rack.throat.mm
    other = rack.alloy if end else posts.alloy  # its plate is of its own metal
    return _seam(
        title, at, lambda: (_round_end(posts.section, throat), strength(_weaker(posts.alloy, other)))
    )


def _connected(arm_mm: float) -> Reading:
    """All three moments together, whichever way it turns in its clamp, and what slides it along the tube,
    each newton as so many N·mm: shares of both are added up, on the safe side.
    """

    def reads(part: FloatArray) -> FloatArray:
        turning = np.sqrt(np.sum(part[..., 3:] ** 2, axis=-1))
        return np.asarray(turning + arm_mm * np.abs(part[..., 0]))

    return reads


def _along(part: FloatArray) -> FloatArray:
    return np.abs(part[..., 0])


def _stress(area: float, up: float, side: float, torsion: float, order: tuple[int, ...]) -> Reading:
    """Parts added by their size, on the safe side; ``order``: which of six forces are along the normal,
    across it twice, about it, and about the two others.
    """
    n, v, w, t, a, b = order

    def reads(part: FloatArray) -> FloatArray:
        f = np.abs(part)
        across = np.hypot(f[..., v], f[..., w])
        return np.asarray(
            (f[..., n] + across) / area + f[..., t] / torsion + f[..., a] / up + f[..., b] / side
        )

    return reads


def _round_end(section: Section, throat: float) -> Reading:
    """All round the end of a bar: N, two shears, torsion, two bendings by the bar's own axes."""
    return _stress(*_end(section, throat), (0, 1, 2, 3, 4, 5))


def _end(section: Section, throat: float) -> tuple[float, float, float, float]:
    """Area and moduli of a weld round the end of a tube: bent up, bent sideways, twisted."""
    if isinstance(section, RoundTube):
        d = section.diameter.mm
        w = float(round_weld_modulus(given(throat, "chosen", "throat"), given(d, "chosen", "diameter")))
        return pi * d * throat, w, w, 2 * w
    return _rectangle(section.height.mm, section.width.mm, throat)


def _rectangle(high: float, wide: float, throat: float) -> tuple[float, float, float, float]:
    """Area and moduli of a weld round it: bent along its height, along its width, twisted."""
    a = given(throat, "chosen", "throat")
    h, b = given(high, "chosen", "size"), given(wide, "chosen", "size")
    up, side = float(weld_modulus(a, h, b)), float(weld_modulus(a, b, h))
    return 2 * throat * (high + wide), up, side, 2 * high * wide * throat


def _between(rack: Rack, throat: float) -> Reading:
    """Round where a bar lies on a rail; round the end of a bar between rails. Forces aft, across, up, and
    about these.
    """
    bar = rack.bar_section
    if rack.flush:
        return _stress(*_end(bar, throat), (1, 0, 2, 4, 3, 5))
    area, roll, pitch, torsion = _rectangle(rack.section.width.mm, bar.width.mm, throat)
    return _stress(area, roll, pitch, torsion, (2, 0, 1, 5, 3, 4))


def judge_seams(
    seams: list[Seam], forces: RackForces, air: Air
) -> tuple[tuple[SeamVerdict, ...], list[Limits], list[Limits]]:
    """Each on the road, with its limits there and parked."""
    found, road, parked = [], [], []
    for seam in seams:
        on_road = _limits(seam, forces.ties_road, forces.bars_road.linear)
        road.append(on_road)
        parked.append(_limits(seam, forces.ties_parked, forces.bars_parked.linear))
        q = air.pressure_pa
        now = _reads(seam, forces.ties_road, forces.bars_road.linear, "constant")[0]
        now = now + q * _reads(seam, forces.ties_road, forces.bars_road.linear, "per_pa")[0]
        found.append(
            SeamVerdict(
                seam.name,
                seam.kind,
                float(now.max()) * seam.factor / seam.bears,
                seam.bears if seam.kind == "weld" else seam.bears / 1000,
                road_speed(on_road.let_go, air),
                road_speed(on_road.safe, air),
                _pull(seam, forces, q),
            )
        )
    return tuple(found), road, parked


def _pull(seam: Seam, forces: RackForces, pressure_pa: float) -> float:
    """The most that pulls or presses along the tube at a connector, N."""
    if seam.kind == "weld":
        return 0.0
    along = replace(seam, reads=_along)
    now = _reads(along, forces.ties_road, forces.bars_road.linear, "constant")[0]
    now = now + pressure_pa * _reads(along, forces.ties_road, forces.bars_road.linear, "per_pa")[0]
    return float(now.max())


def explain_seams(seams: list[Seam], verdicts: tuple[SeamVerdict, ...]) -> None:
    """Note what each is made of and what of it is used."""
    for seam, told in zip(seams, verdicts, strict=True):
        with scope(f"seam {seam.name}"):
            seam.made()
            design = seam.bears / seam.factor
            utilisation(
                given(told.utilisation * design, "computed", "frame, worst case, parts by their size"),
                0.0,
                given(design, "computed", f"{seam.bears:.1f} over {seam.factor:g}"),
                1.0,
            )


def _reads(seam: Seam, corners: Linear, pieces: Linear, part: Literal["constant", "per_pa"]) -> FloatArray:
    """(variants, situations)."""
    return seam.of(np.nan_to_num(getattr(corners, part)), np.nan_to_num(getattr(pieces, part)))


def _limits(seam: Seam, corners: Linear, pieces: Linear) -> Limits:
    constant = _reads(seam, corners, pieces, "constant")
    per_pa = _reads(seam, corners, pieces, "per_pa")
    none = np.zeros_like(constant)

    def least(bears: float, of: slice) -> float:
        limit = np.full_like(constant[of], bears)
        found = limit_pressure(constant[of], per_pa[of], none[of], none[of], limit, limit)
        return float(np.asarray(found).min(initial=MOST_PA))

    whole, lost, held = slice(0, 1), slice(1, None), seam.bears / seam.factor
    return Limits(least(seam.bears, whole), least(held, whole), least(seam.bears, lost), least(held, lost))
