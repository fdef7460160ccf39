"""The types of the browser are those of the service; and no request, however odd, brings the service down."""

from __future__ import annotations

import json
import shutil
import subprocess
from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from deepsection.service.app import create_app

ROOT = Path(__file__).resolve().parents[2]
API = ROOT / "web" / "src" / "api"


def test_the_schema_is_the_one_that_is_committed(tmp_path: Path) -> None:
    """When this fails: `make types`."""
    fresh = create_app(f"sqlite:///{tmp_path / 'x.db'}").openapi()
    assert json.loads((API / "generated.openapi.json").read_text("utf-8")) == json.loads(json.dumps(fresh))


def test_the_generated_types_are_not_stale(tmp_path: Path) -> None:
    """When this fails: `make types`."""
    tool = ROOT / "web" / "node_modules" / ".bin" / "openapi-typescript"
    node = shutil.which("node")
    assert node and tool.exists(), "the front end is installed before the tests run"
    target = tmp_path / "generated.ts"
    subprocess.run(
        [node, str(tool), str(API / "generated.openapi.json"), "-o", str(target)], check=True, capture_output=True
    )
    assert target.read_text("utf-8") == (API / "generated.ts").read_text("utf-8")


@pytest.fixture(scope="module")
def operations(tmp_path_factory: pytest.TempPathFactory) -> list[object]:
    app = create_app(
        f"sqlite:///{tmp_path_factory.mktemp('api') / 'data.db'}", demos=True, hosts=("localhost", "testserver")
    )
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app)
    return [found.ok() for found in schema.get_all_operations()]


@settings(max_examples=120, deadline=None, suppress_health_check=list(HealthCheck))
@given(data=st.data())
def test_no_request_makes_a_server_error(operations: list[object], data: st.DataObject) -> None:
    """Requests made from the schema, valid and not, on every route."""
    case = data.draw(data.draw(st.sampled_from(operations)).as_strategy())  # type: ignore[attr-defined]
    answer = case.call()
    assert answer.status_code < 500, answer.text
    assert "Traceback" not in answer.text
