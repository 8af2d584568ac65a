"""Memory that another program shares by a name: POSIX's shm_open, or a file mapping of Windows.

`SharedMemory(name)` has `read(most)`, which copies its first bytes. It is never written to. It
raises OSError if there is none of this name.
"""

from __future__ import annotations

import sys

if sys.platform == "win32":
    from fendra.system.windows import SharedMemory
else:
    from fendra.system.unix import SharedMemory

__all__ = ["SharedMemory"]
