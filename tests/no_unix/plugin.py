"""A test run without what Windows lacks: `pytest -p no_unix.plugin`.

Tests that hold Unix itself (its terminals, pipes, signals, modes of files) are marked `unix` and
left out.
"""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from no_unix import hook

HERE = Path(__file__).parent


hook.install()
os.environ["PYTHONPATH"] = os.pathsep.join(filter(None, [str(HERE), os.environ.get("PYTHONPATH")]))
os.environ["FENDRA_TESTS_WITHOUT_UNIX"] = "1"


def pytest_report_header():
    return "without what Windows lacks: " + ", ".join((*hook.GONE, *hook.CALLS))


def pytest_collection_modifyitems(config, items):
    unix = [item for item in items if item.get_closest_marker("unix")]
    config.hook.pytest_deselected(items=unix)
    items[:] = [item for item in items if item not in unix]


@pytest.fixture
def console():
    """The made-up console."""
    hook.CONSOLE.__init__()
    return hook.CONSOLE
