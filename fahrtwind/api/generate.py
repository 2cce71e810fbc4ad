"""Write the generated documents: OpenAPI, job schema, formula list. CI fails when they are stale."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path
from typing import Any

from fahrtwind.api.app import create_app
from fahrtwind.api.doors import PREFIX, create_doors
from fahrtwind.core.formulas.declare import FORMULAS, validity_words
from fahrtwind.core.stations.all import rules
from fahrtwind.files.job_file import job_schema

ASKED_BY_PAGES = (
    "bay.spot",
    "climate.parse",
    "crown.at",
    "forecast.parse",
    "outline.parse",
    "panels.parse",
    "items.parse",
    "quantity.parse",
    "readings.parse",
    "items.parse",
)
"""Doors of calculation that pages use: their types are generated for the front end, those of the others are
not.
"""


def documents() -> dict[str, str]:
    with tempfile.TemporaryDirectory() as folder:
        pages = create_app(Path(folder) / "none.db", static=Path(folder)).openapi()
    doors = create_doors().openapi()
    return {
        "openapi.json": _json(pages),
        "doors.openapi.json": _json(doors),
        "pages.openapi.json": _json(with_doors(pages, doors)),
        "job.schema.json": _json(job_schema()),
        "formulas.md": formulas_page(),
        "snags.md": snags_page(),
    }


def _json(document: dict[str, Any]) -> str:
    return json.dumps(document, indent=1, ensure_ascii=False) + "\n"


def with_doors(pages: dict[str, Any], doors: dict[str, Any]) -> dict[str, Any]:
    """The pages' document with the doors they use, and the models that those need."""
    asked = {f"{PREFIX}/{name}": doors["paths"][f"/{name}"] for name in ASKED_BY_PAGES}
    schemas = dict(pages["components"]["schemas"])
    wanted = _names_in(asked)
    while wanted - schemas.keys():
        for name in sorted(wanted - schemas.keys()):
            schemas[name] = doors["components"]["schemas"][name]
        wanted |= _names_in([schemas[name] for name in wanted])
    return {**pages, "paths": {**pages["paths"], **asked}, "components": {"schemas": schemas}}


def _names_in(part: Any) -> set[str]:
    """Names of the models that a part of a document refers to."""
    if isinstance(part, dict):
        own = {part["$ref"].rsplit("/", 1)[-1]} if isinstance(part.get("$ref"), str) else set()
        return own.union(*(_names_in(value) for value in part.values()))
    return set().union(*(_names_in(value) for value in part)) if isinstance(part, list) else set()


def formulas_page() -> str:
    lines = [
        "# Formulas",
        "",
        "Generated from the declarations in `fahrtwind/core/formulas/`. Do not edit.",
        "",
    ]
    for f in FORMULAS.values():
        lines += [
            f"## {f.title}",
            "",
            f"`{f.expression}`",
            "",
            f"Result {f.symbol}{f' in {f.unit}' if f.unit else ''}.",
        ]
        lines += [f"- {a.symbol}{f' in {a.unit}' if a.unit else ''}: {a.words}" for a in f.arguments.values()]
        lines += [
            "",
            f"Valid for: {validity_words(f)}.",
            "",
            f"Source ({f.source.confidence}): {f.source.text}.",
            "",
        ]
        lines += [f"Door: `formula.{f.name}`", ""]
    return "\n".join(lines)


def snags_page() -> str:
    lines = [
        "# Snags",
        "",
        "Generated from the `rules.py` of each station in `fahrtwind/core/stations/`. Do not edit.",
        "",
    ]
    lines += ["| id | severity | station | title | source |", "|---|---|---|---|---|"]
    lines += [
        f"| {r.id} | {r.severity} | {r.station} | {r.title} | {r.source} |" for r in rules.by_id.values()
    ]
    return "\n".join([*lines, ""])


def main(folder: Path) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in documents().items():
        (folder / name).write_text(text, encoding="utf-8")


if __name__ == "__main__":
    main(Path(sys.argv[1] if len(sys.argv) > 1 else "docs"))
