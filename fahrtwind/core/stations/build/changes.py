"""Pieces that are made otherwise than the plan says."""

from __future__ import annotations

from fahrtwind.core.job.workshop import PieceChange
from fahrtwind.core.records import replace
from fahrtwind.core.stations.build.piece import Piece


def with_changes(pieces: tuple[Piece, ...], changes: tuple[PieceChange, ...]) -> tuple[Piece, ...]:
    """Lengths and end cuts as somebody changed them; the last change of a piece counts. Holes stay where they
    are from the marked end.
    """
    by_piece = {change.piece: change for change in changes}
    return tuple(_changed(p, by_piece[p.id]) if p.id in by_piece else p for p in pieces)


def _changed(piece: Piece, change: PieceChange) -> Piece:
    return replace(
        piece,
        length_mm=change.length.mm,
        mass_kg=piece.mass_kg * change.length.mm / piece.length_mm,
        cut_marked_deg=change.cut_marked.deg,
        cut_far_deg=change.cut_far.deg,
        planned_mm=piece.length_mm,
    )
