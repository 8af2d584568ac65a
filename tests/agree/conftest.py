"""The engines that are held to NumPy."""

from __future__ import annotations

from functools import partial

import pytest

from fendra.native.engine import NativeEngine
from fendra.native.wasm import WasmEngine

ENGINES = {
    "native": NativeEngine,
    "wasm": WasmEngine,
    "wasm, LED by LED": partial(WasmEngine, is_wide=False),
}


@pytest.fixture(scope="session", params=ENGINES)
def engine(request):
    """What makes an engine of a plan."""
    if request.param == "native":
        request.getfixturevalue("compiler")
    return ENGINES[request.param]
