"""Talking with a lamp array: its lamps, and colours for them at the device's own rate."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Protocol

import numpy as np

from fendra.core.arrays import Array, Bytes
from fendra.lamps.reports import LampReports
from fendra.lamps.usages import COMPLETE, KEYS, KINDS, Purpose, Usage

MOST_LAMPS = 10_000


class HidDevice(Protocol):
    """A HID device that is open. Raises OSError if it is gone or refuses."""

    descriptor: bytes

    def get_feature(self, report: int, size: int) -> bytes:
        """A feature report, its number first; at most `size` bytes."""

    def set_feature(self, data: bytes) -> None:
        """Set a feature report; its number comes first."""

    def close(self) -> None:
        """Let go of it."""


@dataclass(frozen=True)
class Lamp:
    """A lamp as its device describes it.

    Attributes:
        id: its number on the device
        x_um: from the left of the device, micrometres
        y_um: from its top, towards the user, micrometres
        z_um: from its front, away from the viewer, micrometres
        purposes: what it is for
        latency_us: from an update to its light, microseconds
        levels: the most that red, green, blue and intensity can be
        is_programmable: whether its colour can be set, and not only its intensity
        key: the key that it lights, by its usage; 0 for none
    """

    id: int
    x_um: int
    y_um: int
    z_um: int
    purposes: Purpose
    latency_us: int
    levels: tuple[int, int, int, int]
    is_programmable: bool
    key: int

    @property
    def name(self) -> str:
        """The name of its key; empty if it lights none that is known."""
        return KEYS.get(self.key, "")


class LampArray:
    """A lamp array on an open device. Raises ValueError for a device that is none, OSError if it is
    gone.

    lamps: its lamps by id. size_um: width, height and depth of the box around them. kind: what it
    is. least_interval_us: from an update to the next.
    """

    def __init__(self, device: HidDevice) -> None:
        self.device = device
        self.reports = LampReports(device.descriptor)
        about = self._get(Usage.ATTRIBUTES_REPORT)
        (count,) = about[Usage.LAMP_COUNT]
        if not 0 < count <= MOST_LAMPS:
            raise ValueError(f"it has {count} lamps")
        width, height, depth = (
            about[usage][0] for usage in (Usage.WIDTH_UM, Usage.HEIGHT_UM, Usage.DEPTH_UM)
        )
        self.size_um = width, height, depth
        number = about.get(Usage.KIND, [0])[0]
        self.kind = KINDS[number] if number < len(KINDS) else "other"
        self.least_interval_us = about.get(Usage.LEAST_INTERVAL_US, [0])[0]
        self.lamps = [*self._lamps(count)]
        self._levels = np.array([lamp.levels for lamp in self.lamps], np.int64)
        self._can_colour = np.array([lamp.is_programmable for lamp in self.lamps])
        self._before: Array | None = None

    def _get(self, report: Usage) -> dict[Usage, list[int]]:
        data = self.device.get_feature(self.reports.number(report), self.reports.size(report))
        return self.reports.unpack(report, data)

    def _set(self, report: Usage, values: dict[Usage, list[int] | int]) -> None:
        self.device.set_feature(self.reports.pack(report, values))

    def _lamps(self, count: int) -> Iterator[Lamp]:
        """All lamps. A device goes on to the next lamp by itself; one that does not is asked."""
        self._set(Usage.REQUEST_REPORT, {Usage.LAMP_ID: 0})
        for number in range(count):
            told = self._get(Usage.RESPONSE_REPORT)
            if told[Usage.LAMP_ID] != [number]:
                self._set(Usage.REQUEST_REPORT, {Usage.LAMP_ID: number})
                told = self._get(Usage.RESPONSE_REPORT)
            if told[Usage.LAMP_ID] != [number]:
                raise ValueError(f"asked for lamp {number}, it tells of {told[Usage.LAMP_ID][0]}")
            yield _lamp(number, told)

    def take(self) -> None:
        """Take control: the device shows nothing of its own until `give_back`."""
        self._before = None
        self._set(Usage.CONTROL_REPORT, {Usage.AUTONOMOUS: 0})

    def give_back(self) -> None:
        """Give control back: the device shows its own light again."""
        self._set(Usage.CONTROL_REPORT, {Usage.AUTONOMOUS: 1})

    def show(self, rgb: Bytes) -> int:
        """Show a frame, (lamps, 3) uint8; return the number of reports. Nothing is sent if no lamp
        changes.
        """
        levels = self._in_levels(rgb)
        before = self._before
        changed = np.ones(len(levels), bool) if before is None else (levels != before).any(axis=1)
        updates = [*updates_of(levels, changed, self.reports.at_once)]
        for place, update in enumerate(updates):
            flags = COMPLETE if place == len(updates) - 1 else 0
            self._send(update, levels, flags)
        self._before = levels
        return len(updates)

    def _in_levels(self, rgb: Bytes) -> Array:
        """Bytes as levels of red, green, blue and intensity: (lamps, 4)."""
        lit = rgb.max(axis=1).astype(np.int64)
        share = np.where(self._can_colour, np.where(lit > 0, 255, 0), lit)
        values = np.concatenate([rgb.astype(np.int64), share[:, None]], axis=1)
        return (values * self._levels * 2 + 255) // 510  # to the nearest level

    def _send(self, update: range | list[int], levels: Array, flags: int) -> None:
        chosen = [*update]
        colours = levels[chosen].T.tolist()
        values: dict[Usage, list[int] | int] = {Usage.FLAGS: flags}
        channels = (Usage.RED, Usage.GREEN, Usage.BLUE, Usage.INTENSITY)
        if isinstance(update, range):
            values |= {Usage.FIRST_ID: update[0], Usage.LAST_ID: update[-1]}
            values |= {usage: each[0] for usage, each in zip(channels, colours, strict=True)}
            self._set(Usage.RANGE_REPORT, values)
            return
        values |= {Usage.LAMP_COUNT: len(chosen), Usage.LAMP_ID: chosen}
        values |= dict(zip(channels, colours, strict=True))
        self._set(Usage.MULTI_REPORT, values)


def _lamp(number: int, told: dict[Usage, list[int]]) -> Lamp:
    def one(usage: Usage, default: int = 0) -> int:
        return told.get(usage, [default])[0]

    red, green, blue, intensity = (
        one(usage, 255)
        for usage in (
            Usage.RED_LEVELS, Usage.GREEN_LEVELS, Usage.BLUE_LEVELS, Usage.INTENSITY_LEVELS,
        )
    )  # fmt: skip
    return Lamp(
        number, one(Usage.X_UM), one(Usage.Y_UM), one(Usage.Z_UM), Purpose(one(Usage.PURPOSES)),
        one(Usage.LATENCY_US), (red, green, blue, intensity),
        bool(one(Usage.IS_PROGRAMMABLE, 1)), one(Usage.INPUT_BINDING),
    )  # fmt: skip


def updates_of(levels: Array, changed: Array, at_once: int) -> Iterator[range | list[int]]:
    """The updates that a frame takes: ranges of lamps of one colour that are longer than a multi
    update, and lists of lamps for multi updates. Few reports are quick.

    levels: (lamps, 4). changed: which lamps have to be set. at_once: lamps of a multi update.

    >>> levels = np.array([[9, 0, 0, 1]] * 5 + [[0, 0, 9, 1], [0, 9, 0, 1]])
    >>> [*updates_of(levels, np.ones(7, bool), 3)]
    [range(0, 5), [5, 6]]
    """
    alone: list[int] = []
    count, start = len(levels), 0
    while start < count:
        end = start + 1
        while end < count and (levels[end] == levels[start]).all():
            end += 1
        wanted = np.flatnonzero(changed[start:end]) + start
        if len(wanted) > at_once:
            yield range(int(wanted[0]), int(wanted[-1]) + 1)
        else:
            alone += wanted.tolist()
        start = end
    for place in range(0, len(alone), at_once):
        yield alone[place : place + at_once]
