"""Forces on the feet of a panel as straight lines in the pressure: F = constant + per_pa · q, in every
situation that is looked at.

A situation is a load case together with one of the models that bound a framed panel: a stiff plate on its
feet, or the sides of its frame as beams on them, with the glass handing over at 45° or evenly. Where feet
stand on skin, each model is taken with the skin at its softest and at its stiffest.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.records import dataclass, replace
from fahrtwind.core.stations.hold.links import Chain
from fahrtwind.core.stations.hold.loads import CASES, PanelLoads, case_forces, standing_force
from fahrtwind.core.stations.hold.sharing import Sharing, ShearShare, share_pull, share_shear, variants
from fahrtwind.core.stations.hold.side_frame import Pressed, beam_pulls, side_loads
from fahrtwind.core.stations.hold.zones import WINDS
from fahrtwind.core.stations.layout.feet import FootPlace

FloatArray = npt.NDArray[np.float64]
MODELS = ("stiff plate", "side frame, glass at 45°", "side frame, evenly")
CASE_NAMES = tuple(name for name, *_ in CASES)
PARKED_NAMES = tuple(f"parked, wind from {'the ' if w in ('front', 'rear') else ''}{w}" for w in WINDS)
ALONG = ("port", "starboard")
ACROSS = ("front", "rear")


@dataclass(frozen=True, slots=True, eq=False)
class Forces:
    """Arrays of shape (v, s, n): v feet there (all, then each lost), s situations, n feet; N and N/Pa.

    ``cases`` and ``models`` name the situations. ``stable``, shape (v,), is False where the feet that are
    left hold nothing; ``present``, shape (v, n), is 0 for a lost foot. ``same_wind``: so many situations in a
    row meet the same wind, so that what they have per pascal is alike.
    """

    cases: tuple[str, ...]
    models: tuple[str, ...]
    pull_constant: FloatArray
    pull_per_pa: FloatArray
    pull_typical: FloatArray
    along_constant: FloatArray
    along_per_pa: FloatArray
    stable: npt.NDArray[np.bool_]
    present: FloatArray
    same_wind: int = 1


@dataclass(frozen=True, slots=True, eq=False)
class Shared:
    """Forces of the road and of the parked vehicle, and the plate's solution behind the first."""

    road: Forces
    parked: Forces
    plate: Sharing
    shear: ShearShare


@dataclass(frozen=True, slots=True)
class _Feet:
    """Feet about the panel's centre, mm, and the side of the frame each stands at."""

    sides: tuple[str, ...]
    x: FloatArray
    y: FloatArray

    def of_side(self, side: str) -> list[int]:
        return [i for i, s in enumerate(self.sides) if s == side]


def share(
    winds: tuple[PanelLoads, ...], feet: tuple[FootPlace, ...], chains: tuple[Chain, ...], bump_g: float
) -> Shared:
    """Share all loads of a panel among its feet. ``winds``: the slipstream, then parked
    from each of ``WINDS``; ``bump_g`` in g."""
    loads = winds[0]
    centre = loads.rect.centre
    placed = _Feet(
        tuple(f.side for f in feet),
        np.array([f.x_mm - centre[0] for f in feet]),
        np.array([f.y_mm - centre[1] for f in feet]),
    )
    soft = np.array([c.stiffness_n_mm for c in chains])
    stiff = np.array([c.stiffest_n_mm for c in chains])
    ends = [soft] if np.array_equal(soft, stiff) else [soft, stiff]
    road_case, parked_case = case_forces(loads.mass_kg, bump_g), standing_force(loads.mass_kg)
    rows = plate_rows(winds, road_case, parked_case)
    shear = share_shear(placed.x, placed.y, along_rows(winds, road_case))
    road: list[FloatArray] = []
    parked: list[FloatArray] = []
    plates: list[Sharing] = []
    handed = _handed(winds, placed)
    for stiffness in ends:
        plate = share_pull(placed.x, placed.y, stiffness, rows)
        plates.append(plate)
        beams = _beams(handed, len(feet), 2 + len(winds), stiffness)
        on_road, standing = _models(len(winds), beams, plate, road_case, parked_case)
        road.append(on_road)
        parked.append(standing)
    along, n = shear.magnitude(), len(CASES)
    none = np.zeros_like(along[:, :1])
    found = variants(len(feet))
    skin = ("",) if len(ends) == 1 else (", skin at its softest", ", skin at its stiffest")
    models = tuple(f"{model}{end}" for end in skin for model in MODELS)
    driven = _forces(CASE_NAMES, models, road, (along[:, :n], along[:, n : n + 1]), plates[0].stable, found)
    return Shared(
        replace(driven, same_wind=n),
        _forces(PARKED_NAMES, models, parked, (none, along[:, n + 1 :]), plates[0].stable, found),
        plates[0],
        shear,
    )


def plate_rows(winds: tuple[PanelLoads, ...], road: FloatArray, parked: FloatArray) -> FloatArray:
    """Load vectors (F, F·x, F·y; N and N·mm, or for one pascal) for the stiff plate: all cases whole, all
    cases by their moments alone, each wind whole and by its moment alone, the first at its typical end.
    """
    height, centre = winds[0].centre_height_mm, winds[0].rect.centre
    rows = []
    for whole in (1.0, 0.0):
        rows += [(whole * up, -aft * height, -across * height) for aft, across, up in (*road, *parked)]
    for whole in (1.0, 0.0):
        for wind in winds:
            rows.append(_wind_row(wind, wind.cautious_m2 * whole, wind.cautious_at_mm, centre))
    rows.append(_wind_row(winds[0], winds[0].typical_m2, winds[0].typical_at_mm, centre))
    return np.array(rows)


def _wind_row(
    wind: PanelLoads, total: float, at: tuple[float, float], centre: tuple[float, float]
) -> tuple[float, float, float]:
    tip = wind.drag_m2 * wind.centre_height_mm
    return (
        total,
        total * (at[0] - centre[0]) - wind.heading[0] * tip,
        total * (at[1] - centre[1]) - wind.heading[1] * tip,
    )


def along_rows(winds: tuple[PanelLoads, ...], road: FloatArray) -> FloatArray:
    """Forces along the roof, aft and to starboard: of every road case in N, then of one pascal from each
    wind.
    """
    drag = [[w.drag_m2 * w.heading[0], w.drag_m2 * w.heading[1]] for w in winds]
    return np.vstack([road[:, :2], drag])


def _models(
    w: int, beams: FloatArray, plate: Sharing, road: FloatArray, parked: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """For road and parked: constant, per pascal and typical pulls, shape (3, v, models, cases, n). ``w``: so
    many winds; ``beams``: (v, model, load, n) for a weight of one newton, each wind, and the typical one.
    """
    n, k = len(road), len(road) + len(parked)
    pull = plate.pull_n
    whole, moment = pull[:, :k], pull[:, k : 2 * k]
    wind, tip, typical = pull[:, 2 * k : 2 * k + w], pull[:, 2 * k + w : 2 * k + 2 * w], pull[:, -1:]
    up = np.concatenate([road, parked])[:, 2]
    constant, per_pa, at_typical = [whole], [wind], [typical]
    for model in range(beams.shape[1]):
        own = beams[:, model]
        without = np.isnan(own)  # no beam there: the plate stands for it
        constant.append(np.where(without[:, :1], whole, own[:, :1] * up[None, :, None] + moment))
        per_pa.append(np.where(without[:, 1 : w + 1], wind, own[:, 1 : w + 1] + tip))
        at_typical.append(np.where(without[:, w + 1 :], typical, own[:, w + 1 :] + tip[:, :1]))
    c, p, t = (np.stack(part, axis=1) for part in (constant, per_pa, at_typical))
    shape = (*c.shape[:2], n, c.shape[3])
    on_road = np.stack([c[:, :, :n], np.broadcast_to(p[:, :, :1], shape), np.broadcast_to(t, shape)])
    gusts = p[:, :, 1:]
    standing = np.broadcast_to(c[:, :, n:], gusts.shape)
    return on_road, np.stack([standing, gusts, gusts])


@dataclass(frozen=True, slots=True)
class _Handed:
    """What the glass hands to a side: its feet, where they stand along it, where its loads pull, mm, and the
    loads by both models, N.
    """

    feet: list[int]
    along: FloatArray
    at: FloatArray
    loads: FloatArray


def _handed(winds: tuple[PanelLoads, ...], feet: _Feet) -> list[_Handed]:
    """Of every side with two feet or more; it does not hang on how stiff they are."""
    rect, pressed, found = winds[0].rect, _pressed(winds), []
    held = {side: own for side in (*ALONG, *ACROSS) if len(own := feet.of_side(side)) >= 2}
    for side, own in held.items():
        beside = ACROSS if side in ALONG else ALONG
        corners = not any(other in held for other in beside)
        at, slanted, evenly = side_loads(rect, side, pressed, corners)
        along = feet.x[own] + rect.length_mm / 2 if side in ALONG else feet.y[own] + rect.width_mm / 2
        found.append(_Handed(own, along, at, np.hstack([slanted, evenly])))
    return found


def _beams(handed: list[_Handed], n: int, columns: int, stiffness: FloatArray) -> FloatArray:
    """Pulls of n feet by the sides of the frame, shape (v, 2, columns, n); nan for feet whose side has no
    second.
    """
    found = np.full((n + 1, 2, columns, n), np.nan)
    for side in handed:
        own = side.feet
        pulls = beam_pulls(side.along, stiffness[own], side.at, side.loads)
        by_model = pulls.reshape(len(own) + 1, 2, columns, len(own))
        found[..., own] = by_model[0]
        for position, foot in enumerate(own):
            found[foot + 1][..., own] = by_model[position + 1]
    return found


def _pressed(winds: tuple[PanelLoads, ...]) -> tuple[Pressed, ...]:
    """All pressures at once, one column each: a weight of one newton, every wind, the first's typical end."""
    columns = 2 + len(winds)
    rect = winds[0].rect
    even = np.zeros(columns)
    even[0] = 1 / rect.area_m2
    parts = [Pressed(rect, even)]
    for number, wind in enumerate(winds):
        for piece in wind.pieces:
            pressure = np.zeros(columns)
            pressure[1 + number] = piece.cautious
            if number == 0:
                pressure[-1] = piece.typical
            parts.append(Pressed(piece.rect, pressure))
    return tuple(parts)


def _forces(
    cases: tuple[str, ...],
    models: tuple[str, ...],
    taken: list[FloatArray],
    along: tuple[FloatArray, FloatArray],
    stable: npt.NDArray[np.bool_],
    present: FloatArray,
) -> Forces:
    """One situation for each model and case, model by model."""
    whole = np.concatenate(taken, axis=2)
    v, m, c, n = whole.shape[1:]
    constant, per_pa, typical = whole.reshape(3, v, m * c, n)

    def everywhere(part: FloatArray) -> FloatArray:
        each = np.broadcast_to(part[:, None], (v, m, c, n))
        return np.asarray(each.reshape(v, m * c, n))

    return Forces(
        tuple(case for _ in models for case in cases),
        tuple(model for model in models for _ in cases),
        constant,
        per_pa,
        typical,
        everywhere(np.broadcast_to(along[0], (v, c, n))),
        everywhere(np.broadcast_to(along[1], (v, c, n))),
        stable,
        present,
    )
