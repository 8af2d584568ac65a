"""Registries: things that files add, found by their names.

A registry fills itself from the modules of its package and from entry points of other
packages, the first time it is read.
"""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable, Iterator, Mapping
from importlib.metadata import entry_points
from typing import Generic, TypeVar

T = TypeVar("T")


class Registry(Mapping[str, T], Generic[T]):
    """Name to thing, in the order of the names.

    package: whose modules register something when they are imported.
    group: the entry-point group through which other packages join. word: what one thing is, with
    its article. failures: of each entry point that could not be loaded, what went wrong.
    """

    def __init__(self, package: str, group: str, word: str) -> None:
        self._package = package
        self._group = group
        self._word = word
        self._things: dict[str, T] = {}
        self._origins: dict[str, tuple[str, str]] = {}
        self._is_filled = False
        self.failures: dict[str, str] = {}

    def add(self, name: str, thing: T, marked: Callable[..., object]) -> None:
        """Register a thing. marked: the function or class that makes it.

        The same function replaces what it registered before: a cell of a notebook that runs again,
        a module that is reloaded. Raises ValueError if another one has the name.
        """
        origin = marked.__module__, marked.__qualname__
        if not origin[0].startswith(self._package):
            self._fill()
        if name in self._things and self._origins[name] != origin:
            module, function = self._origins[name]
            raise ValueError(
                f"there is already {self._word} '{name}', of {function} in {module}. "
                "Choose another name."
            )
        self._origins[name] = origin
        self._things = dict(sorted({**self._things, name: thing}.items()))

    def _fill(self) -> dict[str, T]:
        if not self._is_filled:
            self._is_filled = True  # modules that use it during the import see the things so far
            try:
                self._import_all()
            except BaseException:
                self._is_filled = False
                raise
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
