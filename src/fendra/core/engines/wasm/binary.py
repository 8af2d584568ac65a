"""The binary format of WebAssembly modules, as far as they are needed here.

Source: WebAssembly Core Specification, "Binary Format". A module here has one memory, exports
functions, imports nothing.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import groupby

PAGE = 65_536
"""Memory grows by this many bytes."""
MOST_PAGES = 65_536
"""4 GiB: more cannot be addressed."""

I32, I64, F32, F64, V128 = 0x7F, 0x7E, 0x7D, 0x7C, 0x7B
"""Types of values."""

_TYPES, _FUNCTIONS, _MEMORIES, _EXPORTS, _CODE, _DATA = 1, 3, 5, 7, 10, 11


@dataclass(frozen=True)
class Function:
    """takes, gives: types of values. locals: more locals, after those that it takes. body:
    instructions, without the last `end`.
    """

    takes: tuple[int, ...]
    gives: tuple[int, ...]
    locals: tuple[int, ...]
    body: bytes


def unsigned(value: int) -> bytes:
    """A number from 0 on as LEB128.

    >>> unsigned(624_485).hex(" ")
    'e5 8e 26'
    """
    found = bytearray()
    while value > 0x7F:
        found.append(value & 0x7F | 0x80)
        value >>= 7
    found.append(value)
    return bytes(found)


def signed(value: int) -> bytes:
    """A number with a sign as LEB128.

    >>> signed(-123_456).hex(" ")
    'c0 bb 78'
    """
    found = bytearray()
    while not -64 <= value < 64:
        found.append(value & 0x7F | 0x80)
        value >>= 7
    found.append(value & 0x7F)
    return bytes(found)


def module(
    functions: Sequence[Function],
    exports: Mapping[str, int],
    pages: int,
    data: Iterable[tuple[int, bytes]],
) -> bytes:
    """A module as bytes.

    exports: names of functions and their places. pages: of memory, which is exported as `memory`.
    data: its first contents, each piece with its address.
    """
    types = list(dict.fromkeys((each.takes, each.gives) for each in functions))
    known = {each: place for place, each in enumerate(types)}
    exported = [_name("memory") + b"\x02\x00"]
    exported += [_name(name) + b"\x00" + unsigned(place) for name, place in exports.items()]
    sections = [
        (_TYPES, _vector(b"\x60" + _vector(takes) + _vector(gives) for takes, gives in
                         ((map(_byte, t), map(_byte, g)) for t, g in types))),
        (_FUNCTIONS, _vector(unsigned(known[each.takes, each.gives]) for each in functions)),
        (_MEMORIES, _vector([b"\x00" + unsigned(pages)])),
        (_EXPORTS, _vector(exported)),
        (_CODE, _vector(map(_code, functions))),
        (_DATA, _vector(b"\x00\x41" + signed(at) + b"\x0b" + _sized(held) for at, held in data)),
    ]  # fmt: skip
    return b"\0asm\1\0\0\0" + b"".join(bytes([kind]) + _sized(held) for kind, held in sections)


def _code(function: Function) -> bytes:
    rows = [(len([*same]), kind) for kind, same in groupby(function.locals)]
    declared = _vector(unsigned(count) + _byte(kind) for count, kind in rows)
    return _sized(declared + function.body + b"\x0b")


def _byte(value: int) -> bytes:
    return bytes([value])


def _vector(items: Iterable[bytes]) -> bytes:
    held = [*items]
    return unsigned(len(held)) + b"".join(held)


def _sized(held: bytes) -> bytes:
    return unsigned(len(held)) + held


def _name(text: str) -> bytes:
    return _sized(text.encode())
