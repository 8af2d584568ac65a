"""Binary packets: which bytes are which value. It knows no port.

A layout is a table of a design, or a file of its own that others can use:

    order = "little"

    [[packet]]
    name = "car"
    length = 44

    [packet.fields]
    rpm = { byte = 4, type = "f32" }
    speed = { byte = 8, type = "f32", scale = 3.6 }
    lamps-on = { byte = 12, bit = 3 }
    driver = { byte = 16, type = "text", length = 16 }
"""

from __future__ import annotations

import math
import struct
import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any, Literal

from pydantic import (
    AfterValidator,
    BaseModel,
    ConfigDict,
    Field,
    ValidationError,
    model_validator,
)

from fendra.core.document.wording import to_findings
from fendra.core.errors import NEVER, SourceError
from fendra.core.findings import Finding, KeyPath, Severity, with_places
from fendra.core.limits import DESIGN_BYTES, PACKET_BYTES, PACKET_NAMES
from fendra.core.names import did_you_mean, listed
from fendra.drivers import Options, known_keys
from fendra.toml_places import key_lines
from fendra.whole import read_text

Whole = Literal["u8", "u16", "u32"]
Order = Literal["little", "big"]
CODES = {
    "u8": "B", "i8": "b", "u16": "H", "i16": "h", "u32": "I", "i32": "i", "u64": "Q", "i64": "q",
    "f32": "f", "f64": "d",
}  # fmt: skip
"""The types of numbers, as Python's struct calls them: whole numbers without and with a sign, and
IEEE 754 floats, with their bits.
"""
SIGNS: dict[str, str] = {"little": "<", "big": ">"}
Place = Annotated[int, Field(ge=0, lt=PACKET_BYTES.most)]


class _Model(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class BinaryField(_Model):
    """A value in a packet.

    Attributes:
        byte: its first byte, from 0
        type: `u8`, `u16`, `u32`, `u64`, the same with `i` for numbers with a sign, `f32`, `f64`,
            or `text`
        order: `little` or `big`: which byte of a number comes first; by default that of the packet
        bit: this bit of a whole number, from 0, as a switch
        scale: multiplied with the number
        offset: added after that
        count: so many numbers in a row, as a vector
        length: a text of so many bytes; it ends at its first zero
        prefix: a text after its own length in bytes, which is a number of this type
        encoding: how a text is written: `utf-8`, `utf-16` (in the order of numbers) or `latin-1`
        after: the field, a text with a prefix, behind which this one's bytes are counted
    """

    byte: Place = 0
    type: Literal[
        "u8", "i8", "u16", "i16", "u32", "i32", "u64", "i64", "f32", "f64", "text"
    ] = "u8"  # fmt: skip
    order: Order | None = None
    bit: Annotated[int, Field(ge=0, le=63)] | None = None
    scale: float = 1.0
    offset: float = 0.0
    count: Annotated[int, Field(ge=1, le=PACKET_NAMES.most)] = 1
    length: Annotated[int, Field(ge=1, le=4096)] | None = None
    prefix: Whole | None = None
    encoding: Literal["utf-8", "utf-16", "latin-1"] = "utf-8"
    after: str = ""

    @model_validator(mode="after")
    def _fits(self) -> BinaryField:
        is_text = self.type == "text"
        if is_text and (self.length is None) == (self.prefix is None):
            raise ValueError('a text needs `length`, its bytes, or `prefix`, as in prefix = "u16"')
        if not is_text and (self.length is not None or self.prefix is not None):
            raise ValueError('`length` and `prefix` are for texts; write type = "text"')
        if self.bit is not None and (is_text or self.type[0] == "f" or self.count > 1):
            raise ValueError('`bit` is for one whole number, as in type = "u8"')
        if self.bit is not None and self.bit >= 8 * struct.calcsize(CODES[self.type]):
            raise ValueError(f"{self.type} has no bit {self.bit}; bits count from 0")
        if is_text and self.count > 1:
            raise ValueError("`count` is for numbers; write a field for each text")
        return self


class Mark(_Model):
    """The value by which packets are told apart.

    Attributes:
        byte: its first byte, from 0
        type: the type of the number
        order: which byte comes first; by default that of the packet
        value: the number that packets of this kind have there
    """

    byte: Place
    type: Literal["u8", "i8", "u16", "i16", "u32", "i32", "u64", "i64"] = "u8"
    order: Order | None = None
    value: int


def _following(fields: dict[str, BinaryField]) -> dict[str, BinaryField]:
    known: list[str] = []
    for name, field in fields.items():
        if field.after and field.after not in known:
            raise ValueError(
                f"'{name}' comes after '{field.after}', which is no text with a prefix above it. "
                f"{did_you_mean(field.after, known, 'such fields')}".strip()
            )
        if field.prefix is not None:
            known.append(name)
    return fields


Fields = Annotated[dict[str, BinaryField], AfterValidator(_following)]


class Packet(_Model):
    """A kind of packet.

    Attributes:
        name: its name, for messages
        length: it has exactly so many bytes
        mark: it has this value at this place
        order: which byte of a number comes first; by default that of the layout
        fields: its values by name
    """

    name: str = ""
    length: Annotated[int, Field(ge=1, le=PACKET_BYTES.most)] | None = None
    mark: Mark | None = None
    order: Order | None = None
    fields: Annotated[Fields, Field(min_length=1)]


def _told_apart(packets: list[Packet]) -> list[Packet]:
    for number, packet in enumerate(packets[:-1]):
        if packet.length is None and packet.mark is None:
            raise ValueError(
                f"packet {_called(packet, number)} takes every packet, and those below it "
                "get none. Give it `length` or `mark`, or put it last"
            )
    return packets


Packets = Annotated[list[Packet], AfterValidator(_told_apart)]


class PacketLayout(_Model):
    """The packets of a game or simulator.

    Attributes:
        about: what sends them
        order: which byte of a number comes first: `little` or `big`
        packet: the kinds of packets, told apart by `length`, by `mark`, or both
    """

    about: str = ""
    order: Order = "little"
    packet: Annotated[Packets, Field(min_length=1)]


class BinaryOptions(Options):
    """How bytes become values: by one of `fields`, `packets` and `layout`.

    Attributes:
        order: which byte of a number comes first: `little` or `big`
        fields: the values of a packet by name, if all packets are alike
        packets: several kinds of packets, told apart by `length` or `mark`, each with `fields`
        layout: a file of packets, which others can use as well
    """

    order: Order = "little"
    fields: Fields = {}
    packets: Packets = []
    layout: str = ""

    @model_validator(mode="after")
    def _one_way(self) -> BinaryOptions:
        given = [f"`{key}`" for key in ("fields", "packets", "layout") if getattr(self, key)]
        if len(given) > 1:
            raise ValueError(f"write one of {listed(given)}: each says what the bytes are")
        return self

    def decoder(self, folder: Path) -> Decoder | None:
        """A decoder of these bytes; None if they are not binary. Raises SourceError and FileError.

        folder: where the layout's file is.
        """
        if self.layout:
            return Decoder(read_layout(folder / self.layout))
        kinds = self.packets or ([Packet(fields=self.fields)] if self.fields else [])
        if not kinds:
            return None
        return Decoder(PacketLayout(order=self.order, packet=kinds))


def _called(packet: Packet, number: int) -> str:
    return f"'{packet.name}'" if packet.name else f"{number + 1}"


@dataclass(frozen=True)
class _Reader:
    """A field, ready to be read."""

    name: str
    field: BinaryField
    numbers: struct.Struct
    prefix: struct.Struct | None
    encoding: str

    def read(self, data: bytes, base: int) -> tuple[Any, int]:
        """The value, and the place behind it. Raises struct.error if there are too few bytes."""
        field, at = self.field, base + self.field.byte
        if field.type == "text":
            size = field.length or 0
            if self.prefix is not None:
                (size,) = self.prefix.unpack_from(data, at)
                at += self.prefix.size
            if at + size > len(data):
                raise struct.error
            return _text(data[at : at + size], self.encoding), at + size
        values = self.numbers.unpack_from(data, at)
        end = at + self.numbers.size
        if field.bit is not None:
            return bool(values[0] >> field.bit & 1), end
        told = [value * field.scale + field.offset for value in values]
        return told if field.count > 1 else told[0], end


def _text(data: bytes, encoding: str) -> str:
    text = data.decode(encoding, errors="replace").removeprefix("\ufeff")  # a byte order mark
    return text.partition("\0")[0].strip()


class Decoder:
    """Packets in, values out, by a layout.

    >>> fields = {"rpm": {"byte": 2, "type": "u16", "order": "big"}, "left": {"byte": 0, "bit": 7}}
    >>> decoder = Decoder(PacketLayout.model_validate({"packet": [{"fields": fields}]}))
    >>> decoder.decode(bytes([0x80, 0, 0x0B, 0xB8]))
    {'rpm': 3000.0, 'left': True}
    """

    def __init__(self, layout: PacketLayout) -> None:
        self._kinds = [
            (packet, _mark(packet, layout), _readers(packet, layout)) for packet in layout.packet
        ]

    def decode(self, data: bytes, *, goes_on: bool = False) -> dict[str, Any]:
        """The values of a packet; those that are no finite numbers are left out. Raises ValueError
        for a packet of no kind, and for one that is too short for its fields.

        goes_on: other bytes may follow the packet, as in memory.
        """
        for number, (packet, mark, readers) in enumerate(self._kinds):
            if packet.length is not None and (
                len(data) < packet.length or (not goes_on and len(data) > packet.length)
            ):
                continue
            if mark is not None and packet.mark is not None:
                end = packet.mark.byte + mark.size
                if end > len(data) or mark.unpack_from(data, packet.mark.byte) != (
                    packet.mark.value,
                ):
                    continue
            return _values(data, readers, packet, number)
        raise ValueError(f"no packet of the layout fits these {len(data)} bytes: {_shown(data)}")


def _values(data: bytes, readers: Sequence[_Reader], packet: Packet, number: int) -> dict[str, Any]:
    found, ends = {}, {"": 0}
    for reader in readers:
        try:
            value, ends[reader.name] = reader.read(data, ends[reader.field.after])
        except struct.error:
            raise ValueError(
                f"a packet {_called(packet, number)} of {len(data)} bytes ends before "
                f"'{reader.name}'"
            ) from None
        if _is_finite(value):
            found[reader.name] = value
    return found


def _is_finite(value: Any) -> bool:
    """Whether a value is a text, or all of its numbers are finite."""
    if isinstance(value, list):
        return all(map(math.isfinite, value))
    return isinstance(value, str) or math.isfinite(value)


def _shown(data: bytes) -> str:
    return data[:12].hex(" ") + (" ..." if len(data) > 12 else "")


def _mark(packet: Packet, layout: PacketLayout) -> struct.Struct | None:
    if packet.mark is None:
        return None
    order = packet.mark.order or packet.order or layout.order
    return struct.Struct(SIGNS[order] + CODES[packet.mark.type])


def _readers(packet: Packet, layout: PacketLayout) -> list[_Reader]:
    found = []
    for name, field in packet.fields.items():
        order = field.order or packet.order or layout.order
        sign = SIGNS[order]
        code = CODES.get(field.type, "B")
        prefix = None if field.prefix is None else struct.Struct(sign + CODES[field.prefix])
        encoding = f"utf-16-{order[0]}e" if field.encoding == "utf-16" else field.encoding
        numbers = struct.Struct(f"{sign}{field.count}{code}")
        found.append(_Reader(name, field, numbers, prefix, encoding))
    return found


def read_layout(path: Path) -> PacketLayout:
    """The layout of a file. Raises SourceError, with file and line."""
    text = read_text(path, DESIGN_BYTES)
    try:
        raw = tomllib.loads(text)
        return PacketLayout.model_validate(raw)
    except (tomllib.TOMLDecodeError, RecursionError) as exc:
        raise SourceError(f"{path} is no TOML: {exc}", code=NEVER) from exc
    except ValidationError as exc:
        found = []
        for error in exc.errors():
            found += _findings(error, error["loc"], raw)
        placed = with_places(found, str(path), key_lines(text), text)
        raise SourceError("\n".join(map(str, placed[:5])), code=NEVER) from exc


def _findings(error: Any, where: KeyPath, raw: Mapping[str, Any]) -> list[Finding]:
    if error["type"] == "value_error":
        problem = f"{error['ctx']['error']}."
        return [Finding("wrong-value", Severity.ERROR, problem, "", where)]
    if error["type"] == "extra_forbidden":
        key = str(where[-1])
        remedy = did_you_mean(key, known_keys(PacketLayout, where), "keys")
        problem = f"there is no key '{key}' here."
        return [Finding("unknown-key", Severity.ERROR, problem, remedy, where)]
    return to_findings([error], where, dict(raw))
