"""Write the generated documents: OpenAPI, job schema, formula list. CI fails when they are stale."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path

from fahrtwind.api.app import create_app
from fahrtwind.core.formulas.declare import FORMULAS, validity_words
from fahrtwind.core.stations.all import rules
from fahrtwind.files.job_file import job_schema


def documents() -> dict[str, str]:
    with tempfile.TemporaryDirectory() as folder:
        openapi = create_app(Path(folder) / "none.db", static=Path(folder)).openapi()
    return {
        "openapi.json": json.dumps(openapi, indent=1, ensure_ascii=False) + "\n",
        "job.schema.json": json.dumps(job_schema(), indent=1, ensure_ascii=False) + "\n",
        "formulas.md": formulas_page(),
        "snags.md": snags_page(),
    }


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
