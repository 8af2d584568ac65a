"""Drivers: sources and outputs by name, and their options.

A driver is written as `NAME:ADDRESS` with options behind it, `serial:/dev/ttyUSB0,baud=500000`, or
as a table of a design. Its class holds a model of its options; modules are imported when asked for.
"""

from __future__ import annotations

import errno
import importlib
from collections.abc import Iterator, Mapping, Sequence
from importlib.metadata import entry_points
from pathlib import Path
from typing import Annotated, Any, ClassVar, Generic, TypeVar, get_args

from pydantic import BaseModel, BeforeValidator, ConfigDict, ValidationError

from fendra.core.document.wording import to_findings
from fendra.core.errors import FendraError
from fendra.core.names import NAME, did_you_mean, in_words, must_be

Names = Annotated[
    tuple[str, ...],
    BeforeValidator(lambda given: tuple(given.split("+")) if isinstance(given, str) else given),
]
"""Names as a list, or as a text with + between them."""


def setting(low: float, high: float) -> BeforeValidator:
    """For the type `float | str` of an option: a number within a range, or the name of a signal,
    whose value it then has from moment to moment.
    """

    def read(given: Any) -> Any:
        if isinstance(given, str):
            try:
                given = float(given)
            except ValueError:
                if NAME.fullmatch(given):
                    return given
                raise ValueError(
                    f"{in_words(given)} is no number, and no name of a signal"
                ) from None
        if isinstance(given, bool) or not isinstance(given, (int, float)):
            raise ValueError(must_be("a number, or the name of a signal", given))
        if not low <= given <= high:
            raise ValueError(f"{given:g} is out of range. Write a number from {low:g} to {high:g}")
        return float(given)

    return BeforeValidator(read)


class Options(BaseModel):
    """Options of any driver.

    Attributes:
        address: the port, host or file
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    address: str = ""


class Driver:
    """A source or an output, with its options."""

    Options: ClassVar[type[Options]] = Options
    error: ClassVar[type[FendraError]] = FendraError
    example: ClassVar[str] = ""
    kind: ClassVar[str] = ""
    folder: Path = Path()
    """Where the files are that its options name."""
    is_from_design: bool = False
    """Whether a design names it, which may be a stranger's, and not its user."""

    def __init__(self, address: str = "", **options: Any) -> None:
        """Make one, not yet open. Raises `error` for options that it does not take."""
        try:
            self.options = self.Options.model_validate({"address": address, **options})
        except ValidationError as exc:
            raise self.error(self._what_is_wrong(exc)) from exc

    def check_from_design(self) -> None:
        """Check that a design may use these options. Raises `error` for those that only the user
        may.
        """

    def check_files(self) -> None:
        """Check the files that its options name, below `folder`. Raises `error`, or FileError."""

    @property
    def host(self) -> str:
        """The host that it connects or sends to; empty if it does not."""
        return ""

    @classmethod
    def _what_is_wrong(cls, exc: ValidationError) -> str:
        first = exc.errors()[0]
        key = ".".join(str(step) for step in first["loc"])
        if first["type"] == "extra_forbidden":
            known = [name for name in known_keys(cls.Options, first["loc"]) if name != "address"]
            return f"there is no option '{key}' here. {did_you_mean(key, known, 'options')}"
        if first["type"] == "value_error":
            return f"{key}: {first['ctx']['error']}"
        same = [error for error in exc.errors() if error["loc"] == first["loc"]]
        finding = to_findings(same, (key,), {})[0]
        example = f"Write it as in: {cls.example}" if cls.example else ""
        return f"{key}: {finding.message} {example or finding.remedy}".strip()


D = TypeVar("D", bound=Driver)


class Drivers(Generic[D]):
    """All drivers of a sort, by name: the ones here and the ones of an entry-point group.

    what: `source` or `output`. table: name to module and class.
    """

    def __init__(self, what: str, table: Mapping[str, tuple[str, str]], error: type[FendraError]):
        self.what, self.table, self.error = what, table, error

    def names(self) -> list[str]:
        """Every name there is."""
        return sorted({*self.table, *self._others()})

    def kind(self, name: str) -> type[D]:
        """The class of a name. Raises `error` for an unknown name."""
        if name in self.table:
            module, attribute = self.table[name]
            found: type[D] = getattr(importlib.import_module(module), attribute)
            return found
        others = self._others()
        if name in others:
            loaded: type[D] = others[name].load()
            return loaded
        remedy = did_you_mean(name, self.names(), f"{self.what}s")
        raise self.error(f"there is no {self.what} '{name}'.", remedy=remedy, code="unknown-name")

    def from_text(self, text: str) -> D:
        """Read `NAME:ADDRESS,option=value`. Raises `error`."""
        name, _, rest = text.partition(":")
        kind = self.kind(name.strip())
        address, *settings = rest.split(",")
        options = {}
        for setting in settings:
            key, equals, value = setting.partition("=")
            if not equals:
                known = [f"{key}=..." for key in kind.Options.model_fields if key != "address"]
                raise self.error(
                    f"{self.what} '{name}' has no option '{setting}'; it has "
                    f"{', '.join(known) or 'none'}"
                )
            options[key.strip()] = value.strip()
        return kind(address.strip(), **options)

    def from_table(self, values: Mapping[str, Any]) -> D:
        """Read a table of a design. Raises `error`."""
        options = {key: value for key, value in values.items() if key != "type"}
        return self.kind(str(values["type"]))(options.pop("address", ""), **options)

    def _others(self) -> dict[str, Any]:
        return {entry.name: entry for entry in entry_points(group=f"fendra.{self.what}s")}


def known_keys(model: type[BaseModel], where: Sequence[int | str]) -> list[str]:
    """The keys of the table in which a key stands, inside the values of a model.

    >>> known_keys(Options, ("addres",))
    ['address']
    """
    for step in where[:-1]:
        if isinstance(step, str) and step in model.model_fields:
            model = next(_models(model.model_fields[step].annotation), model)
    return [*model.model_fields]


def _models(kind: Any) -> Iterator[type[BaseModel]]:
    """The models that a type holds."""
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        yield kind
    for inner in get_args(kind):
        yield from _models(inner)


def is_missing(exc: Exception) -> bool:
    """Whether there is no such port or folder here. For ports on Windows only the error's text says
    so.
    """
    is_told = getattr(exc, "errno", None) in (errno.ENOENT, errno.ENOTDIR)
    return is_told or "FileNotFoundError" in str(exc)
