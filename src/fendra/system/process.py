"""The process: signals that end it, timers, its service manager, compilers that it starts."""

from __future__ import annotations

import sys

if sys.platform == "win32":
    from fendra.system.windows import (
        A_PORT,
        ACTIVATE,
        COMPILER_CURE,
        COMPILERS,
        LIBRARIES,
        LIBRARY_ENDING,
        LIBRARY_FLAGS,
        STOPS,
        end_group,
        fine_timers,
        tell_manager,
        told_of_closing,
    )
else:
    from fendra.system.unix import (
        A_PORT,
        ACTIVATE,
        COMPILER_CURE,
        COMPILERS,
        LIBRARIES,
        LIBRARY_ENDING,
        LIBRARY_FLAGS,
        STOPS,
        end_group,
        fine_timers,
        tell_manager,
        told_of_closing,
    )

NAME: str = {"win32": "windows", "darwin": "macos"}.get(sys.platform, "linux")
"""This system: `linux` (as is every other Unix), `macos` or `windows`."""

__all__ = [
    "ACTIVATE", "A_PORT", "COMPILERS", "COMPILER_CURE", "LIBRARIES", "LIBRARY_ENDING",
    "LIBRARY_FLAGS", "NAME", "STOPS", "end_group", "fine_timers", "tell_manager",
    "told_of_closing",
]  # fmt: skip
