"""Our own schema, exercised with generated requests."""

import tempfile
from pathlib import Path

import schemathesis
from hypothesis import settings
from schemathesis.checks import CHECKS
from starlette.types import Receive, Scope, Send

from hollet.services.workshop import Workshop
from hollet.web.app import create_app
from tests.services.conftest import stock

FOLDER = tempfile.TemporaryDirectory(prefix="hollet-schema-")
WORKSHOP = Workshop(Path(FOLDER.name))
stock(WORKSHOP)
# the first two test the framework's Allow header; the third does not know that a text may be no
# sheet and a zip no archive
LEFT_OUT = ("unsupported_method", "allow_header_conformance", "positive_data_acceptance")
APP = create_app(WORKSHOP, address="192.0.2.7:8765")


async def from_here(scope: Scope, receive: Receive, send: Send) -> None:
    """The application, asked from this machine."""
    await APP({**scope, "client": ("127.0.0.1", 50000)}, receive, send)


schema = schemathesis.openapi.from_asgi("/openapi.json", from_here, headers={"host": "127.0.0.1"})


@schema.parametrize()
@settings(max_examples=8, deadline=None, derandomize=True)
def test_api(case):
    """No request makes a 500, and each answer is as the schema says."""
    left_out = [CHECKS.get_one(name) for name in LEFT_OUT]  # known only once a schema is loaded
    case.call_and_validate(excluded_checks=left_out, headers={"host": "127.0.0.1"})


def teardown_module() -> None:
    """Close the workshop and drop its folder."""
    WORKSHOP.close()
    FOLDER.cleanup()
