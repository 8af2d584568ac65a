"""What Python of its own folder alone, and older versions of wine, do not do as Windows does."""

import ctypes
import os
import sys

sys.path[:0] = filter(None, os.environ.get("PYTHONPATH", "").split(os.pathsep))


class Library(ctypes.WinDLL):
    """A library of Windows, with the one function that pyserial looks up as it is imported."""

    def __getattr__(self, name):
        try:
            return super().__getattr__(name)
        except AttributeError:
            if name != "CM_MapCrToWin32Err":
                raise
            kind = ctypes.WINFUNCTYPE(ctypes.c_ulong, ctypes.c_ulong, ctypes.c_ulong)
            return kind(lambda _, otherwise: otherwise)


ctypes.windll._dlltype = Library
