"""Registries: what one file adds, found by its name.

A registry fills itself from the modules of its package and from entry points of other
packages, the first time somebody looks into it.
"""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Iterator, Mapping
from importlib.metadata import entry_points
from typing import Generic, TypeVar

T = TypeVar("T")


class Registry(Mapping[str, T], Generic[T]):
    """Name to thing, in the order of the names.

    package: whose modules register something when they are imported.
    group: the entry-point group through which other packages join. failures: of each entry point
    that could not be loaded, what went wrong.
    """

    def __init__(self, package: str, group: str) -> None:
        self._package = package
        self._group = group
        self._things: dict[str, T] = {}
        self._is_filled = False
        self.failures: dict[str, str] = {}

    def add(self, name: str, thing: T) -> None:
        """Register a thing; a name that is taken is an error."""
        if name in self._things:
            raise ValueError(f"two things of {self._package} are called '{name}'")
        self._things[name] = thing

    def _fill(self) -> dict[str, T]:
        if not self._is_filled:
            self._is_filled = True  # modules that use it during the import see the things so far
            try:
                self._import_all()
            except BaseException:
                self._is_filled = False
                raise
            self._things = dict(sorted(self._things.items()))
        return self._things

    def _import_all(self) -> None:
        package = importlib.import_module(self._package)
        for module in pkgutil.iter_modules(package.__path__):
            importlib.import_module(f"{self._package}.{module.name}")
        for entry in entry_points(group=self._group):
            try:
                entry.load()
            except Exception as exc:
                where = entry.dist.name if entry.dist is not None else entry.value
                self.failures[entry.name] = f"{where}: {type(exc).__name__}: {exc}"

    def __getitem__(self, name: str) -> T:
        return self._fill()[name]

    def __iter__(self) -> Iterator[str]:
        return iter(self._fill())

    def __len__(self) -> int:
        return len(self._fill())
