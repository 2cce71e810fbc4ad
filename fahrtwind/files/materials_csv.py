"""The materials list as CSV for the shop's own sheet."""

from __future__ import annotations

import csv
import io

from fahrtwind.core.stations.build.materials import Material
from fahrtwind.files.table import neutral


def write_materials(materials: tuple[Material, ...]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["item", "needed", "spare", "unit", "note"])
    for m in materials:
        writer.writerow([neutral(m.item), f"{m.needed:g}", f"{m.spare:g}", m.unit, neutral(m.note)])
    return out.getvalue()
