"""Devices that are read as files, and pipes with a name: Linux and macOS have them.

`DeviceFile(path)` has `take(wait_s)`, which gives the bytes that came; `NamedPipe(path)` makes one
and has `give(data)`, which drops the bytes if nobody reads. Both raise OSError. `lights()` says
which lights of the keyboards are on, where no device tells it.
"""

from __future__ import annotations

import sys

if sys.platform == "win32":
    from fendra.system.windows import DeviceFile, NamedPipe, lights
else:
    from fendra.system.unix import DeviceFile, NamedPipe, lights

__all__ = ["DeviceFile", "NamedPipe", "lights"]
