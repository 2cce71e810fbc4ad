"""Pieces with their holes, and the cut list, as CSV for the shop's own sheet; lengths in millimetres."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

from fahrtwind.core.stations.build.cut_lists import MaterialCut
from fahrtwind.core.stations.build.piece import Piece
from fahrtwind.files.table import neutral


def write_pieces(pieces: tuple[Piece, ...]) -> str:
    """A line for each piece, and one for each of its holes."""
    rows: list[Sequence[object]] = []
    for p in pieces:
        own = (p.id, neutral(p.name), neutral(p.says), f"{p.length_mm:.1f}", p.marked, f"{p.mass_kg:.2f}")
        rows.append((*own, "", "", "", ""))
        rows += [
            (p.id, "", "", "", "", "", f"{h.at_mm:.1f}", h.face, f"{h.diameter_mm:g}", neutral(h.what))
            for h in p.holes
        ]
    head = ("piece", "name", "material", "length", "marked end", "mass kg", "hole at", "face", "drill", "for")
    return _table(head, rows)


def write_cuts(cuts: tuple[MaterialCut, ...]) -> str:
    """A line for each cut, in cutting order."""
    rows = [
        (
            neutral(own.says),
            number,
            f"{bar.length_mm:.0f}",
            piece,
            f"{length:.1f}",
            f"{at:.1f}",
            f"{at + length:.1f}",
        )
        for own in cuts
        for number, bar in enumerate(own.cut.bars, start=1)
        for piece, length, at in zip(bar.pieces, bar.lengths_mm, bar.at_mm, strict=True)
    ]
    return _table(("material", "bar", "bar length", "piece", "length", "from", "to"), rows)


def _table(head: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(head)
    writer.writerows(rows)
    return out.getvalue()
