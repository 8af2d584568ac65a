"""The WebAssembly back end: a recorded design as a binary module that runs in every browser."""

from __future__ import annotations

from fendra.core.engines.wasm.emit import Wasm, emit_wasm
from fendra.core.engines.wasm.seen import Balance

__all__ = ["Balance", "Wasm", "emit_wasm"]
