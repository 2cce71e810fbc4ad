"""What is known about the members before any fit: readings, scans and facts as arrays."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import numpy.typing as npt

from fahrtwind.core.tables.readings import RELIABILITY, ReadingKind

FloatArray = npt.NDArray[np.float64]
DEFAULT_FACE_MM = 40.0
HULL_MARGIN_MM = 25.0
BUNCH_MM = 60.0
AGAIN_RANGE = (0.3, 0.95)


@dataclass(frozen=True, slots=True)
class ReadingFact:
    """A reading as the finder sees it: position and, where given, its own standard deviation, mm."""

    id: str
    x_mm: float
    kind: ReadingKind
    sigma_mm: float | None = None


@dataclass(frozen=True, slots=True)
class ScanFact:
    """A stretch that was searched from end to end by one method, mm."""

    id: str
    start_mm: float
    end_mm: float
    kind: ReadingKind


@dataclass(frozen=True, slots=True)
class KnownFacts:
    """What a drawing or another source says, mm; None where nothing is known."""

    pitch_mm: float | None = None
    pitch_within_mm: float = 10.0
    front_bay_mm: float | None = None
    rear_bay_mm: float | None = None


@dataclass(frozen=True, slots=True)
class KindTrust:
    """Noise in mm, share of false readings and of missed members for one kind, where the defaults were overruled."""

    kind: ReadingKind
    sigma_mm: float
    false_share: float
    miss_share: float


@dataclass(frozen=True, slots=True)
class Evidence:
    """Readings as arrays of shape (n,), sorted by position; through-holes (t,); scans as tuples; the walked stretch.

    ``rate`` is the density of false readings per mm. ``again`` is the chance that a noticed member gets another reading, by
    how much the readings bunch. ``walked`` is the stretch over which members had the chance of being
    noticed without a declared scan: from the first to the last reading that no scan of its kind covers.
    """

    ids: tuple[str, ...]
    kinds: tuple[ReadingKind, ...]
    x: FloatArray
    sigma: FloatArray
    rate: FloatArray
    again: float
    through: FloatArray
    through_ids: tuple[str, ...]
    scans: tuple[ScanFact, ...]
    walked: tuple[float, float] | None
    span: float
    half_face: float
    facts: KnownFacts
    trust: dict[ReadingKind, KindTrust]


def gather(
    readings: tuple[ReadingFact, ...], scans: tuple[ScanFact, ...], facts: KnownFacts, span_mm: float, face_mm: float | None,
    overruled: tuple[KindTrust, ...] = (),
) -> Evidence:  # fmt: skip
    """Sort the evidence into arrays. ``span_mm`` is the roof's length, ``face_mm`` the width of a member's face."""
    hits = sorted((r for r in readings if r.kind != "pilot_through"), key=lambda r: (r.x_mm, r.id))
    through = [r for r in readings if r.kind == "pilot_through"]
    by_kind = {kind: KindTrust(kind, r.sigma_mm, r.false_share, r.miss_share) for kind, r in RELIABILITY.items()}
    by_kind |= {t.kind: t for t in overruled}
    trust = [by_kind[r.kind] for r in hits]
    loose = [r.x_mm for r in hits if not any(s.kind == r.kind and s.start_mm <= r.x_mm <= s.end_mm for s in scans)]
    count = max(len(hits), 4)
    bunches = 1 + sum(b.x_mm - a.x_mm > BUNCH_MM for a, b in pairwise(hits))
    return Evidence(
        ids=tuple(r.id for r in hits),
        kinds=tuple(r.kind for r in hits),
        x=np.array([r.x_mm for r in hits], dtype=float),
        sigma=np.array([r.sigma_mm or t.sigma_mm for r, t in zip(hits, trust, strict=True)], dtype=float),
        rate=np.array([t.false_share for t in trust], dtype=float) * count / span_mm,
        again=float(np.clip(1 - bunches / max(len(hits), 1), *AGAIN_RANGE)),
        through=np.array([r.x_mm for r in through], dtype=float),
        through_ids=tuple(r.id for r in through),
        scans=scans,
        walked=(min(loose) - HULL_MARGIN_MM, max(loose) + HULL_MARGIN_MM) if loose else None,
        span=span_mm,
        half_face=(face_mm or DEFAULT_FACE_MM) / 2,
        facts=facts,
        trust=by_kind,
    )
