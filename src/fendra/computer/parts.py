"""Parts of what a computer tells, and all of them together."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterable, Mapping, Sequence
from contextlib import suppress
from typing import Any, ClassVar

from fendra.core.errors import reason


class CannotTell(Exception):  # noqa: N818 - it is an answer
    """A part that this computer does not have, and why."""


class Part(ABC):
    """A part of what a computer tells. Making one raises CannotTell where it cannot.

    names: the values that `read` may give. lacks: of these the ones that it cannot give here, and
    why.
    """

    names: ClassVar[tuple[str, ...]]
    lacks: Mapping[str, str] = {}

    @abstractmethod
    def read(self) -> dict[str, Any]:
        """The values now; those that are not known are left out."""

    def close(self) -> None:  # noqa: B027 - few have anything to let go of
        """Let go of everything."""


class Computer:
    """The parts of this computer that give the wanted names.

    lacks: the wanted names that it cannot give, and why.
    """

    def __init__(self, kinds: Sequence[type[Part]], wanted: Iterable[str]) -> None:
        stems = {name.partition(" ")[0] for name in wanted}
        self.lacks: dict[str, str] = {}
        self._parts: dict[Part, list[str]] = {}
        for kind in kinds:
            asked = sorted(stems & {*kind.names})
            if not asked:
                continue
            try:
                part = kind()
            except CannotTell as exc:
                self.lacks |= dict.fromkeys(asked, str(exc))
                continue
            except Exception as exc:  # each system and package has errors of its own
                self.lacks |= dict.fromkeys(asked, _why(exc))
                continue
            self._parts[part] = asked
            self.lacks |= {name: part.lacks[name] for name in asked if name in part.lacks}
        known = {name for kind in kinds for name in kind.names}
        self.unknown = sorted(stems - known)

    def read(self) -> dict[str, Any]:
        """All values now. A part that fails gives nothing, and its names are among those that
        it cannot give.
        """
        found: dict[str, Any] = {}
        for part, asked in self._parts.items():
            try:
                found |= part.read()
            except Exception as exc:
                self.lacks = dict.fromkeys(asked, _why(exc)) | self.lacks
        return found

    def close(self) -> None:
        """Let go of everything."""
        for part in self._parts:
            with suppress(Exception):
                part.close()
        self._parts = {}


def _why(exc: Exception) -> str:
    said = getattr(exc, "text", None) or reason(exc)  # the text of an error of Windows' COM
    return f"it fails: {str(said).strip(' .')[:100] or type(exc).__name__}"


def needs(package: str, make: Callable[[], Any]) -> Any:
    """Something of an optional package. Raises CannotTell, which says how to get it."""
    try:
        return make()
    except ImportError as exc:
        raise CannotTell(
            f"it needs the package '{package}': pip install 'fendra[machine]'"
        ) from exc
