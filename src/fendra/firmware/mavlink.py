"""The MAVLink that firmware reads: for each message its signals, in C."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from fendra.core.engines.c99.text import float_literal
from fendra.core.signals.autopilot import CHECKS, said_to
from fendra.core.signals.door import door_of
from fendra.firmware.doors import door_in_c

if TYPE_CHECKING:
    from collections.abc import Mapping

    from fendra.core.document.design import Design


@dataclass(frozen=True)
class Heard:
    """A signal of a message. at, type: where it is. unknown: its value while the autopilot does not
    know it. raw: the raw number, in C, from `there`; take: the number that the signal takes from
    it.
    """

    field: str
    at: int
    type: str
    unknown: tuple[int, ...]
    raw: str
    take: str


def heard_of(
    design: Design, controller: str | None, fields: Mapping[str, str]
) -> dict[tuple[int, int], list[Heard]]:
    """By message, and the byte that it adds to its checksum."""
    found: dict[tuple[int, int], list[Heard]] = {}
    for name, given, said in said_to(design, controller) if controller else ():
        raw = "(float)there"
        if said.mask:
            raw = f"(there & {said.mask}u) != 0u ? 1.0f : 0.0f"
        elif said.offset:
            raw = f"({raw} + {float_literal(said.offset)})"
        if said.scale != 1.0:
            raw = f"{raw} * {float_literal(said.scale)}"
        door = door_of(design.signals[name], given)
        before = f"signals->{fields[name]}.value"
        take = "raw" if door is None else door_in_c(door, "raw", before)
        message = (said.message, CHECKS[said.message])
        heard = Heard(fields[name], said.at, said.type, said.unknown, raw, take)
        found.setdefault(message, []).append(heard)
    return found
