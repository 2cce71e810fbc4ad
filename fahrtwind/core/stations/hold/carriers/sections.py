"""What a bar or a rail resists with: its section and its metal."""

from __future__ import annotations

import numpy as np

from fahrtwind.core.errors import InputError
from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.sections import (
    angle_centroid_mm,
    angle_inertia,
    channel_centroid_mm,
    channel_inertia,
    channel_side_inertia,
    open_torsion,
    round_inertia,
    section_modulus,
    tube_inertia,
    tube_torsion,
    yield_moment,
)
from fahrtwind.core.job.sections import (
    ChannelSection,
    EqualAngle,
    OwnSection,
    RectangularTube,
    RoundTube,
    Section,
)
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.hold.frame.model import Stiff
from fahrtwind.core.tables.alloys import ALLOYS, AlloyName

MEMBER_FACTOR = 1.65
"""On yield: Aluminum Design Manual 2015, B.3; the partial factor of EN 1999 with its load factor comes to the
same.
"""
USUAL_RAIL_KG_M = 1.2
SHEAR_OVER_MODULUS = 1 / 2.6
"""G = E / (2·(1 + ν)), ν 0.3 (EN 1999-1-1 3.2.5, EN 1993-1-1 3.2.6)."""


@dataclass(frozen=True, slots=True)
class Shape:
    """Of a section alone: second moments in mm⁴ and elastic moduli in mm³ against bending up (``up``) and
    sideways (``side``), torsion constant in mm⁴ and torsion modulus in mm³ (τ = T / W), area in mm².
    """

    up_mm4: float
    side_mm4: float
    torsion_mm4: float
    up_mm3: float
    side_mm3: float
    torsion_mm3: float
    area_mm2: float


@dataclass(frozen=True, slots=True)
class BarStrength:
    """A section in its metal. ``yield_n_mm2`` is nominal; over ``MEMBER_FACTOR`` it is design."""

    shape: Shape
    stiff: Stiff
    yield_n_mm2: float
    mass_kg_m: float
    source: str

    @property
    def moment_nominal_n_mm(self) -> float:
        return self.shape.up_mm3 * self.yield_n_mm2


def bar_strength(section: Section, alloy_name: AlloyName, path: str) -> BarStrength:
    """``path``: job path of the section. Raises InputError naming the field where an own section has no
    value.
    """
    alloy = ALLOYS[alloy_name]
    with scope("section"):
        shape = shape_of(section, path)
        yielding = given(alloy.yield_n_mm2, "table", alloy.source)
        yield_moment(shape.up_mm3, yielding)
    mass = shape.area_mm2 * alloy.density_kg_m3 * 1e-6
    if isinstance(section, OwnSection):
        mass = section.mass_kg_m or USUAL_RAIL_KG_M
    e, g = alloy.modulus_n_mm2, alloy.modulus_n_mm2 * SHEAR_OVER_MODULUS
    stiff = Stiff(e * shape.area_mm2, e * shape.up_mm4, e * shape.side_mm4, g * shape.torsion_mm4)
    return BarStrength(shape, stiff, float(yielding), mass, alloy.source)


def shape_of(section: Section, path: str) -> Shape:
    """Raises InputError naming the field where an own section has no value."""
    match section:
        case RectangularTube():
            return _tube(section)
        case RoundTube():
            return _round(section)
        case EqualAngle():
            return _angle(section)
        case ChannelSection():
            return _channel(section)
        case OwnSection():
            return _own(section, path)


def _tube(section: RectangularTube) -> Shape:
    h = given(section.height.mm, "chosen", "height")
    b, t = given(section.width.mm, "chosen", "width"), given(section.wall.mm, "chosen", "wall")
    up, torsion = float(tube_inertia(h, b, t)), float(tube_torsion(h, b, t))
    with scope("sideways"):
        side = float(tube_inertia(b, h, t))
    area = b * h - max(b - 2 * t, 0.0) * max(h - 2 * t, 0.0)
    around = 2 * t * max(h - t, 0.0) * max(b - t, 0.0)
    return Shape(up, side, torsion, float(section_modulus(up, h)), 2 * side / b, around, float(area))


def _round(section: RoundTube) -> Shape:
    d, t = given(section.diameter.mm, "chosen", "diameter"), given(section.wall.mm, "chosen", "wall")
    inertia = float(round_inertia(d, t))
    modulus = float(section_modulus(inertia, d))
    area = np.pi / 4 * (d**2 - max(d - 2 * t, 0.0) ** 2)
    return Shape(inertia, inertia, 2 * inertia, modulus, modulus, 2 * modulus, float(area))


def _angle(section: EqualAngle) -> Shape:
    a, t = given(section.leg.mm, "chosen", "leg"), given(section.wall.mm, "chosen", "wall")
    inertia, torsion = float(angle_inertia(a, t)), float(open_torsion(2 * a - t, t))
    modulus = inertia / (a - angle_centroid_mm(a, t))
    return Shape(inertia, inertia, torsion, modulus, modulus, torsion / t, float(t * (2 * a - t)))


def _channel(section: ChannelSection) -> Shape:
    h, b = given(section.height.mm, "chosen", "height"), given(section.width.mm, "chosen", "width")
    t = given(section.wall.mm, "chosen", "wall")
    up, side = float(channel_inertia(h, b, t)), float(channel_side_inertia(h, b, t))
    developed = b + 2 * (h - t)
    torsion = float(open_torsion(developed, t))
    centre = channel_centroid_mm(h, b, t)
    far = max(centre, h - centre)
    return Shape(up, side, torsion, up / far, 2 * side / b, torsion / t, float(developed * t))


OWN_FIELDS = ("inertia_cm4", "modulus_cm3")
OWN_FRAME_FIELDS = ("side_inertia_cm4", "side_modulus_cm3", "torsion_cm4")


def _own(section: OwnSection, path: str) -> Shape:
    """Sideways and in torsion only what the sheet says counts; a rail on feet asks for neither."""
    for field in OWN_FIELDS:
        if getattr(section, field) is None:
            raise InputError(
                "A section by its own sheet has no values.",
                remedy="Type second moment and section modulus from its sheet.",
                field=f"{path}.{field}",
            )
    up, modulus = (section.inertia_cm4 or 0.0) * 1e4, (section.modulus_cm3 or 0.0) * 1e3
    given(up, "chosen", "section's sheet")
    torsion = (section.torsion_cm4 or 0.0) * 1e4
    return Shape(
        up,
        (section.side_inertia_cm4 or 0.0) * 1e4,
        torsion,
        modulus,
        (section.side_modulus_cm3 or 0.0) * 1e3,
        2 * torsion / max(section.height.mm, section.width.mm),
        section.mass_kg_m / 2.7e-3 if section.mass_kg_m else 0.0,
    )


def frame_ready(section: Section, path: str) -> None:
    """Raises InputError naming the field that a frame needs of a section by its own sheet."""
    if not isinstance(section, OwnSection):
        return
    for field in (*OWN_FIELDS, *OWN_FRAME_FIELDS, "mass_kg_m"):
        if getattr(section, field) is None:
            raise InputError(
                "The sheet of this section is not complete: a rack bends to all sides and twists.",
                remedy="Type its values sideways, in torsion, and its mass.",
                field=f"{path}.{field}",
            )
