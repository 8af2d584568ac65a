"""The bytes of the lines: a frame's colours in the order of each wire, in place."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fendra.core.engines.c99.draft import Draft
from fendra.core.engines.c99.names import Names
from fendra.core.engines.c99.text import comment
from fendra.core.layout.wire import Wire

_DARK = """static uint8_t *put_dark(uint8_t *to, PLACE count)
{
    for (; count > 0; count--) {
        *to++ = 0u;
    }
    return to;
}"""

_WHITE = """        uint8_t white = red < green ? red : green;
        white = white < blue ? white : blue;
        red = (uint8_t)(red - white);
        green = (uint8_t)(green - white);
        blue = (uint8_t)(blue - white);
"""


@dataclass(frozen=True)
class LinePlace:
    """Where the bytes of a line stand in a frame.

    field: its name in C. macro: the first part of its constants, `NAME_LINE`; NAME_LINE_AT is its
    first byte, NAME_LINE_BYTES how many there are. number: its place in the design.
    """

    line: str
    field: str
    macro: str
    number: int
    order: str
    at: int
    size: int


def line_bytes(draft: Draft) -> tuple[LinePlace, ...]:
    """The lines in the order of the design, one after the other."""
    names, at, found = Names([]), 0, []
    for wire in draft.plan.wires:
        field = names.take(wire.name)
        macro = f"{draft.name}_{field}".upper()
        found.append(LinePlace(wire.name, field, macro, wire.number, wire.order, at, wire.size))
        at += wire.size
    return tuple(found)


def frame_size(draft: Draft) -> int:
    """Bytes of a frame on all lines; of one without lines, three for each LED."""
    wires = draft.plan.wires
    return sum(wire.size for wire in wires) if wires else 3 * draft.plan.spot_count


def wire_helpers(draft: Draft) -> list[str]:
    """The functions that put colours into the order of a wire; only those that the lines need."""
    wires = _moving(draft)
    found = []
    for order in dict.fromkeys(wire.order for wire in wires):
        about = "Writes the colours of count LEDs in the order of the wire"
        white = ", with their common part as white" if "W" in order else ""
        found.append("\n".join([*comment(f"{about}{white}."), _put(order, draft.place)]))
    if any(stretch.is_dark for wire in wires for stretch in wire.stretches):
        dark = _DARK.replace("PLACE", draft.place)
        found.append("\n".join([*comment("Addresses without a visible LED."), dark]))
    return found


def to_wire(draft: Draft) -> list[str]:
    """The function that turns a frame's colours into the bytes of all lines."""
    wires = _moving(draft)
    if not wires:
        return []
    return [
        "\n".join(
            [
                *comment(
                    "Turns red, green and blue, at the end of bytes, into the bytes of the wires. "
                    "It reads each byte before it writes over it."
                ),
                f"static ON_ITS_OWN void to_wire(uint8_t bytes[{draft.size}])",
                "{",
                f"    const uint8_t *rgb = bytes + {draft.rgb_at};",
                "    uint8_t *to = bytes;",
                *_calls(draft, wires),
                "}",
            ]
        )
    ]


def to_wire_call(draft: Draft) -> list[str]:
    """The call of it."""
    return ["    to_wire(bytes);"] if _moving(draft) else []


def _moving(draft: Draft) -> Sequence[Wire]:
    """All lines, unless all bytes stand where they should already."""
    wires = draft.plan.wires
    is_done = all(
        wire.order == "RGB" and not any(stretch.is_dark for stretch in wire.stretches)
        for wire in wires
    )
    return () if is_done else wires


def _calls(draft: Draft, wires: Sequence[Wire]) -> list[str]:
    calls = []
    for wire in wires:
        calls += comment(draft.about(("line", wire.number)), "    ")
        for stretch in wire.stretches:
            if stretch.is_dark:
                calls.append(f"to = put_dark(to, {stretch.count * len(wire.order)});")
            else:
                calls.append(f"to = put_{wire.order.lower()}(to, rgb, {stretch.count});")
                calls.append(f"rgb += {3 * stretch.count};")
    while calls[-1].startswith("rgb"):  # nothing comes after it
        calls.pop()
    calls[-1] = calls[-1].removeprefix("to = ").replace("put", "(void)put", 1)
    return [call if call.startswith(" ") else f"    {call}" for call in calls]


def _put(order: str, place: str) -> str:
    words = {"R": "red", "G": "green", "B": "blue", "W": "white"}
    const = "" if "W" in order else "const "
    return "\n".join(
        [
            f"static uint8_t *put_{order.lower()}(uint8_t *to, const uint8_t *rgb, {place} count)",
            "{",
            "    for (; count > 0; count--) {",
            f"        {const}uint8_t red = rgb[0], green = rgb[1], blue = rgb[2];",
            *(_WHITE.rstrip("\n").split("\n") if "W" in order else []),
            *(f"        to[{i}] = {words[letter]};" for i, letter in enumerate(order)),
            f"        to += {len(order)};",
            "        rgb += 3;",
            "    }",
            "    return to;",
            "}",
        ]
    )
