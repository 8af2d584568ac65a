"""Native tests need a C compiler: without one they are skipped here, and fail in CI."""

from __future__ import annotations

import os

import pytest

from fendra.core.errors import EngineError
from fendra.native.compiler import find_compiler


@pytest.fixture(scope="session")
def compiler(tmp_path_factory):
    """The machine's C compiler, with a cache of compiled designs that is this run's own."""
    try:
        found = find_compiler()
    except EngineError as exc:
        if os.environ.get("CI"):
            pytest.fail(f"CI holds the native engine to NumPy, and there is {exc}")
        pytest.skip(f"the native engine is not held to NumPy: {exc}")
    with pytest.MonkeyPatch.context() as patch:
        patch.setenv("XDG_CACHE_HOME", str(tmp_path_factory.mktemp("cache")))
        yield found
