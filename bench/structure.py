"""Quality of the member finder beside an oracle on roofs with known truth, and what the advice saves. Seeded, no timing."""

from __future__ import annotations

from collections import defaultdict

import numpy as np

from fahrtwind.core.structure.members import fit_members
from tests.truth.advice import checks_until_settled
from tests.truth.roofs import oracle, synthetic_roof

ROOFS, ADVISED = 1000, 60


def quality() -> None:
    pitch: dict[str, list[tuple[bool, bool]]] = defaultdict(list)
    members: list[tuple[int, int, int]] = []
    bands: list[bool] = []
    pitch_bands: list[bool] = []
    stated: list[tuple[float, bool]] = []
    settled: list[bool] = []
    for seed in range(ROOFS):
        roof = synthetic_roof(seed)
        fit, limit = fit_members(roof.key), oracle(roof)
        told = [s.pitch_mm for s in fit.sections]
        right = len(told) == len(roof.pitches) and all(abs(a / b - 1) < 0.01 for a, b in zip(told, roof.pitches, strict=True))
        pitch[str(roof.kind)].append((right, limit.pitch))
        x = np.array([m.x_mm for m in fit.members]) if fit.members else np.array([-1e6])
        stated += [(m.confidence, bool(np.abs(roof.members - m.x_mm).min() < 15)) for m in fit.members]
        if fit.status == "settled":
            settled.append(right)
        for m in fit.members:  # every band told counts, also those of roofs whose spacing was taken wrongly
            nearest = float(roof.members[np.abs(roof.members - m.x_mm).argmin()])
            bands.append(m.band_low_mm <= nearest <= m.band_high_mm)
        for section in fit.sections:
            pitch_bands.append(min(abs(section.pitch_mm - p) for p in roof.pitches) < 1.96 * section.pitch_sigma_mm)
        if roof.kind != "every second missed":
            near = int((np.abs(roof.members[:, None] - x[None, :]).min(axis=1) < 15).sum())
            members.append((near, int(limit.members.sum()), len(roof.members)))
    _print(pitch, members, bands, pitch_bands, stated, settled)


def _print(pitch, members, bands, pitch_bands, stated, settled) -> None:  # type: ignore[no-untyped-def]
    print(f"\nMember finder on {ROOFS} synthetic roofs: share found, the oracle's share behind it")
    decidable = [p for kind, pairs in pitch.items() if kind != "every second missed" for p in pairs]
    ours, limit = np.mean(decidable, axis=0)
    print(f"  pitch within 1 %                        {ours:.1%}  {limit:.1%}   promised: the oracle's less 2 points")
    for kind, pairs in sorted(pitch.items()):
        ours, limit = np.mean(pairs, axis=0)
        print(f"    {kind:22} {len(pairs):4} roofs       {ours:.1%}  {limit:.1%}")
    near, best, there = np.sum(members, axis=0)
    print(
        f"  members within 15 mm                    {near / there:.1%}  {best / there:.1%}   promised: the oracle's less 2 points"
    )
    print(f"  95 % bands that hold the member         {np.mean(bands):.1%}           promised: 92 to 98 %")
    print(f"  95 % intervals that hold the pitch      {np.mean(pitch_bands):.1%}           promised: 92 to 98 %")
    print(f"  roofs called settled, and right         {len(settled)}, {np.mean(settled):.1%}")
    said = np.array(stated, dtype=float)
    for low, high in ((0.5, 0.7), (0.7, 0.85), (0.85, 0.95), (0.95, 0.99), (0.99, 1.01)):
        inside = said[(said[:, 0] >= low) & (said[:, 0] < high)]
        promise = "   promised: 85 to 95 %" if low == 0.85 else ""
        print(f"  said {inside[:, 0].mean():.1%} sure ({len(inside)} members): true  {inside[:, 1].mean():.1%}{promise}")


def advice() -> None:
    advised = [checks_until_settled(s, advised=True) for s in range(ADVISED)]
    walked = [checks_until_settled(s, advised=False) for s in range(ADVISED)]
    print(f"\nSpot checks of 160 mm until the spacing is settled within 1 %, {ADVISED} roofs, median (share right)")
    for words, found in (("following the advice", advised), ("walking at equal steps", walked)):
        print(f"  {words:24} {np.median([n for n, _ in found]):5.1f}  ({np.mean([r for _, r in found]):.0%})")
