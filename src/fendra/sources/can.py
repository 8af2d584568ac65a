"""CAN: broadcast frames, named by a DBC file or by the places of their bytes."""

from __future__ import annotations

from collections import Counter
from pathlib import Path
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError
from fendra.core.layout import Layout
from fendra.core.limits import LAYOUT_BYTES
from fendra.drivers import Options
from fendra.sources import News, Source, package
from fendra.system.process import A_PORT, NAME
from fendra.whole import read_text

AT_ONCE = 256


class FrameField(BaseModel):
    """A number in a frame: the frame, the first byte, and the scale.

    size: how many bytes. bit: only one bit of the first byte, 0 the lowest.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    id: Annotated[int, Field(ge=0, le=0x1FFF_FFFF)]
    byte: Annotated[int, Field(ge=0, le=63)] = 0
    size: Annotated[int, Field(ge=1, le=8)] = 1
    order: Literal["little", "big"] = "little"
    signed: bool = False
    bit: Annotated[int, Field(ge=0, le=7)] | None = None
    scale: float = 1.0
    offset: float = 0.0

    def value(self, data: bytes) -> float | None:
        """The number in a frame's bytes; None if the frame is too short."""
        piece = data[self.byte : self.byte + self.size]
        if len(piece) < self.size:
            return None
        if self.bit is not None:
            return float(piece[0] >> self.bit & 1)
        return int.from_bytes(piece, self.order, signed=self.signed) * self.scale + self.offset


class BusOptions(Options):
    """Options of a CAN bus.

    Attributes:
        address: the channel, such as `can0`
        interface: the adapter, by python-can's names: socketcan, slcan, virtual,
            udp_multicast
        bitrate: bits a second, for adapters that need it
    """

    address: str = "can0"
    interface: str = "socketcan"
    bitrate: Annotated[int, Field(ge=5_000, le=8_000_000)] | None = None


class CanOptions(BusOptions):
    """Options of a CAN bus to read.

    Attributes:
        dbc: a DBC file, which names the numbers in the frames
        fields: numbers in frames by name, without a DBC file
    """

    dbc: str = ""
    fields: dict[str, FrameField] = {}


def open_bus(options: BusOptions, what: str) -> Any:
    """A CAN bus. Raises SourceError."""
    if options.interface == "socketcan" and NAME != "linux":
        raise SourceError(
            f"{what} cannot be opened: SocketCAN is for Linux. Name the adapter, as in "
            f"can:{A_PORT},interface=slcan",
            code=NEVER,
        )
    can = package("can")
    more = {} if options.bitrate is None else {"bitrate": options.bitrate}
    try:
        return can.Bus(interface=options.interface, channel=options.address, **more)
    except (can.CanError, OSError, ValueError, ImportError) as exc:
        cure = ""
        if options.interface == "socketcan":
            cure = f" Bring it up: sudo ip link set {options.address} up type can bitrate 500000"
        raise SourceError(f"{what} cannot be opened: {exc}.{cure}") from exc


class CanSource(Source):
    """A vehicle's bus, listened to; nothing is ever sent."""

    Options = CanOptions
    options: CanOptions
    example = "can:can0,dbc=bike.dbc"

    def __init__(self, address: str = "can0", **options: Any) -> None:
        super().__init__(address or "can0", **options)
        self._bus: Any = None

    def __str__(self) -> str:
        return f"CAN {self.options.address}"

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        self._messages: dict[int, Any] = {}
        self._twice: set[str] = set()
        if self.options.dbc:
            self._read_dbc(self.folder / self.options.dbc)
        self._bus = open_bus(self.options, str(self))

    def _read_dbc(self, path: Path) -> None:
        cantools = package("cantools")
        text = read_text(path, LAYOUT_BYTES)
        try:
            database = cantools.database.load_string(text, path.suffix[1:] or "dbc")
        except Exception as exc:  # each format has errors of its own
            raise SourceError(f"'{path}' cannot be read as a DBC file: {exc}") from exc
        self._messages = {message.frame_id: message for message in database.messages}
        names = Counter(each.name for message in database.messages for each in message.signals)
        self._twice = {name for name, count in names.items() if count > 1}

    def _read(self, wait_s: float) -> News:
        assert self._bus is not None
        can = package("can")
        news: list[tuple[str, object]] = []
        try:
            message = self._bus.recv(wait_s)
            while message is not None:
                self._hear(message, news)
                message = self._bus.recv(0) if len(news) < AT_ONCE else None
        except (can.CanError, OSError) as exc:
            raise SourceError(f"{self} is gone: {exc}") from exc
        return news

    def _hear(self, message: Any, news: list[tuple[str, object]]) -> None:
        if message.is_error_frame or message.is_remote_frame:
            return
        data = bytes(message.data)
        for name, field in self.options.fields.items():
            if field.id == message.arbitration_id:
                value = field.value(data)
                if value is None:
                    self.refuse(f"frame {message.arbitration_id:#x} is too short for {name}")
                else:
                    news.append((name, value))
        known = self._messages.get(message.arbitration_id)
        if known is None:
            return
        try:
            decoded = known.decode(data)
        except Exception as exc:  # a frame that is not as the file says
            self.refuse(f"frame {message.arbitration_id:#x}: {exc}")
            return
        for name, value in decoded.items():
            plain = str(value) if hasattr(value, "name") else value
            news.append((f"{known.name}.{name}" if name in self._twice else name, plain))

    def _close(self) -> None:
        if self._bus is not None:
            self._bus.shutdown()
            self._bus = None
