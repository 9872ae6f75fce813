"""Profiles and fixtures shared by all suites."""

import os
import tempfile
from pathlib import Path

import pytest

from tests.support import Book, small_sheet, tools

# the key of the seals, never the one of who runs the tests
os.environ["HOLLET_KEY"] = str(Path(tempfile.gettempdir()) / "hollet-tests" / "seal.key")

try:
    from hypothesis import HealthCheck, settings

    # derandomised, so that a run on one machine is the run on every machine
    settings.register_profile(
        "ci",
        deadline=None,
        derandomize=True,
        max_examples=60,
        suppress_health_check=[HealthCheck.too_slow],
    )
    settings.load_profile("ci")
except ImportError:
    os.environ["HYPOTHESIS_ABSENT"] = "1"


@pytest.fixture
def book() -> Book:
    """A small build in memory, with the shop's tools."""
    return Book(small_sheet(), tools())
