"""The C99 back end: a recorded design as C that runs on a computer and on a controller."""

from __future__ import annotations

from fendra.core.engines.c99.emit import Emitted, emit

__all__ = ["Emitted", "emit"]
