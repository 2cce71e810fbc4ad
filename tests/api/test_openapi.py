"""Requests generated from the OpenAPI document: no server error, and every answer as documented."""

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

app = create_app(Path(tempfile.mkdtemp()) / "fuzz.db", demo=True, hosts=("testserver",))
schema = schemathesis.openapi.from_asgi("/api/openapi.json", app)
CHECKS = (not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance)


@schema.exclude(path_regex=r"/api/calc/formula\.").parametrize()
@settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_requests(case: schemathesis.Case) -> None:
    case.call_and_validate(checks=list(CHECKS))


@schema.include(path_regex=r"/api/calc/formula\.").parametrize()
@settings(max_examples=4, deadline=None, suppress_health_check=list(HealthCheck))
def test_generated_requests_to_formulas(case: schemathesis.Case) -> None:
    case.call_and_validate(checks=list(CHECKS))
