"""The engines by name."""

from __future__ import annotations

from typing import Literal, TypeAlias, get_args

EngineName: TypeAlias = Literal["auto", "numpy", "native", "wasm"]
ENGINES: tuple[EngineName, ...] = get_args(EngineName)
