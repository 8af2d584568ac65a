"""The MAVLink messages and fields of an autopilot that firmware reads from a serial port.

Places, types and units are those of the message set "common" (its fields in the order of the wire,
the longest types first); `check` is the byte that each message adds to its checksum. The names are
those of the source `mavlink`.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

from fendra.core.signals.inputs import pin_of, split_source
from fendra.core.signals.kinds import kind_of

if TYPE_CHECKING:
    from fendra.core.document.design import Design
    from fendra.core.document.signal import From

CHECKS = {0: 50, 1: 124, 24: 24, 30: 39, 65: 118, 74: 20}
"""Of HEARTBEAT, SYS_STATUS, GPS_RAW_INT, ATTITUDE, RC_CHANNELS and VFR_HUD, by their numbers."""
DEGREES = 57.29577951308232


@dataclass(frozen=True)
class Said:
    """Where a value is in a packet. message: its number. at, type: in its payload. scale, offset:
    the value is (raw + offset) * scale. unknown: the raw value that means "unknown". mask: of a
    flag.
    """

    message: int
    at: int
    type: str
    scale: float = 1.0
    offset: float = 0.0
    unknown: tuple[int, ...] = ()
    mask: int = 0


SAID = {
    "armed": Said(0, 6, "uint8_t", mask=128),
    "mode_number": Said(0, 0, "uint32_t"),
    "roll": Said(30, 4, "float", DEGREES),
    "pitch": Said(30, 8, "float", DEGREES),
    "yaw": Said(30, 12, "float", DEGREES),
    "airspeed": Said(74, 0, "float"),
    "speed": Said(74, 4, "float"),
    "altitude": Said(74, 8, "float"),
    "climb": Said(74, 12, "float"),
    "throttle": Said(74, 18, "uint16_t", 0.01),
    "volts": Said(1, 14, "uint16_t", 0.001, unknown=(65_535,)),
    "amps": Said(1, 16, "int16_t", 0.01, unknown=(-1,)),
    "left": Said(1, 30, "int8_t", 0.01, unknown=(-1,)),
    "satellites": Said(24, 29, "uint8_t", unknown=(255,)),
    "rssi": Said(65, 41, "uint8_t", 1 / 254, unknown=(255,)),
    **{
        f"stick_{n}": Said(65, 2 + 2 * n, "uint16_t", 1 / 500, -1500.0, unknown=(0, 65_535))
        for n in range(1, 19)
    },
}
"""By name."""


def said_to(design: Design, controller: str) -> Iterator[tuple[str, From, Said]]:
    """The signals that a controller receives from an autopilot, each with its input and place."""
    given = design.controllers[controller].mavlink
    if given is None:
        return
    for name, signal in design.signals.items():
        if signal.of is not None or pin_of(signal) is not None or kind_of(signal).is_list:
            continue
        for each in signal.sources:
            source, own = split_source(each.name)
            said = SAID.get(own or name)
            is_here = not source or (
                source in design.sources and design.sources[source].type == "mavlink"
            )
            if said is not None and is_here:
                yield name, each, said
                break
