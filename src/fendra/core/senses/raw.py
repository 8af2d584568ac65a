"""Packets of unknown bytes: what their values may be, and which of them move.

A guess is only that. Numbers that look like floats are most probably floats: few bytes that are
something else are finite and of a handy size in every packet.
"""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Array

KEPT = 600
"""Packets of a length that are looked at: the newest."""
FLOATS = {"f32": (4, 1e-4, 1e6), "f64": (8, 1e-6, 1e9)}
"""Bytes, and the least and most that a float is taken for one, if it is not 0."""
SPREAD = 0.05
"""How much a float at an odd place has to change, as a share of its size, to be taken for one."""
SHORTEST_TEXT = 4
MANY, CARRY = 8, 1024
"""Values of a low byte, and how far a number moves at most where its high byte changes."""
SURE = 3
"""Packets from which bytes that change are guessed at."""


@dataclass(frozen=True)
class Guess:
    """What some bytes may be.

    Attributes:
        byte: the first
        type: as in the fields of a source; `text` for letters
        order: `little` or `big`
        length: bytes of a text
        now: its value in the newest packet
        low: the lowest value seen
        high: the highest value seen
        moved: how far it left the values that it had at rest, in shares of its range, 0 to 1;
            0 if nothing was called at rest
    """

    byte: int
    type: str
    order: str = "little"
    length: int = 0
    now: float | str = 0.0
    low: float = 0.0
    high: float = 0.0
    moved: float = 0.0

    @property
    def is_still(self) -> bool:
        """Whether it had the same value all the time."""
        return self.low == self.high


class Watched:
    """The packets of one length. count: how many came."""

    def __init__(self, length: int) -> None:
        self.length, self.count = length, 0
        self._packets: deque[bytes] = deque(maxlen=KEPT)
        self._rest: Array | None = None

    def take(self, packet: bytes) -> None:
        """Take a packet."""
        self._packets.append(packet)
        self.count += 1

    @property
    def newest(self) -> bytes:
        """The newest packet."""
        return self._packets[-1]

    def rest(self) -> None:
        """What came until now is what it is at rest; from here on it moves."""
        self._rest = self._all()
        self._packets = deque([self.newest], maxlen=KEPT)

    def changing(self) -> frozenset[int]:
        """The bytes that are not the same in all packets."""
        data = self._all()
        return frozenset(np.flatnonzero((data != data[0]).any(axis=0)).tolist())

    def guesses(self) -> list[Guess]:
        """The values that the bytes may be, in their order.

        >>> watched = Watched(6)
        >>> for number in range(5):
        ...     watched.take(np.float32(number * 12.5).tobytes() + bytes([7, number]))
        >>> [(guess.byte, guess.type, guess.high) for guess in watched.guesses()]
        [(0, 'f32', 50.0), (5, 'u8', 4.0)]
        """
        data = self._all()
        free = np.ones(self.length, bool)
        found = [*_texts(data, free), *_floats(data, free)]
        if len(data) >= SURE or self._rest is not None:
            found += _whole(data, free)
        return sorted((self._seen(guess, data) for guess in found), key=lambda each: each.byte)

    def _all(self) -> Array:
        newest = np.frombuffer(b"".join(self._packets), np.uint8).reshape(-1, self.length)
        return newest if self._rest is None else np.concatenate([self._rest, newest])

    def _seen(self, guess: Guess, data: Array) -> Guess:
        """A guess with its values."""
        if guess.type == "text":
            return guess
        values = column(data, guess.byte, guess.type, guess.order)
        low, high = float(values.min()), float(values.max())
        moved = 0.0
        if self._rest is not None and high > low:
            still = values[: len(self._rest)]
            after = values[len(self._rest) :]
            away = np.maximum(after - still.max(), still.min() - after).max()
            moved = float(max(away, 0.0) / (high - low))
        return Guess(
            guess.byte, guess.type, guess.order, 0, float(values[-1]), low, high, round(moved, 3)
        )


def column(data: Array, byte: int, kind: str, order: str) -> Array:
    """A value in all packets, (n,) float64. data: (n, length) uint8."""
    size = int(kind[1:]) // 8
    sign = "<" if order == "little" else ">"
    piece = np.ascontiguousarray(data[:, byte : byte + size])
    return np.asarray(piece.view(f"{sign}{kind[0]}{size}")[:, 0], np.float64)


def _texts(data: Array, free: Array) -> list[Guess]:
    """Runs of letters that end in a zero or at the end of the packet."""
    newest, found, start = data[-1], [], None
    is_letter = (newest >= 32) & (newest < 127)
    for place in range(len(newest) + 1):
        if place < len(newest) and is_letter[place]:
            if start is None and chr(newest[place]).isalnum():
                start = place
            continue
        if start is not None and place - start >= SHORTEST_TEXT and _is_word(newest[start:place]):
            ends = place
            while ends < len(newest) and newest[ends] == 0:
                ends += 1
            said = bytes(newest[start:place]).decode("ascii")
            found.append(Guess(start, "text", length=ends - start, now=said))
            free[start:ends] = False
        start = None
    return found


def _is_word(letters: Array) -> bool:
    """Whether most letters are those of words."""
    is_usual = np.isin(letters, np.frombuffer(b" -_.'", np.uint8))
    lower = letters | 32
    return bool(((lower >= 97) & (lower <= 122) | is_usual).mean() >= 0.8)


def _floats(data: Array, free: Array) -> list[Guess]:
    """Places whose bytes are a float of a handy size in every packet: aligned places first, others
    only if they change much.
    """
    length, found = data.shape[1], []
    for kind, step in (("f64", 4), ("f32", 4), ("f32", 2), ("f32", 1)):
        size = FLOATS[kind][0]
        for byte in range(0, length - size + 1, step):
            if not free[byte : byte + size].all():
                continue
            for order in ("little", "big"):
                if not _is_float(data, byte, kind, order):
                    continue
                if step < 4 and _spread(data, byte, kind, order) < SPREAD:
                    continue
                if kind == "f64" and not _is_long(data, byte, order):
                    continue
                found.append(Guess(byte, kind, order))
                free[byte : byte + size] = False
                break
    return found


def _spread(data: Array, byte: int, kind: str, order: str) -> float:
    """How much a value changes, as a share of its size."""
    values = column(data, byte, kind, order)
    return float((values.max() - values.min()) / np.abs(values).max())


def _is_long(data: Array, byte: int, order: str) -> bool:
    """Whether the second half of a long float's bits looks like one, and not like a value of its
    own: a short float or a count.
    """
    at = byte if order == "little" else byte + 4
    numbers = column(data, at, "u32", order)
    is_still = bool((numbers == numbers[0]).all())
    is_count = is_still or numbers.max() < 1 << 24
    return not is_count and not _is_float(data, at, "f32", order)


def _is_float(data: Array, byte: int, kind: str, order: str) -> bool:
    _, least, most = FLOATS[kind]
    values = column(data, byte, kind, order)
    with np.errstate(invalid="ignore"):
        sized = np.abs(values)
        is_handy = np.isfinite(values) & ((values == 0) | (sized >= least) & (sized <= most))
    return bool(is_handy.all() and values.any())


def _whole(data: Array, free: Array) -> list[Guess]:
    """Whole numbers among the bytes that are left and change: two bytes that move as one number,
    else one.
    """
    length = data.shape[1]
    moves = (data != data[0]).any(axis=0)
    found = []
    byte = 0
    while byte < length:
        if not (free[byte] and moves[byte]):
            byte += 1
            continue
        pair = _pair(data, byte, free, moves)
        found.append(pair or Guess(byte, "u8"))
        byte += 2 if pair else 1
    return found


def _pair(data: Array, byte: int, free: Array, moves: Array) -> Guess | None:
    """Two bytes as one number, if it moves more smoothly in one order than in the other."""
    if byte + 2 > data.shape[1] or not (free[byte + 1] and moves[byte + 1]):
        return None
    steps = {}
    for order in ("little", "big"):
        for kind in ("u16", "i16"):
            values = column(data, byte, kind, order)
            steps[kind, order] = float(np.abs(np.diff(values)).mean())
    kind, order = min(steps, key=lambda key: steps[key])
    other = steps["u16", "big" if order == "little" else "little"]
    is_one = steps[kind, order] * 4 < other and _carries(data, byte, kind, order)
    return Guess(byte, kind, order) if is_one else None


def _carries(data: Array, byte: int, kind: str, order: str) -> bool:
    """Whether two bytes are one number: the low one has many values, and where the high one
    changes, the number moves little.
    """
    low, high = (byte, byte + 1) if order == "little" else (byte + 1, byte)
    changes = np.diff(data[:, high].astype(int)) != 0
    moves = np.abs(np.diff(column(data, byte, kind, order)))[changes]
    return len(np.unique(data[:, low])) >= MANY and float(np.median(moves)) <= CARRY
