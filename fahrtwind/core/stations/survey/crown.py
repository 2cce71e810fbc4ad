"""The roof's crown from straight-edge gaps and gauge readings: one smooth surface with its uncertainty.

The height is a polynomial in the scaled positions u = y / half width and v = 2x / length − 1 with normal
priors that say how roofs usually are: even across, flatter lengthwise. Every reading is linear in the
coefficients (a gap also in the unknown height and tilt of its straight-edge), so the fit is one Bayesian
linear regression (Bishop, Pattern Recognition and Machine Learning, 2006, eqs. 3.53 and 3.54): mean and
covariance give height, slope and radius anywhere, with standard deviations.
"""

from __future__ import annotations

from math import pi, radians, tan

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.roof_shape import radius_of_curvature, true_slope
from fahrtwind.core.job.roof import Crown
from fahrtwind.core.job.views import OnRoof
from fahrtwind.core.records import dataclass

FloatArray = npt.NDArray[np.float64]
ACROSS: tuple[tuple[int, int, float], ...] = (
    (1, 0, 8.0),
    (2, 0, 150.0),
    (3, 0, 8.0),
    (4, 0, 50.0),
    (5, 0, 3.0),
    (6, 0, 20.0),
    (2, 1, 40.0),
    (4, 1, 15.0),
    (2, 2, 30.0),
    (1, 1, 5.0),
)
ALONG: tuple[tuple[int, int, float], ...] = (
    (0, 1, 5.0),
    (0, 2, 120.0),
    (0, 3, 40.0),
    (0, 4, 80.0),
    (0, 5, 20.0),
    (0, 6, 60.0),
)
TERMS = ACROSS + ALONG
"""Powers of u and v and the prior standard deviation of the coefficient, mm: common practice, no source.

Level is the mean line of the roof: how far the vehicle or a string was tilted lengthwise is not the roof's
shape, hence the small linear term.
"""
POWERS_OF_U, POWERS_OF_V = (np.array([term[k] for term in TERMS], dtype=float) for k in (0, 1))
GAP_SIGMA_MM, ANGLE_SIGMA_DEG = 1.5, 0.3
EDGE_HEIGHT_MM, EDGE_TILT = 500.0, 0.15
LEVEL_TILT = 0.003
FLATTER_THAN_MM = 60_000.0
GRID_X, GRID_Y = 13, 21


@dataclass(frozen=True, slots=True)
class SpotShape:
    """The roof at one spot: height over the roof's middle, slopes (positive: falls aft, falls to starboard),
    local radius.

    ``radius_mm`` is None where the roof is flatter than about 60 m radius. Every figure with one standard
    deviation.
    """

    height_mm: float
    height_sigma_mm: float
    slope_across_deg: float
    slope_across_sigma_deg: float
    slope_along_deg: float
    radius_mm: float | None
    radius_sigma_mm: float | None


@dataclass(frozen=True, slots=True, eq=False)
class CrownSurface:
    """The fitted surface. ``mean`` and ``covariance`` belong to ``TERMS``."""

    length_mm: float
    half_mm: float
    mean: FloatArray
    covariance: FloatArray
    readings: int
    worst_residual: float

    def rows(self, x_mm: FloatArray, y_mm: FloatArray) -> FloatArray:
        """What the heights at spots are made of, spots by terms: a height is ``row @ mean``, its variance
        ``row @ covariance @ row``. Spots in mm.
        """
        return _terms(x_mm, y_mm, self.length_mm, self.half_mm)

    def grid(self, x_mm: FloatArray, y_mm: FloatArray) -> FloatArray:
        """Heights in mm at all crossings of places along and across, (along, across)."""
        along = (2 * x_mm / self.length_mm - 1)[:, None] ** POWERS_OF_V
        across = (y_mm / self.half_mm)[:, None] ** POWERS_OF_U
        told: FloatArray = (along * self.mean) @ across.T
        return told

    def height(self, x_mm: float, y_mm: float) -> tuple[float, float]:
        """Height of the roof at a spot and its standard deviation, mm."""
        return self._told(self.rows(np.array([x_mm]), np.array([y_mm]))[0])

    def heights(self, x_mm: FloatArray, y_mm: FloatArray) -> FloatArray:
        """Heights of the roof at spots, mm."""
        told: FloatArray = self.rows(x_mm, y_mm) @ self.mean
        return told

    def doubted(self, x_mm: FloatArray, y_mm: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Heights of the roof at spots and their standard deviations, mm."""
        rows = self.rows(x_mm, y_mm)
        variance = np.einsum("ki,ij,kj->k", rows, self.covariance, rows)
        return rows @ self.mean, np.sqrt(np.maximum(variance, 0.0))

    def _told(self, row: FloatArray) -> tuple[float, float]:
        return float(row @ self.mean), float(np.sqrt(np.maximum(row @ self.covariance @ row, 0.0)))

    def slopes(self, x_mm: float, y_mm: float) -> tuple[float, float]:
        """How steeply the roof falls at a spot in mm, degrees: to starboard, aft."""
        across = _row(x_mm, y_mm, self.length_mm, self.half_mm, across=1) @ self.mean
        along = _row(x_mm, y_mm, self.length_mm, self.half_mm, along=1) @ self.mean
        return -float(np.degrees(np.arctan(across))), -float(np.degrees(np.arctan(along)))

    def falls(self, x_mm: FloatArray, y_mm: FloatArray) -> FloatArray:
        """How steeply the roof falls at spots in mm, whichever way, degrees: both slopes as one."""
        spots = (x_mm[:, None], y_mm[:, None], self.length_mm, self.half_mm)
        slopes = (_row(*spots, across=1) @ self.mean, _row(*spots, along=1) @ self.mean)
        steep: FloatArray = np.hypot(*(np.degrees(np.arctan(slope)) for slope in slopes))
        return steep

    def at(self, x_mm: float, y_mm: float) -> SpotShape:
        """Height, slopes and bend at a spot in mm, with what they are uncertain by."""
        height, height_sigma = self.height(x_mm, y_mm)
        across, across_sigma = self._told(_row(x_mm, y_mm, self.length_mm, self.half_mm, across=1))
        along, _ = self._told(_row(x_mm, y_mm, self.length_mm, self.half_mm, along=1))
        bend, bend_sigma = self._told(_row(x_mm, y_mm, self.length_mm, self.half_mm, across=2))
        radius = float(radius_of_curvature(across, abs(bend))) if abs(bend) > 1 / FLATTER_THAN_MM else None
        return SpotShape(
            height,
            height_sigma,
            -float(np.degrees(np.arctan(across))),
            float(np.degrees(across_sigma)),
            -float(np.degrees(np.arctan(along))),
            radius,
            None if radius is None else radius**2 * bend_sigma,
        )


@dataclass(frozen=True, slots=True)
class CrownFinding:
    """The surface as the pictures need it: heights and standard deviations on a grid, rows along x, mm to a
    tenth.
    """

    x_mm: tuple[float, ...]
    y_mm: tuple[float, ...]
    height_mm: tuple[tuple[float, ...], ...]
    sigma_mm: tuple[tuple[float, ...], ...]
    rise_mm: float
    radius_mm: float | None
    readings: int
    worst_residual: float


def _terms(x_mm: FloatArray, y_mm: FloatArray, length: float, half: float) -> FloatArray:
    u, v = y_mm / half, 2 * x_mm / length - 1
    terms: FloatArray = u[..., None] ** POWERS_OF_U * v[..., None] ** POWERS_OF_V
    return terms


def _row(
    x_mm: float | FloatArray,
    y_mm: float | FloatArray,
    length: float,
    half: float,
    *,
    across: int = 0,
    along: int = 0,
) -> FloatArray:
    """Values of all terms, or of their derivatives by y or x, at one spot, or at a column of them."""
    u, v = y_mm / half, 2 * x_mm / length - 1
    return (
        _power(u, POWERS_OF_U, across) * half**-across * _power(v, POWERS_OF_V, along) * (2 / length) ** along
    )


def _power(base: float | FloatArray, exponents: FloatArray, derivative: int) -> FloatArray:
    """A derivative of the powers: n (n - 1) … times the lower power, 0 where nothing is left."""
    factor = np.ones_like(exponents)
    for k in range(derivative):
        factor *= exponents - k
    return factor * base ** np.maximum(exponents - derivative, 0.0)


def crown_of(notes: OnRoof) -> CrownSurface | None:
    """The crown of a roof; None while nothing was measured or the roof has no size."""
    length, width = notes.vehicle.roof_length, notes.vehicle.roof_width
    if length is None or width is None:
        return None
    return fit_crown(notes.survey.crown, length.mm, width.mm / 2)


def fit_crown(crown: Crown, length_mm: float, half_mm: float) -> CrownSurface | None:
    """Fit the surface to a crown's readings; None where there are none."""
    rows, values, sigmas, extra = _observations(crown, length_mm, half_mm)
    if not rows:
        return None
    edges = max(extra, default=-1) + 1
    prior = np.array([s for _, _, s in TERMS] + _edge_priors(crown, edges))
    design = np.array([np.pad(row, (0, len(prior) - len(row))) for row in rows])
    observed, noise = np.array(values), np.array(sigmas)
    mean, covariance, residual = _solve(design, observed, noise, prior)
    freedom = max(len(observed) - len(crown.sections) - 3, 1)
    inflation = max(1.0, float((residual**2).sum()) / freedom)
    n = len(TERMS)
    return CrownSurface(
        length_mm,
        half_mm,
        mean[:n],
        covariance[:n, :n] * inflation,
        len(observed),
        float(np.abs(residual).max()),
    )


def _solve(
    design: FloatArray, observed: FloatArray, noise: FloatArray, prior: FloatArray
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Posterior mean, covariance and residuals in standard deviations."""
    scaled = design / noise[:, None]
    whitened = scaled * prior  # in units of the prior the matrix is at least one: it can always be inverted
    try:
        own = np.linalg.inv(whitened.T @ whitened + np.eye(len(prior)))
    except np.linalg.LinAlgError:  # readings far off the roof weigh so much that one is nothing beside them
        _, sizes, ways = np.linalg.svd(whitened, full_matrices=False)
        own = np.eye(len(prior)) - (ways.T * (sizes**2 / (1 + sizes**2))) @ ways
    covariance = own * prior[:, None] * prior[None, :]
    mean = covariance @ (scaled.T @ (observed / noise))
    return mean, np.asarray(covariance, dtype=float), observed / noise - scaled @ mean


def _edge_priors(crown: Crown, edges: int) -> list[float]:
    """Height and tilt of each straight-edge: unknown, but a level one does not tilt."""
    priors: list[float] = []
    for section in crown.sections:
        priors += [EDGE_HEIGHT_MM, LEVEL_TILT if section.edge == "level" else EDGE_TILT]
    priors += [EDGE_HEIGHT_MM, EDGE_TILT]
    return priors[:edges]


def _observations(
    crown: Crown, length: float, half: float
) -> tuple[list[FloatArray], list[float], list[float], list[int]]:
    """Design rows (terms, then height and tilt of each straight-edge), values and noise; and the edge columns
    in use.
    """
    rows: list[FloatArray] = []
    values: list[float] = []
    sigmas: list[float] = []
    extra: list[int] = []
    zero, lean = crown.gauge_zero.deg, crown.lean.deg
    for index, section in enumerate(crown.sections):
        for y, gap in [(r.y.mm, r.gap.mm) for r in section.readings if r.gap is not None]:
            surface = _row(section.x.mm, y, length, half) - _row(section.x.mm, 0.0, length, half)
            rows.append(np.concatenate([-surface, np.zeros(2 * index), [1.0, y]]))
            values.append(gap)
            sigmas.append(GAP_SIGMA_MM)
            extra.append(2 * index + 1)
        for y, angle in [(r.y.mm, r.angle.deg) for r in section.readings if r.angle is not None]:
            slope = radians(float(true_slope(angle, zero, lean)))
            rows.append(_row(section.x.mm, y, length, half, across=1))
            values.append(-tan(slope))
            sigmas.append(ANGLE_SIGMA_DEG * pi / 180 / np.cos(slope) ** 2)
    for reading in crown.lengthwise:
        index = len(crown.sections)
        rows.append(
            np.concatenate(
                [
                    -_row(reading.x.mm, 0.0, length, half),
                    np.zeros(2 * index),
                    [1.0, reading.x.mm - length / 2],
                ]
            )
        )
        values.append(reading.gap.mm)
        sigmas.append(GAP_SIGMA_MM)
        extra.append(2 * index + 1)
    return rows, values, sigmas, extra


def crown_finding(surface: CrownSurface) -> CrownFinding:
    """Heights for the pictures, the rise from edge to middle at mid-length, and the radius there."""
    xs = np.linspace(0, surface.length_mm, GRID_X)
    ys = np.linspace(-surface.half_mm, surface.half_mm, GRID_Y)
    rows = surface.rows(*np.meshgrid(xs, ys, indexing="ij"))
    heights = rows @ surface.mean
    sigmas = np.sqrt(
        np.maximum(np.einsum("xyt,ts,xys->xy", rows, surface.covariance, rows, optimize=True), 0.0)
    )
    middle = surface.length_mm / 2
    edge = (surface.height(middle, surface.half_mm)[0] + surface.height(middle, -surface.half_mm)[0]) / 2
    return CrownFinding(
        tuple(xs.round(1).tolist()),
        tuple(ys.round(1).tolist()),
        tuple(map(tuple, heights.round(1).tolist())),
        tuple(map(tuple, sigmas.round(1).tolist())),
        round(surface.height(middle, 0.0)[0] - edge, 1),
        surface.at(middle, 0.0).radius_mm,
        surface.readings,
        round(surface.worst_residual, 1),
    )
