"""Outputs: what takes frames. One driver a file, opened by its name.

An output is written as `NAME:ADDRESS`, with options behind it: `serial:/dev/ttyUSB0,baud=500000`.
To add one, write a class like `MemoryOutput` in memory.py and put it into `OUTPUTS`, or name
it in the entry-point group `fendra.outputs` of another package.
"""

from __future__ import annotations

import importlib
from abc import ABC, abstractmethod
from importlib.metadata import entry_points
from types import TracebackType
from typing import Self

from fendra.core.design import Design
from fendra.core.errors import OutputError
from fendra.core.film import Frame
from fendra.core.names import did_you_mean

OUTPUTS: dict[str, tuple[str, str]] = {
    "memory": ("fendra.outputs.memory", "MemoryOutput"),
    "serial": ("fendra.outputs.serial_port", "SerialOutput"),
}
"""Name to module and class; the module is imported when somebody asks for it."""


class Output(ABC):
    """Takes frames: open it for a design, send frames, close it. A driver fills in `_...`.

    Everything raises OutputError where frames cannot be delivered. `sent` counts frames.
    """

    options: tuple[str, ...] = ()
    """Names that may stand behind the address, as in `,baud=500000`."""

    def __init__(self, address: str = "") -> None:
        self.address = address
        self.sent = 0
        self.is_open = False

    def most_frames_hz(self, design: Design) -> float | None:  # noqa: ARG002
        """How many frames of a design it carries in a second; None where nothing limits it."""
        return None

    def open(self, design: Design) -> None:
        """Make ready for the frames of a design."""
        self._open(design)
        self.is_open = True

    def send(self, frame: Frame) -> None:
        """Deliver one frame; returns when it is on its way."""
        if not self.is_open:
            raise OutputError(f"{self} is not open")
        self._send(frame)
        self.sent += 1

    def close(self) -> None:
        """Let go of everything; closing twice does no harm."""
        if self.is_open:
            self.is_open = False
            self._close()

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        self.close()

    @abstractmethod
    def _open(self, design: Design) -> None: ...

    @abstractmethod
    def _send(self, frame: Frame) -> None: ...

    @abstractmethod
    def _close(self) -> None: ...


def make_output(text: str) -> Output:
    """The output that a text like `serial:/dev/ttyUSB0,baud=500000` names, not yet open.

    Raises OutputError for an unknown name or option.
    """
    name, _, rest = text.partition(":")
    kind = _driver(name)
    address, *settings = rest.split(",")
    options = {}
    for setting in settings:
        key, equals, value = setting.partition("=")
        if not equals or key not in kind.options:
            known = ", ".join(f"{option}=..." for option in kind.options) or "none"
            raise OutputError(f"'{setting}' is no option of output '{name}'; it has {known}")
        options[key] = value
    return kind(address, **options)


def _driver(name: str) -> type[Output]:
    if name in OUTPUTS:
        module, attribute = OUTPUTS[name]
        driver: type[Output] = getattr(importlib.import_module(module), attribute)
        return driver
    others = {entry.name: entry for entry in entry_points(group="fendra.outputs")}
    if name in others:
        loaded: type[Output] = others[name].load()
        return loaded
    remedy = did_you_mean(name, [*OUTPUTS, *others], "outputs")
    raise OutputError(f"there is no output '{name}'. {remedy}")
