"""The public side: the signals, the memory, and the two functions."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from zlib import crc32

from fendra.core.engines.c99.draft import Draft
from fendra.core.engines.c99.text import C_TYPES, comment, remark, without_comments
from fendra.core.engines.c99.wire import LinePlace, frame_size
from fendra.core.graph.ops import Kind
from fendra.core.names import counted
from fendra.core.signals.inputs import fed
from fendra.core.signals.kinds import kind_of
from fendra.core.version import VERSION


def header(draft: Draft, lines: Sequence[LinePlace], source: str) -> str:
    """The text of the header file. lines: where their bytes are. source: the code that it opens."""
    name, guard = draft.name, f"{draft.name.upper()}_H"
    count = counted(draft.plan.spot_count, "LED")
    text = [
        *comment(f"{draft.design.name}: light for {count}. {draft.made_from}"),
        f"#ifndef {guard}",
        f"#define {guard}",
        "",
        "#include <stdbool.h>",
        "#include <stdint.h>",
        "",
        "#ifdef __cplusplus",
        'extern "C" {',
        "#endif",
        "",
        *comment("Fendra's version, and a number for the light: same number, same light."),
        f'#define {name.upper()}_FENDRA_VERSION "{VERSION}"',
        f"#define {name.upper()}_DESIGN_HASH 0x{light_hash(source):08x}u",
        "",
        f"#define {draft.leds} {draft.plan.spot_count}",
        f"#define {name.upper()}_SIGNALS {len(draft.signals)}",
        "",
        *_lines(draft, lines),
        *comment("One signal: its newest value, and whether it arrived since the last frame."),
        f"struct {name}_signal {{",
        "    float value;",
        "    bool is_new;",
        "};",
        "",
        *comment(
            "The signals. A value stays until a newer one arrives. Values are limited to -1e9 to "
            "1e9; NaN and infinity are ignored."
        ),
        f"struct {name}_signals {{",
        *_signals(draft),
        "};",
        "",
        *comment("Numbers of the current frame that the layers read."),
        f"struct {name}_now {{",
        *_now(draft),
        "};",
        "",
        *_limit(draft),
        *comment("Everything that is kept from frame to frame."),
        f"struct {name} {{",
        *_memory(draft),
        f"    struct {name}_now now;",
        "};",
        "",
        *comment("Sets the state as after power-up. Call it before the first frame."),
        f"void {name}_init(struct {name} *state);",
        "",
        *comment(
            "Makes the next frame: the bytes of all lines. now_ms counts milliseconds and may "
            "wrap; two frames must be less than 49 days apart."
        ),
        f"void {name}_step(struct {name} *state, const struct {name}_signals *signals,",
        f"    uint32_t now_ms, uint8_t bytes[{draft.size}]);",
        "",
        "#ifdef __cplusplus",
        "}",
        "#endif",
        "",
        "#endif",
    ]
    return "\n".join(text) + "\n"


def light_hash(source: str) -> int:
    """32 bits that differ if the light differs: of the code without its comments."""
    return crc32(without_comments(source).encode())


def _lines(draft: Draft, lines: Sequence[LinePlace]) -> list[str]:
    """Where the bytes of each line are."""
    text = []
    if lines:
        text += comment(
            "Where the bytes of each line begin in a frame, and how many there are: pixel after "
            "pixel from data-in, in the order of the wire."
        )
    for line in lines:
        text += [f"#define {line.macro}_AT {line.at}", f"#define {line.macro}_BYTES {line.size}"]
    return [*text, f"#define {draft.size} {frame_size(draft)}", ""]


def signals_in_words(draft: Draft) -> dict[str, str]:
    """The field of every signal, with its unit and range."""
    signals, names = draft.design.signals, fed(draft.design)
    return {
        field: kind_of(signals[names[part]]).in_c(signals[names[part]])
        for part, field in draft.signals.items()
    }  # fmt: skip


def _signals(draft: Draft) -> list[str]:
    if not draft.signals:
        return ["    bool none; /* this design takes no signals */"]
    rows = []
    for field, (count, about) in grouped(signals_in_words(draft)).items():
        array = f"[{count}]" if count else ""
        row = f"    struct {draft.name}_signal {field}{array};"
        rows.append(f"{row:<40} {remark(about)}" if about else row)
    return rows


def grouped(fields: Mapping[str, str]) -> dict[str, tuple[int, str]]:
    """Fields as they are declared: each with how many numbers an array has, else 0, and in words.

    >>> grouped({"a": "V", "b[0]": "", "b[1]": ""})
    {'a': (0, 'V'), 'b': (2, '')}
    """
    found: dict[str, tuple[int, str]] = {}
    for field, about in fields.items():
        name, bracket, _ = field.partition("[")
        found[name] = (found.get(name, (0, ""))[0] + bool(bracket), about)
    return found


def _now(draft: Draft) -> list[str]:
    nodes = draft.graph.nodes
    fields = [f"    {C_TYPES[nodes[place].kind]} {field};" for place, field in draft.fields.items()]
    turn = [] if draft.lowered.turn is None else ["    uint32_t turn;"]
    return [*_pictures(draft), "    float master;", *turn, *fields]


def _pictures(draft: Draft) -> list[str]:
    """The fields for the light of live pictures; without one the field stays NULL."""
    if not draft.pictures:
        return []
    about = "Live pictures: the linear light of every LED, red, green, blue. Black until it is set."
    rows = [f"    const float (*{field})[3];" for field in draft.pictures.values()]
    return [*comment(about, "    "), *rows]


def _limit(draft: Draft) -> list[str]:
    if not draft.limits:
        return []
    about = (
        "A limiter: the share of light that it lets through, of 65536, and how long it stays there."
    )
    fields = "    uint32_t gain, rest_ms;"
    return [*comment(about), f"struct {draft.name}_limit {{", fields, "};", ""]


def _memory(draft: Draft) -> list[str]:
    """Numbers first, truth values after them: so no room is lost between."""
    kinds = draft.cell_kinds
    numbers = [cell for cell in draft.cells if kinds[cell] is not Kind.TRUTH]
    truths = [cell for cell in draft.cells if kinds[cell] is Kind.TRUTH]
    return [
        "    uint32_t last_ms;",
        *(f"    {C_TYPES[kinds[cell]]} {draft.cells[cell]};" for cell in numbers),
        *(f"    struct {draft.name}_limit {field};" for field in draft.limits.values()),
        "    bool has_begun;",
        *(f"    bool {draft.cells[cell]};" for cell in truths),
    ]
