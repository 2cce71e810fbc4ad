"""Panel models from a CSV in the columns open module databases use, and back.

Columns are found by name: ``Name``, ``STC`` (W), ``Length`` and ``Width`` (m), ``V_oc_ref``, ``V_mp_ref``
(V), ``I_sc_ref``, ``I_mp_ref`` (A), ``beta_oc`` (V/K), ``alpha_sc`` (A/K), ``gamma_r`` (%/K), ``T_NOCT``
(°C), ``N_s``. Such databases carry no mass and no frame: ``Mass`` (kg), ``Frame`` (mm), ``Flange`` (mm),
``Diodes``, ``Flexible``, ``Price`` and ``Stock`` are this program's own columns. A second and third row with
units are passed over. Nothing is taken before the person has seen what it means.
"""

from __future__ import annotations

import csv
import io
from functools import partial

from pydantic import ValidationError

from fahrtwind.core.errors import FahrtwindError, TooLarge, WrongHeader
from fahrtwind.core.job.load import as_input_error
from fahrtwind.core.job.panel import PanelModel
from fahrtwind.core.records import dataclass
from fahrtwind.files.table import as_text, cells_by_name, neutral, number, read_rows

MOST_BYTES, MOST_ROWS, MOST_LINES = 2_000_000, 400, 30_000
METRE = 1000.0
NEEDED = ("Name", "STC", "Length", "Width")
OWN = ("Mass", "Frame", "Flange", "Diodes", "Flexible", "Price", "Stock")
COLUMNS = (
    *NEEDED,
    "N_s",
    "V_oc_ref",
    "V_mp_ref",
    "I_sc_ref",
    "I_mp_ref",
    "alpha_sc",
    "beta_oc",
    "gamma_r",
    "T_NOCT",
    *OWN,
)


@dataclass(frozen=True, slots=True)
class PanelRow:
    """One line of the file: the model it means, or what is wrong with it."""

    line: int
    name: str
    model: PanelModel | None
    problem: str


@dataclass(frozen=True, slots=True)
class PanelTable:
    rows: tuple[PanelRow, ...]
    usable: int
    left_out: int


def read_panels(text: str, frame_mm: float | None = None, mass_kg: float | None = None) -> PanelTable:
    """What the lines of a module table mean. ``frame_mm`` and ``mass_kg`` fill what the file does not tell.

    Raises WrongHeader where a needed column is missing, TooLarge beyond the limits.
    """
    if len(text) > MOST_BYTES:
        raise TooLarge(
            "The table is larger than 2 MB.", remedy="Cut it down to the models you deal with.", field="text"
        )
    lines = read_rows(text, "text", most=MOST_LINES)
    if not lines:
        raise WrongHeader(
            "The table is empty.",
            remedy=f"Its first line names the columns: {', '.join(NEEDED)} …",
            field="text",
        )
    missing = [name for name in NEEDED if name not in lines[0].cells]
    if missing:
        raise WrongHeader(
            f"The column {missing[0]} is missing.",
            remedy=f"The first line has to name at least {', '.join(NEEDED)}.",
            field="text",
        )
    numbered = [(row.line, cells_by_name(lines[0], row, "text")) for row in lines[1:]]
    data = [(n, cells) for n, cells in numbered if not _is_units(cells)]
    if len(data) > MOST_ROWS:
        raise TooLarge(
            f"The table has {len(data)} models; at most {MOST_ROWS} are taken.",
            remedy="Cut it down to the models you deal with.",
            field="text",
        )
    rows = tuple(_row(n, cells, frame_mm, mass_kg) for n, cells in data)
    usable = sum(r.model is not None for r in rows)
    return PanelTable(rows, usable, len(rows) - usable)


def _is_units(cells: dict[str, str]) -> bool:
    """The rows under the header that name units: no number where the power should be, and nothing that was
    meant as one.
    """
    return cells.get("Name", "").lower() in ("units", "[0]", "") and _number(cells, "STC") is None


def _number(cells: dict[str, str], column: str) -> float | None:
    """A number of a cell; None where it is blank or something else."""
    return number(cells.get(column, ""))


def _row(line: int, cells: dict[str, str], frame_mm: float | None, mass_kg: float | None) -> PanelRow:
    name = as_text(cells.get("Name", ""))[:80]
    unreadable = next(
        (c for c in COLUMNS[1:] if c != "Flexible" and cells.get(c) and _number(cells, c) is None), None
    )
    if unreadable:
        return PanelRow(line, name, None, f"{unreadable}: “{cells[unreadable][:30]}” is not a number.")
    frame, mass = _number(cells, "Frame") or frame_mm, _number(cells, "Mass") or mass_kg
    if frame is None or mass is None:
        what = "frame height" if frame is None else "mass"
        return PanelRow(
            line, name, None, f"The table has no {what}: type one for all its models, or add a column."
        )
    try:
        return PanelRow(line, name, PanelModel.model_validate(_fields(name, cells, frame, mass)), "")
    except ValidationError as error:
        problem: FahrtwindError = as_input_error(error)
        return PanelRow(line, name, None, f"{problem.field}: {problem.problem}")


def _fields(name: str, cells: dict[str, str], frame: float, mass: float) -> dict[str, object]:
    told = partial(_number, cells)
    sides = sorted(((told("Length") or 0.0) * METRE, (told("Width") or 0.0) * METRE), reverse=True)
    voc, isc = told("V_oc_ref"), told("I_sc_ref")
    beta, alpha = told("beta_oc"), told("alpha_sc")
    cells_in_series, diodes, stock = told("N_s"), told("Diodes"), told("Stock")
    return {
        "name": name,
        "length": sides[0],
        "width": sides[1],
        "frame_height": frame,
        "mass": mass,
        "power": told("STC"),
        "build": "flexible" if cells.get("Flexible", "").lower() in ("1", "yes", "y", "true") else "framed",
        "flange": told("Flange"),
        "voc": voc,
        "vmp": told("V_mp_ref"),
        "isc": isc,
        "imp": told("I_mp_ref"),
        "voc_per_k": round(beta / voc * 100, 4) if beta is not None and voc else None,
        "isc_per_k": round(alpha / isc * 100, 4) if alpha is not None and isc else None,
        "power_per_k": told("gamma_r"),
        "noct": told("T_NOCT"),
        "cells": int(cells_in_series) if cells_in_series else None,
        "bypass_diodes": None if diodes is None else int(diodes),
        "price": told("Price"),
        "stock": None if stock is None else int(stock),
    }


def write_panels(models: list[PanelModel]) -> str:
    """The models as such a table: what was read comes back the same."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for m in models:
        beta = None if m.voc_per_k is None or m.voc is None else m.voc_per_k * m.voc.v / 100
        alpha = None if m.isc_per_k is None or m.isc is None else m.isc_per_k * m.isc.a / 100
        cells = (
            m.name,
            m.power.w,
            m.length.mm / METRE,
            m.width.mm / METRE,
            m.cells,
            m.voc and m.voc.v,
            m.vmp and m.vmp.v,
            m.isc and m.isc.a,
            m.imp and m.imp.a,
            alpha,
            beta,
            m.power_per_k,
            m.noct and m.noct.deg_c,
            m.mass.kg,
            m.frame_height.mm,
            m.flange and m.flange.mm,
            m.bypass_diodes,
            "yes" if m.build == "flexible" else "",
            m.price,
            m.stock,
        )
        writer.writerow(
            ["" if c is None else f"{c:.9g}" if isinstance(c, float) else neutral(c) for c in cells]
        )
    return out.getvalue()
