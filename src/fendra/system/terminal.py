"""The terminal: colours, and keys as the user presses them."""

from __future__ import annotations

import sys

if sys.platform == "win32":
    from fendra.system.windows import enter_pressed, make_ready, typed
else:
    from fendra.system.unix import enter_pressed, make_ready, typed

__all__ = ["enter_pressed", "make_ready", "typed"]
