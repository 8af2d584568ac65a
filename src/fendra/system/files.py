"""Files: replacing one, and whose it is."""

from __future__ import annotations

import sys

if sys.platform == "win32":
    from fendra.system.windows import (
        is_others,
        is_private,
        is_read_by_others,
        keep_owner,
        remove_loaded,
        replace,
    )
else:
    from fendra.system.unix import (
        is_others,
        is_private,
        is_read_by_others,
        keep_owner,
        remove_loaded,
        replace,
    )

__all__ = [
    "is_others", "is_private", "is_read_by_others", "keep_owner", "remove_loaded", "replace",
]  # fmt: skip
