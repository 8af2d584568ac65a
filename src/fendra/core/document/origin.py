"""Where a design was read from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from fendra.core.findings import KeyPath


@dataclass(frozen=True)
class Origin:
    """The file of a design.

    file: its name; empty for a design built in Python. folder: where the files are that the design
    names; empty for the current folder. lines: the line in the file of each table and key.
    """

    file: str = ""
    folder: str = ""
    lines: Mapping[KeyPath, int] = field(default_factory=dict)
