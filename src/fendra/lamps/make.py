"""The report descriptor of a lamp array of one's own (HID Usage Tables 1.4, section 26)."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.lamps.usages import PAGE, Usage

AT_ONCE = 8
"""Lamps of a multi update: its report has 51 bytes and goes through one packet of full speed."""
CONSTANT, DATA = 0x03, 0x02
"""A value that the computer reads only, and one that it can set; both variable."""
_APPLICATION, _LOGICAL = 0x01, 0x02


def lamp_descriptor(first: int = 1, at_once: int = AT_ONCE) -> bytes:
    """A descriptor with the six reports, numbered from `first`.

    >>> lamp_descriptor()[:8].hex(" ")
    '05 59 09 01 a1 01 85 01'
    """
    lamp_id = _values([Usage.LAMP_ID], 16, DATA)
    colours = [Usage.RED, Usage.GREEN, Usage.BLUE, Usage.INTENSITY]
    size_and_kind = [
        Usage.WIDTH_UM, Usage.HEIGHT_UM, Usage.DEPTH_UM, Usage.KIND, Usage.LEAST_INTERVAL_US,
    ]  # fmt: skip
    place = [Usage.X_UM, Usage.Y_UM, Usage.Z_UM, Usage.LATENCY_US, Usage.PURPOSES]
    levels = [
        Usage.RED_LEVELS, Usage.GREEN_LEVELS, Usage.BLUE_LEVELS, Usage.INTENSITY_LEVELS,
        Usage.IS_PROGRAMMABLE, Usage.INPUT_BINDING,
    ]  # fmt: skip
    reports = {
        Usage.ATTRIBUTES_REPORT: _values([Usage.LAMP_COUNT], 16, CONSTANT)
        + _values(size_and_kind, 32, CONSTANT),
        Usage.REQUEST_REPORT: lamp_id,
        Usage.RESPONSE_REPORT: lamp_id + _values(place, 32, DATA) + _values(levels, 8, DATA),
        Usage.MULTI_REPORT: _values([Usage.LAMP_COUNT, Usage.FLAGS], 8, DATA, most=8)
        + _values([Usage.LAMP_ID] * at_once, 16, DATA)
        + _values(colours * at_once, 8, DATA),
        Usage.RANGE_REPORT: _values([Usage.FLAGS], 8, DATA, most=8)
        + _values([Usage.FIRST_ID, Usage.LAST_ID], 16, DATA)
        + _values(colours, 8, DATA),
        Usage.CONTROL_REPORT: _values([Usage.AUTONOMOUS], 8, DATA, most=1),
    }
    inside = b"".join(
        _item(0x84, number) + _usage(report) + _item(0xA0, _LOGICAL) + content + b"\xc0"
        for number, (report, content) in enumerate(reports.items(), first)
    )
    return (
        _item(0x04, PAGE) + _usage(Usage.LAMP_ARRAY) + _item(0xA0, _APPLICATION) + inside + b"\xc0"
    )


def _item(tag: int, value: int) -> bytes:
    """A short item with its value, in as few bytes as hold it, sign included."""
    for code, size in ((1, 1), (2, 2), (3, 4)):
        if value < 1 << 8 * size - 1 or (tag not in (0x14, 0x24) and value < 1 << 8 * size):
            return bytes([tag | code]) + value.to_bytes(size, "little")
    raise ValueError(f"{value} does not fit into an item")


def _usage(usage: Usage) -> bytes:
    return _item(0x08, usage)


def _values(usages: Iterable[Usage], bits: int, flags: int, *, most: int | None = None) -> bytes:
    """A run of values of a size, from 0 on."""
    names = [*usages]
    high = (1 << (31 if bits == 32 else bits)) - 1 if most is None else most
    told = names[:1] if len({*names}) == 1 else names
    return (
        b"".join(map(_usage, told)) + _item(0x14, 0) + _item(0x24, high) + _item(0x74, bits)
        + _item(0x94, len(names)) + _item(0xB0, flags)
    )  # fmt: skip
