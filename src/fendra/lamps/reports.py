"""The six reports of a lamp array, packed and unpacked as its descriptor says."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TypeAlias

from fendra.lamps.descriptor import Field, read_descriptor
from fendra.lamps.usages import PAGE, Usage

REPORTS = (
    Usage.ATTRIBUTES_REPORT, Usage.REQUEST_REPORT, Usage.RESPONSE_REPORT, Usage.MULTI_REPORT,
    Usage.RANGE_REPORT, Usage.CONTROL_REPORT,
)  # fmt: skip
Values: TypeAlias = Mapping[Usage, Sequence[int] | int]


class LampReports:
    """The reports of a lamp array. Raises ValueError for a descriptor without all of them.

    at_once: how many lamps a multi update sets.
    """

    def __init__(self, descriptor: bytes) -> None:
        array = PAGE << 16 | Usage.LAMP_ARRAY
        fields = [
            each for each in read_descriptor(descriptor)
            if each.kind == "feature" and array in each.inside
        ]  # fmt: skip
        self._fields: dict[Usage, list[Field]] = {
            report: [each for each in fields if each.inside[-1] == PAGE << 16 | report]
            for report in REPORTS
        }
        missing = [report.name.lower() for report in REPORTS if not self._fields[report]]
        if missing:
            raise ValueError(f"it has no {missing[0].replace('_', ' ')} of a lamp array")
        self.at_once = self._count(Usage.MULTI_REPORT, Usage.LAMP_ID)
        if self.at_once < 1:
            raise ValueError("its multi update sets no lamp")

    def number(self, report: Usage) -> int:
        """A report's number."""
        return self._fields[report][0].report

    def size(self, report: Usage) -> int:
        """The bytes of a report, with its number."""
        last = self._fields[report][-1]
        return 1 + (last.bit + last.size + 7) // 8

    def _count(self, report: Usage, usage: Usage) -> int:
        return sum(each.usage == PAGE << 16 | usage for each in self._fields[report])

    def pack(self, report: Usage, values: Values) -> bytes:
        """A report's bytes, its number first. Values that are not given are 0. Raises ValueError
        for a value that does not fit.
        """
        held = bytearray(self.size(report))
        held[0] = self.number(report)
        counts: dict[int, int] = {}
        whole = 0
        for each in self._fields[report]:
            place = counts.get(each.usage, 0)
            counts[each.usage] = place + 1
            given = values.get(Usage(each.usage & 0xFFFF), 0) if each.usage >> 16 == PAGE else 0
            value = given if isinstance(given, int) else given[place] if place < len(given) else 0
            if not each.low <= value <= max(each.high, each.low):
                raise ValueError(f"{value} does not fit into {each.low} to {each.high}")
            whole |= (value & (1 << each.size) - 1) << each.bit
        held[1:] = whole.to_bytes(len(held) - 1, "little")
        return bytes(held)

    def unpack(self, report: Usage, data: bytes) -> dict[Usage, list[int]]:
        """The values of a report's bytes, number first. Raises ValueError if they are others."""
        if not data or data[0] != self.number(report) or len(data) < self.size(report):
            raise ValueError(f"these {len(data)} bytes are no {report.name.lower()}")
        whole = int.from_bytes(data[1:], "little")
        found: dict[Usage, list[int]] = {}
        for each in self._fields[report]:
            value = whole >> each.bit & (1 << each.size) - 1
            if each.low < 0 and value >> each.size - 1:
                value -= 1 << each.size
            if each.usage >> 16 == PAGE and each.usage & 0xFFFF in Usage._value2member_map_:
                found.setdefault(Usage(each.usage & 0xFFFF), []).append(value)
        return found


def is_lamp_array(descriptor: bytes) -> bool:
    """Whether a descriptor is one of a lamp array."""
    try:
        LampReports(descriptor)
    except ValueError:
        return False
    return True
