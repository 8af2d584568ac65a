"""Every error that Fendra raises on purpose, as one tree.

FendraError
├── DesignError      (ValueError)  a design with findings of severity error
├── ExpressionError  (ValueError)  an expression that does not parse or resolve
├── LayoutError      (ValueError)  a part, view or file of positions that is not as it should be
├── GraphError       (TypeError)   an effect or expression that no graph can hold
├── ClockError       (ValueError)  a frame asked for before the one already shown
├── SignalError      (ValueError)  a value for a signal that is not there, or not a number
├── TapeError        (ValueError)  a tape that cannot be read, with its row numbers
├── FileError        (OSError)     a file that cannot be read or written
├── SourceError      (OSError)     news that cannot be had
├── OutputError      (OSError)     frames that cannot be delivered
├── EngineError      (RuntimeError) an engine that is not there, or cannot be made here
├── FirmwareError    (ValueError)  firmware that cannot be made of a design
└── PageError        (ValueError)  a design or tape that a page cannot hold
"""

from __future__ import annotations

import traceback
from collections.abc import Sequence
from pathlib import PurePath

from fendra.core.findings import Finding
from fendra.core.version import VERSION

NEVER = "never"
"""The code of errors that waiting cannot cure: a missing package, port or terminal."""


class FendraError(Exception):
    """The root of the tree: `except FendraError` catches all of it.

    problem: what is wrong. remedy: how to correct it. code: the sort of problem, for code that must
    tell them apart: `unknown-name`, `no-file`. names: the names in question, as written. The text
    of an error is only for people.
    """

    def __init__(
        self, problem: str = "", *, remedy: str = "", code: str = "", names: Sequence[str] = ()
    ) -> None:
        self.problem, self.remedy = problem, remedy
        self.code, self.names = code, tuple(names)
        super().__init__(f"{problem} {remedy}".strip())


class DesignError(FendraError, ValueError):
    """A design that cannot be compiled; `findings` holds every reason, not the first only."""

    def __init__(self, findings: Sequence[Finding]) -> None:
        self.findings = tuple(findings)
        super().__init__("\n".join(str(finding) for finding in self.findings))


class ExpressionError(FendraError, ValueError):
    """An expression that does not parse, or has an unknown name.

    `column` is the place in `text`, counted from 0.
    """

    def __init__(
        self, problem: str, *, remedy: str = "", code: str = "expression",
        names: Sequence[str] = (), text: str = "", column: int = 0,
    ) -> None:  # fmt: skip
        self.text = text
        self.column = column
        super().__init__(problem, remedy=remedy, code=code, names=names)

    @property
    def excerpt(self) -> str:
        """The text with a caret under the place; nothing if there is no text of one line."""
        if not self.text or "\n" in self.text:
            return ""
        return f"    {self.text}\n    {' ' * self.column}^"

    def __str__(self) -> str:
        return "\n".join(filter(None, (self.problem, self.excerpt, self.remedy)))


class LayoutError(FendraError, ValueError):
    """An unknown part, group or view, or positions that cannot be read."""


class GraphError(FendraError, TypeError):
    """An operation that the graph does not have."""


class ClockError(FendraError, ValueError):
    """Time ran backwards: a program's memory only goes forward."""


class SignalError(FendraError, ValueError):
    """A value was given for a signal that the design does not have, or was not a number."""


class TapeError(FendraError, ValueError):
    """A tape that cannot be read; the message names the rows."""


class FileError(FendraError, OSError):
    """A file that cannot be read or written."""


class SourceError(FendraError, OSError):
    """News that cannot be had: the port is missing, the bus is down, a package is not there."""


class OutputError(FendraError, OSError):
    """Frames that cannot be delivered: the port is missing, busy, or went away."""


class EngineError(FendraError, RuntimeError):
    """An unknown engine, or no compiler for machine code."""


class EngineWarning(UserWarning):
    """A design runs on another engine than it was asked for, with the same light."""


class TrustWarning(UserWarning):
    """A design names Python that may not run, and layers that need it are left out."""


class FirmwareError(FendraError, ValueError):
    """Firmware that cannot be made of a design, for this controller."""


class PageError(FendraError, ValueError):
    """A design or tape that a page cannot hold; the message names the limit."""


def reason(exc: BaseException) -> str:
    """What the system or a package says of an error, in its own words.

    >>> reason(OSError(28, "No space left on device")), reason(ValueError("odd"))
    ('No space left on device', 'odd')
    """
    return str(getattr(exc, "strerror", None) or exc)


def internal_error(exc: BaseException, where: str) -> str:
    """The report of an unexpected exception, in one line: what to send, and to whom.

    where: what was being done.
    """
    frames = traceback.extract_tb(exc.__traceback__)
    at = f" at {PurePath(frames[-1].filename).name}:{frames[-1].lineno}" if frames else ""
    said = " ".join(str(exc).split())[:200]
    return (
        f"internal error {where}: {type(exc).__name__}: {said}{at}. This is a "
        f"fault of Fendra {VERSION}, or of a package that it uses. Please report it: "
        "send this line, and the design or the file that causes it."
    )
