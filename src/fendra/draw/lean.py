"""Matplotlib for commands: imported without the docstrings that it writes for itself."""

from __future__ import annotations

import sys


def lean_import() -> None:
    """Let Matplotlib write no docstrings when it is imported next: half of its import is that.

    For programs of Fendra's own, in which nobody reads them; a notebook's are left alone. Where the
    name is another one in some version, nothing happens but that it takes longer.
    """
    if "matplotlib.figure" not in sys.modules:
        from matplotlib.artist import Artist

        Artist._update_set_signature_and_docstring = classmethod(lambda _: None)  # type: ignore[attr-defined]
