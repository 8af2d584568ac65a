"""Devices that are read as files, and pipes with a name: Linux and macOS have them.

`DeviceFile(path)` has `take(wait_s)`, which gives the bytes that came; `NamedPipe(path)` makes one
and has `give(data)`, which drops the bytes if nobody reads. Both raise OSError.
"""

from __future__ import annotations

import sys

if sys.platform == "win32":
    from fendra.system.windows import DeviceFile, NamedPipe
else:
    from fendra.system.unix import DeviceFile, NamedPipe

__all__ = ["DeviceFile", "NamedPipe"]
