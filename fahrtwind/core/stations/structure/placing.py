"""Where each member of a fitted hypothesis stands: the spacing's place, pulled by the member's own readings.

How far members stand off a perfect spacing is itself told by the readings: its mean square is averaged over a
grid of values, weighted by how well each explains them.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from fahrtwind.core.formulas.declare import given, scope
from fahrtwind.core.formulas.members import (
    member_position,
    member_position_beyond,
    member_uncertainty,
    own_share,
    pulled_position,
)
from fahrtwind.core.records import dataclass
from fahrtwind.core.stations.structure.evidence import Evidence
from fahrtwind.core.stations.structure.posterior import Fitted, parameter_prior

FloatArray = npt.NDArray[np.float64]
SCATTERS_MM = np.array([2.0, 3.5, 5.0, 7.0, 10.0, 13.0])
SCATTER_PRIOR = np.array([0.08, 0.17, 0.25, 0.25, 0.18, 0.07])
UNREAD_MM = 1e6
FIT = "fit to the readings"


@dataclass(frozen=True, slots=True, eq=False)
class Placing:
    """Arrays over members: place and uncertainty by the spacing, mean and noise of the own readings, weight,
    and the result.

    ``own_sigma_mm`` is ``UNREAD_MM`` where a member has no reading; ``share`` is 0 there.
    """

    theta: FloatArray
    theta_sigma: FloatArray
    scatter_mm: float
    line_mm: FloatArray
    line_sigma_mm: FloatArray
    own_mm: FloatArray
    own_sigma_mm: FloatArray
    share: FloatArray
    x_mm: FloatArray
    sigma_mm: FloatArray


def place(evidence: Evidence, fit: Fitted) -> Placing:
    """Place every member of a hypothesis."""
    n = len(fit.layout.design)
    precision = np.bincount(fit.belongs, fit.true_share / evidence.sigma**2, minlength=n).astype(float)
    moment = np.bincount(fit.belongs, fit.true_share / evidence.sigma**2 * evidence.x, minlength=n).astype(
        float
    )
    read = precision > 1e-9
    regress = _Regression.of(evidence, fit, precision, moment, read)
    logs = regress.logs(SCATTERS_MM) + np.log(SCATTER_PRIOR)
    weight = np.exp(logs - logs.max())
    scatter = float(np.sqrt(weight @ SCATTERS_MM**2 / weight.sum()))
    theta, spread = (part[0] for part in regress.at(np.array([scatter])))
    design = fit.layout.design
    line = design @ theta
    line_sigma = np.sqrt(np.einsum("ij,jk,ik->i", design, spread, design))
    own_sigma = np.where(read, 1 / np.sqrt(np.maximum(precision, 1e-12)), UNREAD_MM)
    own = np.where(read, moment / np.maximum(precision, 1e-12), line)
    share = np.where(read, np.asarray(own_share(scatter, own_sigma)), 0.0)
    x = np.asarray(pulled_position(line, own, share))
    sigma = np.asarray(member_uncertainty(line_sigma, scatter, share))
    return Placing(
        theta,
        np.sqrt(np.diag(spread)),
        scatter,
        line,
        line_sigma,
        own,
        own_sigma,
        share,
        x,
        np.maximum(sigma, 0.5),
    )


@dataclass(frozen=True, slots=True, eq=False)
class _Regression:
    """The pooled readings of a hypothesis (members read × parameters), with what was known of the parameters
    before.
    """

    rows: FloatArray
    own_mm: FloatArray
    own_variance: FloatArray
    precision: FloatArray
    pull: FloatArray

    @classmethod
    def of(
        cls,
        evidence: Evidence,
        fit: Fitted,
        precision: FloatArray,
        moment: FloatArray,
        read: npt.NDArray[np.bool_],
    ) -> _Regression:
        """Pooled readings of a fit: ``precision`` (members,) in 1/mm², ``moment`` precision times place,
        1/mm.
        """
        before, pull = parameter_prior(evidence, fit.layout)
        return cls(fit.layout.design[read], moment[read] / precision[read], 1 / precision[read], before, pull)

    def at(self, scatters: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Parameters (s, p) and their covariance (s, p, p) for each build scatter. In mm and mm²; scatters
        in mm.
        """
        weight = 1 / (self.own_variance + scatters[:, None] ** 2)
        normal = np.einsum("sn,np,nq->spq", weight, self.rows, self.rows)
        spread = np.linalg.inv(normal + self.precision)
        right = (weight * self.own_mm) @ self.rows + self.pull
        return np.einsum("spq,sq->sp", spread, right), spread

    def logs(self, scatters: FloatArray) -> FloatArray:
        """Log likelihood (s,) of the pooled readings for each build scatter, the parameters integrated out.
        Scatters in mm.
        """
        theta, spread = self.at(scatters)
        total = self.own_variance + scatters[:, None] ** 2
        residual = self.own_mm - theta @ self.rows.T
        log: FloatArray = (
            -0.5 * (residual**2 / total + np.log(total)).sum(axis=1) + 0.5 * np.linalg.slogdet(spread)[1]
        )
        return log


def explain_member(fit: Fitted, placing: Placing, number: int) -> None:
    """Record the working of one member, with the formulas the arrays came from."""
    k, row, theta = number - 1, fit.layout.design[number - 1], placing.theta
    with scope("structure", f"member {number}"):
        first, pitch = given(float(theta[0]), "inferred", FIT), given(float(theta[1]), "inferred", FIT)
        others = [(float(theta[c]), float(row[c])) for c in range(2, len(row)) if row[c]]
        if others:
            line = member_position_beyond(
                first, pitch, float(row[1]), given(others[0][0], "inferred", FIT), others[0][1]
            )
        else:
            line = member_position(first, pitch, float(row[1]))
        for length, times in others[1:]:  # a second section and an odd bay behind it
            line = member_position(line, given(length, "inferred", FIT), times)
        build = given(placing.scatter_mm, "inferred", "scatter of the readings, members 2 … 13 mm")
        share = 0.0
        if placing.own_sigma_mm[k] < UNREAD_MM:
            share = own_share(
                build, given(float(placing.own_sigma_mm[k]), "table", "noise of the kinds of reading")
            )
            pulled_position(
                line, given(float(placing.own_mm[k]), "measured", "its readings, weighed by kind"), share
            )
        member_uncertainty(
            given(float(placing.line_sigma_mm[k]), "inferred", "covariance of the fit"), build, share
        )
