"""Calculations of the workshop: pieces, and bars to cut them from."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fahrtwind.calc.calculations import JobInput
from fahrtwind.calc.register import CalcInput, calculation
from fahrtwind.core.errors import InputError
from fahrtwind.core.evaluate import evaluate
from fahrtwind.core.job.load import load_job
from fahrtwind.core.stations.build.cutting import Cut, Stock, Wanted, cut_list
from fahrtwind.core.stations.build.piece import Piece


class PieceInput(CalcInput):
    id: Annotated[str, Field(min_length=1, max_length=40)]
    length_mm: Annotated[float, Field(ge=10, le=15_000)]


class BarInput(CalcInput):
    id: Annotated[str, Field(min_length=1, max_length=40)]
    length_mm: Annotated[float, Field(ge=100, le=15_000)]
    price: Annotated[float, Field(ge=0, le=100_000)] = 0.0
    have: Annotated[int, Field(ge=1, le=999)] | None = None


class CutInput(CalcInput):
    pieces: Annotated[list[PieceInput], Field(min_length=1, max_length=120)]
    bars: Annotated[list[BarInput], Field(min_length=1, max_length=20)]
    kerf_mm: Annotated[float, Field(ge=0, le=10)] = 3.0
    trim_mm: Annotated[float, Field(ge=0, le=200)] = 5.0
    seconds: Annotated[float, Field(ge=0.1, le=60)] = 10.0


@calculation("build.cut_list")
def build_cut_list(given: CutInput) -> Cut:
    """The cheapest bars that pieces can be cut from, with the proof or a bound."""
    for name, entries in (("pieces", given.pieces), ("bars", given.bars)):
        ids = [entry.id for entry in entries]
        if len(set(ids)) < len(ids):
            raise InputError(
                f"Two {name} have the same id.", remedy="Give each an id of its own.", field=name
            )
    wanted = [Wanted(p.id, p.length_mm) for p in given.pieces]
    stocks = [Stock(b.id, b.length_mm, b.price, b.have) for b in given.bars]
    return cut_list(wanted, stocks, given.kerf_mm, given.trim_mm, given.seconds)


@calculation("build.pieces")
def build_pieces(given: JobInput) -> tuple[Piece, ...]:
    """Every piece of a job's carriers with its holes, measured from its marked end."""
    return evaluate(load_job(given.job)).findings.pieces
