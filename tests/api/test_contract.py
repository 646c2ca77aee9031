"""The published OpenAPI: held to by the server under invented requests."""

from typing import Any

import pytest
import schemathesis
from fastapi import FastAPI
from hypothesis import HealthCheck, given, settings
from schemathesis import GenerationMode
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from pliant_coil.web_api.app import create_app

CHECKS = [schemathesis.checks.not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]


PATHS = create_app().openapi()["paths"]
# An operation without parameters can't be asked wrongly, nor one that takes any bytes.
REQUESTS = [
    (path, method.upper(), mode)
    for path, methods in PATHS.items()
    for method, operation in methods.items()
    for mode in GenerationMode
    if mode == GenerationMode.POSITIVE
    or "parameters" in operation
    or "application/json" in operation.get("requestBody", {}).get("content", {})
]


@pytest.mark.parametrize(("path", "method", "mode"), REQUESTS, ids=lambda part: getattr(part, "value", part))
def test_invented_requests_get_what_the_contract_promises(app: FastAPI, path: str, method: str, mode: GenerationMode) -> None:
    operation = schemathesis.openapi.from_asgi("/api/openapi.json", app)[path][method]

    @settings(max_examples=15, deadline=None, derandomize=True, database=None, suppress_health_check=list(HealthCheck))
    @given(case=operation.as_strategy(generation_mode=mode))
    def call(case: schemathesis.Case[Any]) -> None:
        case.call_and_validate(checks=CHECKS)

    call()
