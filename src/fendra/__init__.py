"""Fendra: light built into things. Map LEDs, bind effects to live state, look, then put it on.

>>> import fendra as fd
>>> design = fd.load(fd.demo_file("heron.toml"))
>>> program = design.compile()
>>> frame = program.frame(speed=12, brake=0.4, at=1.25)
>>> frame.rgb.shape
(158, 3)
"""

from __future__ import annotations

import importlib
from typing import TYPE_CHECKING, Any

from fendra.core.version import VERSION

if TYPE_CHECKING:
    from fendra.core.errors import (
        ClockError,
        DesignError,
        EngineError,
        EngineWarning,
        ExpressionError,
        FendraError,
        FileError,
        FirmwareError,
        GraphError,
        LayoutError,
        OutputError,
        PageError,
        SignalError,
        SourceError,
        TapeError,
        TrustWarning,
    )
    from fendra.core.film import Frame
    from fendra.core.findings import Finding
    from fendra.core.layout import Layout
    from fendra.core.signals.tape import Tape
    from fendra.demo import demo_file
    from fendra.files.tape_file import read_tape
    from fendra.files.trust import trust
    from fendra.front import Design, Film, Program, load

__version__ = VERSION

_HOMES = {
    "ClockError": "fendra.core.errors",
    "Design": "fendra.front",
    "DesignError": "fendra.core.errors",
    "EngineError": "fendra.core.errors",
    "EngineWarning": "fendra.core.errors",
    "ExpressionError": "fendra.core.errors",
    "FendraError": "fendra.core.errors",
    "FileError": "fendra.core.errors",
    "Film": "fendra.front",
    "Finding": "fendra.core.findings",
    "FirmwareError": "fendra.core.errors",
    "Frame": "fendra.core.film",
    "GraphError": "fendra.core.errors",
    "Layout": "fendra.core.layout",
    "LayoutError": "fendra.core.errors",
    "OutputError": "fendra.core.errors",
    "PageError": "fendra.core.errors",
    "Program": "fendra.front",
    "SignalError": "fendra.core.errors",
    "SourceError": "fendra.core.errors",
    "Tape": "fendra.core.signals.tape",
    "TapeError": "fendra.core.errors",
    "TrustWarning": "fendra.core.errors",
    "demo_file": "fendra.demo",
    "load": "fendra.front",
    "read_tape": "fendra.files.tape_file",
    "trust": "fendra.files.trust",
}
"""Each public name is imported when it is first used, so that `import fendra` costs nothing."""

__all__ = [
    "ClockError",
    "Design",
    "DesignError",
    "EngineError",
    "EngineWarning",
    "ExpressionError",
    "FendraError",
    "FileError",
    "Film",
    "Finding",
    "FirmwareError",
    "Frame",
    "GraphError",
    "Layout",
    "LayoutError",
    "OutputError",
    "PageError",
    "Program",
    "SignalError",
    "SourceError",
    "Tape",
    "TapeError",
    "TrustWarning",
    "demo_file",
    "load",
    "read_tape",
    "trust",
]


def __getattr__(name: str) -> Any:
    if name not in _HOMES:
        raise AttributeError(f"module 'fendra' has no attribute '{name}'")
    thing = getattr(importlib.import_module(_HOMES[name]), name)
    globals()[name] = thing
    return thing


def __dir__() -> list[str]:
    return sorted([*__all__, "__version__"])
