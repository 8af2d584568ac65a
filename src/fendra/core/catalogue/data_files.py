"""Catalogues: the data files of this package, read once as its modules are."""

from __future__ import annotations

import tomllib
from importlib.resources import files
from typing import Any


def read_catalogue(name: str) -> dict[str, dict[str, Any]]:
    """The tables of one of the data files beside this module, by name."""
    text = files(__package__).joinpath(f"{name}.toml").read_text(encoding="utf-8")
    return tomllib.loads(text)
