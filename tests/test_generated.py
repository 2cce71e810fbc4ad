"""The documents that are generated from declarations say what the declarations say: a changed range or source
is a change to see.
"""

from __future__ import annotations

from pathlib import Path

import pytest

from fahrtwind.api.generate import formulas_page, snags_page
from fahrtwind.files.job_file import job_schema

DOCS = Path(__file__).parent.parent / "docs"


def test_formulas_and_snags_are_documented_as_they_are_declared() -> None:
    for name, page in (("formulas.md", formulas_page()), ("snags.md", snags_page())):
        assert (DOCS / name).read_text(encoding="utf-8") == page, f"docs/{name} is stale: run 'make generate'"


@pytest.mark.parametrize("part", ["Vehicle", "PlacedPanel", "Reading"])
def test_the_schema_is_the_one_that_was_published(part: str) -> None:
    import json

    kept = json.loads((DOCS / "job.schema.json").read_text(encoding="utf-8"))
    assert kept["$defs"][part] == job_schema()["$defs"][part]
