"""The materials list as CSV for the shop's own sheet."""

from __future__ import annotations

import csv
import io

from fahrtwind.core.build.materials import Material

FORMULA_STARTS = ("=", "+", "-", "@", "\t")


def write_materials(materials: tuple[Material, ...]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["item", "needed", "spare", "unit", "note"])
    for m in materials:
        writer.writerow([_harmless(m.item), f"{m.needed:g}", f"{m.spare:g}", m.unit, _harmless(m.note)])
    return out.getvalue()


def _harmless(text: str) -> str:
    """A cell that begins like a spreadsheet formula is quoted, so that a panel's name cannot run as one."""
    return f"'{text}" if text.startswith(FORMULA_STARTS) else text
