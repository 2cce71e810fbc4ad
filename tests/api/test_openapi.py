"""Requests generated from the OpenAPI document, a sample of the bench's: no server error, every answer as
documented.
"""

from __future__ import annotations

import tempfile
from pathlib import Path

import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from fahrtwind.api.app import create_app
from fahrtwind.api.doors import create_doors

app = create_app(Path(tempfile.mkdtemp()) / "fuzz.db", demo=True, hosts=("testserver",))
pages = schemathesis.openapi.from_asgi("/api/openapi.json", app)
doors = schemathesis.openapi.from_asgi("/openapi.json", create_doors())
any_edits = [
    schemathesis.openapi.from_asgi("/api/openapi.json", app),
    schemathesis.openapi.from_asgi("/openapi.json", create_doors()),
]
for schema in any_edits:
    schema.config.phases.coverage.enabled = False
LONG = r"/(edits|what-if|changes|layout\.changes)$"
"""Bodies that hold lists of any edit: every end of every range in them would be thousands of requests."""
CHECKS = (not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance)


@any_edits[0].include(path_regex=LONG).parametrize()
@settings(max_examples=2, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_edits(case: schemathesis.Case) -> None:
    case.call_and_validate(checks=list(CHECKS))


@any_edits[1].include(path_regex=LONG).parametrize()
@settings(max_examples=2, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_changes_of_a_layout(case: schemathesis.Case) -> None:
    case.call_and_validate(checks=list(CHECKS))


@pages.exclude(path_regex=LONG).parametrize()
@settings(max_examples=2, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_requests(case: schemathesis.Case) -> None:
    case.call_and_validate(checks=list(CHECKS))


@doors.exclude(path_regex=rf"/formula\.|{LONG}").parametrize()
@settings(max_examples=2, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_requests_to_calculations(case: schemathesis.Case) -> None:
    case.call_and_validate(checks=list(CHECKS))


@doors.include(path_regex=r"/formula\.").parametrize()
@settings(max_examples=2, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_requests_to_formulas(case: schemathesis.Case) -> None:
    case.call_and_validate(checks=list(CHECKS))
