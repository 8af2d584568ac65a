"""Outputs take frames. One driver a file, opened by its name.

An output is written as `NAME:ADDRESS`, with options behind it, `serial:/dev/ttyUSB0,baud=500000`,
or as a table of a design. To add one, write a class like `MemoryOutput` in memory.py and put it
into `OUTPUTS`, or name it in the entry-point group `fendra.outputs` of another package.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from types import TracebackType
from typing import Any, ClassVar, Self

from fendra.core.document.design import Design
from fendra.core.errors import OutputError
from fendra.core.film import Frame
from fendra.core.layout import Layout, place
from fendra.core.layout.wire import LineBytes
from fendra.core.names import did_you_mean
from fendra.drivers import Driver, Drivers, Names, Options


class OutputOptions(Options):
    """Options of any output.

    Attributes:
        lines: the lines that it gets, by name; all by default
        controller: only the lines of this controller
    """

    lines: Names = ()
    controller: str = ""


class Output(Driver, ABC):
    """Takes frames: open it for a design, send frames, close it. A driver fills in `_...`.

    Everything raises OutputError if frames cannot be delivered. `sent` counts frames. fills_screen:
    it draws in the terminal, so nothing else may print there. hears_news: `hear` gives it the
    signals' new values. notice: something that the user should know, though frames are delivered.
    """

    Options: ClassVar[type[OutputOptions]] = OutputOptions
    error = OutputError
    fills_screen: ClassVar[bool] = False
    hears_news: ClassVar[bool] = False
    options: OutputOptions

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self.address = self.options.address
        self.sent = 0
        self.is_open = False
        self.notice = ""

    def lines_of(self, design: Design) -> list[int]:
        """The places of the lines that it takes. Raises OutputError for an unknown line."""
        names = [line.name for line in design.line]
        for name in self.options.lines:
            if name not in names:
                remedy = did_you_mean(name, names, "lines")
                raise OutputError(f"{self}: the design has no line '{name}'. {remedy}")
        chosen = [*range(len(names))]
        if self.options.controller:
            if self.options.controller not in design.controllers:
                remedy = did_you_mean(self.options.controller, design.controllers, "controllers")
                raise OutputError(
                    f"{self}: the design has no controller '{self.options.controller}'. {remedy}"
                )
            chosen = design.lines_of(self.options.controller)
        if self.options.lines:
            chosen = [number for number in chosen if names[number] in self.options.lines]
        return chosen

    def most_frames_hz(self, design: Design) -> float | None:  # noqa: ARG002
        """How many frames of a design it carries in a second; None if nothing limits it."""
        return None

    def open(self, design: Design, layout: Layout | None = None) -> None:
        """Make ready for the frames of a design.

        layout: whose rows the frames have, if it is not the design's own, as on the bench, where
        each address has one.
        """
        self.wire = LineBytes(layout or place(design), design, self.lines_of(design))
        try:
            self._open(design)
        except BaseException:
            self._close()  # of what was opened before it failed
            raise
        self.is_open = True

    def use(self, design: Design, layout: Layout | None = None) -> None:
        """Make ready for the frames of another design, without letting go of what can be kept."""
        self.wire = LineBytes(layout or place(design), design, self.lines_of(design))
        self._use(design)

    def send(self, frame: Frame) -> None:
        """Deliver one frame; returns when it is on its way."""
        if not self.is_open:
            raise OutputError(f"{self} is not open")
        self._send(frame)
        self.sent += 1

    def hear(self, news: Mapping[str, Any]) -> None:
        """Note the values for the next frame; the loop calls it, so it must not wait."""

    def finish(self) -> None:
        """The run is over: finish what was made. Raises OutputError if it is lost."""

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

    def _use(self, design: Design) -> None:
        self._close()
        self._open(design)

    @abstractmethod
    def _send(self, frame: Frame) -> None: ...

    @abstractmethod
    def _close(self) -> None: ...


OUTPUTS: dict[str, tuple[str, str]] = {
    "film": ("fendra.outputs.film_file", "FilmOutput"),
    "gif": ("fendra.draw.gif_output", "GifOutput"),
    "lamps": ("fendra.outputs.lamps", "LampsOutput"),
    "memory": ("fendra.outputs.memory", "MemoryOutput"),
    "null": ("fendra.outputs.memory", "NullOutput"),
    "sacn": ("fendra.outputs.sacn", "SacnOutput"),
    "serial": ("fendra.outputs.serial_port", "SerialOutput"),
    "spi": ("fendra.outputs.spi", "SpiOutput"),
    "terminal": ("fendra.draw.terminal", "TerminalOutput"),
    "values": ("fendra.outputs.values", "ValuesOutput"),
}
"""Name to module and class; the module is imported when it is first used."""

DRIVERS: Drivers[Output] = Drivers("output", OUTPUTS, OutputError)


def make_output(text: str) -> Output:
    """The output that a text like `serial:/dev/ttyUSB0,baud=500000` names, not yet open.

    Raises OutputError for an unknown name or option.
    """
    return DRIVERS.from_text(text)
