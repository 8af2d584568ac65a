"""Emitting: a recorded design as C99 that gives the same bytes as the preview.

The code allocates nothing, calls nothing but floorf, fabsf and sqrtf, and keeps all that it
remembers in one struct.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.electric.limiter import FULL
from fendra.core.engines.c99.count import Count, count
from fendra.core.engines.c99.draft import Draft, make_draft
from fendra.core.engines.c99.flash import read, target_macros
from fendra.core.engines.c99.header import header, signals_in_words
from fendra.core.engines.c99.helpers import helpers
from fendra.core.engines.c99.layers import Layers
from fendra.core.engines.c99.limit import limit_calls, limit_functions, limit_helpers
from fendra.core.engines.c99.mix import mix_calls, scene_functions
from fendra.core.engines.c99.names import Names
from fendra.core.engines.c99.step import step
from fendra.core.engines.c99.text import C_TYPES, comment, literal, statement, words
from fendra.core.engines.c99.wire import (
    LinePlace,
    frame_size,
    line_bytes,
    to_wire,
    to_wire_call,
    wire_helpers,
)
from fendra.core.graph.bounds import Bounds
from fendra.core.graph.ops import CHANNELS
from fendra.core.light.dither import BLUE_TAKES
from fendra.core.names import counted
from fendra.core.shown import as_table, brief

MOST_AT_ONCE = 64
"""Spots painted at a time, if whoever compiles says nothing else."""
MOST_AT_ONCE_8_BIT = 16
"""The same on 8-bit parts, which have 2 KB of memory."""


@dataclass(frozen=True)
class Emitted:
    """C99 for one design.

    name: of the header file, and the first part of every public name. header: the public side.
    source: the rest; it includes `NAME.h`. gains: the fields with the limiters' gains, in the order
    of the design's supplies. lines: where the bytes of each line are. fields: of the struct of
    signals, each with its unit and range in words, in the order of `Design.fed`. count: what the
    code consists of. cells: the field and C type of each memory cell. pictures: the field of each
    live picture.
    """

    name: str
    header: str
    source: str
    gains: tuple[str, ...]
    lines: tuple[LinePlace, ...]
    fields: Mapping[str, str]
    count: Count
    cells: Mapping[str, tuple[str, str]]
    pictures: Mapping[str, str]

    def __repr__(self) -> str:
        lines = [text.count("\n") for text in (self.header, self.source)]
        return brief(
            "Emitted", self.name, f"{self.name}.h {counted(lines[0], 'line')}",
            f"{self.name}.c {counted(lines[1], 'line')}", counted(self.count.leds, "LED"),
        )  # fmt: skip

    def _repr_markdown_(self) -> str:
        """Its inputs and sizes, in a notebook."""
        rows = self.fields.items()
        return as_table(f"{self.name}.h, {self.name}.c", ("signal", "range and unit"), rows)


def emit(plan: Plan) -> Emitted:
    """Write a plan as C99. The same design gives the same text."""
    with np.errstate(all="ignore"):  # rules are tried on values of any size
        return _emit(plan)


def _emit(plan: Plan) -> Emitted:
    draft = make_draft(plan)
    names = Names()
    names.hold([draft.name, *(f"paint_{slug}" for slug in draft.slugs.values())])
    names.hold([f"limit_{slug}" for slug in draft.limit_slugs.values()])
    layers = Layers(draft, names)
    functions = [layers.function(i, paint) for i, paint in enumerate(draft.lowered.painted)]
    limits = limit_functions(draft)
    stepping = step(draft, layers.tables)
    ends = [*limits, _frame(draft), *to_wire(draft), _init(draft), _step(draft)]
    body = "\n\n".join([stepping, *functions, _paint(draft), *ends])
    tables = [table.text for table in (*layers.tables, *layers.lists.values())]
    runs = [_run(draft), *layers.run_tables] if layers.run_tables else []
    small = [
        *helpers(words(body), draft.place, _bytes(draft)), *limit_helpers(draft),
        *_dither(draft), *wire_helpers(draft),
    ]  # fmt: skip
    head = _head(draft, words("\n".join([*tables, *runs, *small, body])))
    parts = [head, *tables, *runs, _light(draft), *small, body]
    counted_up = count(draft, layers, [*layers.tables, *layers.lists.values()])
    gains = tuple(f"{field}.gain" for field in draft.limits.values())
    kinds = draft.cell_kinds
    cells = {cell: (name, C_TYPES[kinds[cell]]) for cell, name in draft.cells.items()}
    source, lines = "\n\n".join(parts) + "\n", line_bytes(draft)
    return Emitted(
        draft.name,
        header(draft, lines, source),
        source,
        gains,
        lines,
        signals_in_words(draft),
        counted_up,
        cells,
        {name: f"now.{field}" for name, field in draft.pictures.items()},
    )


def _head(draft: Draft, used: set[str]) -> str:
    design = draft.design
    about = f" {design.about.rstrip('.')}." if design.about else ""
    leds = counted(draft.plan.spot_count, "LED")
    return "\n".join(
        [
            *comment(f"{design.name}.{about} Light for {leds}. {draft.made_from}"),
            *comment(
                "C99. It gives the same bytes as the preview, bit for bit, if float is IEEE 754 "
                "single precision and the compiler neither contracts nor reorders: "
                "-ffp-contract=off, and never -ffast-math."
            ),
            *(["#include <math.h>"] if used & _OF_MATH_H else []),
            "#include <stdbool.h>",
            "#include <stdint.h>",
            "#include <string.h>",
            "",
            f'#include "{draft.name}.h"',
            "",
            "#ifdef __FAST_MATH__",
            '#error "compile without -ffast-math"',
            "#endif",
            "#if defined(__clang__) || !defined(__GNUC__)",
            "#pragma STDC FP_CONTRACT OFF",
            "#endif",
            *target_macros(used),
        ]
    )


_OF_MATH_H = frozenset({"floorf", "fabsf", "sqrtf", "NAN", "INFINITY"})


def _run(draft: Draft) -> str:
    about = "LEDs in a row, from first to end - 1. place: the first one's place in its group."
    fields = f"    {draft.place} first, end, place;"
    taken = ", ".join(
        read(draft.place, f"runs[r].{name}") for name in ("first", "end", "place")
    )  # fmt: skip
    return "\n".join(
        [
            *comment(about), "struct run {", fields, "};", "",
            f"static inline struct run run_of(const struct run *runs, {draft.place} r)",
            "{",
            *statement(f"const struct run run = {{{taken}}};", "    "),
            "    return run;",
            "}",
        ]
    )  # fmt: skip


def _light(draft: Draft) -> str:
    most, few = (
        min(draft.plan.spot_count, at_once) for at_once in (MOST_AT_ONCE, MOST_AT_ONCE_8_BIT)
    )
    by_default = [f"#define AT_ONCE {most}"]
    if few < most:
        by_default = ["#ifdef __AVR__", f"#define AT_ONCE {few}", "#else", *by_default, "#endif"]
    return "\n".join(
        [
            *comment("How many LEDs are painted at a time: each takes 12 bytes of stack."),
            "#ifndef AT_ONCE",
            *by_default,
            "#endif",
            "",
            *comment("Linear light, 0 to 1, of the LEDs being painted."),
            "struct light {",
            *(f"    float {channel}[AT_ONCE];" for channel in CHANNELS),
            "};",
        ]
    )


def _paint(draft: Draft) -> str:
    dark = [channel for channel in CHANNELS if channel not in _covered(draft)]
    clearing = [
        f"    for ({draft.place} at = 0; at < end - first; at++) {{",
        *(f"        light->{channel}[at] = 0.0f;" for channel in dark),
        "    }",
    ]
    painting = mix_calls(draft)
    return "\n".join(
        [
            *scene_functions(draft),
            *comment("Paints the LEDs from first to end - 1, layer over layer."),
            f"static ON_ITS_OWN void paint(const struct {draft.name}_now *now,",
            f"    {draft.place} first, {draft.place} end, struct light *light)",
            "{",
            *([] if painting else ["    (void)now;"]),
            *(clearing if dark else []),
            *painting,
            "}",
        ]
    )


def _covered(draft: Draft) -> frozenset[str]:
    """The channels that the lowest layer gives to every LED in every frame."""
    if not draft.lowered.painted:
        return frozenset()
    paint = draft.lowered.painted[0]
    is_always = draft.graph.nodes[paint.on].op == "const"
    is_whole = len(draft.plan.spots[paint.space]) == draft.plan.spot_count
    is_alone = paint not in draft.lowered.mixed
    return frozenset(paint.results) if is_always and is_whole and is_alone else frozenset()


def _init(draft: Draft) -> str:
    starts = {
        field: literal(draft.cell_kinds[cell], draft.graph.start[cell]).text
        for cell, field in draft.cells.items()
        if draft.graph.start[cell]
    }
    return "\n".join(
        [
            f"void {draft.name}_init(struct {draft.name} *state)",
            "{",
            *comment("Everything not named here is 0 or false.", "    "),
            "    memset(state, 0, sizeof *state);",
            *(f"    state->{field} = {text};" for field, text in starts.items()),
            *(f"    state->{field}.gain = {FULL}u;" for field in draft.limits.values()),
            "}",
        ]
    )


def _bytes(draft: Draft) -> Bounds | None:
    """Between which values light times 255 lies before it is rounded."""
    found = draft.lowered.bytes
    if found is None or draft.plan.dither is None:
        return found
    return Bounds(found.low, found.high + 0.5)


def _frame(draft: Draft) -> str:
    name, place = draft.name, draft.place
    return "\n".join(
        [
            *comment("Makes the next frame: red, green and blue of every LED."),
            f"static ON_ITS_OWN void frame(struct {name} *state, "
            f"const struct {name}_signals *signals,",
            f"    uint32_t now_ms, uint8_t rgb[{draft.leds}][3])",
            "{",
            "    struct light light;",
            *(
                ["    const uint32_t dt_ms = state->has_begun ? now_ms - state->last_ms : 0u;"]
                if draft.limits
                else []
            ),
            "    advance(state, signals, now_ms);",
            "    const float full = state->now.master * 255.0f;",
            *(["    const uint32_t turn = state->now.turn;"] if draft.plan.dither else []),
            f"    for ({place} first = 0; first < {draft.leds}; first += AT_ONCE) {{",
            f"        const {place} end = earlier({draft.leds}, first + AT_ONCE);",
            "        paint(&state->now, first, end, &light);",
            f"        for ({place} i = first; i < end; i++) {{",
            *_to_bytes(draft),
            "        }",
            "    }",
            *limit_calls(draft),
            "}",
        ]
    )


def _to_bytes(draft: Draft) -> list[str]:
    """One LED's light as bytes: rounded, or up and down in turn."""
    if draft.plan.dither is None:
        return [
            f"            rgb[i][{c}] = to_byte(light.{channel}[i - first] * full);"
            for c, channel in enumerate(CHANNELS)
        ]
    lines = [
        f"            const float {channel} = light.{channel}[i - first] * full;"
        for channel in CHANNELS
    ]
    is_lit = " || ".join(f"{channel} >= 1.0f" for channel in CHANNELS)
    lines += [
        f"            const bool is_lit = {is_lit};",
        "            const uint32_t place = turn + (uint32_t)i;",
    ]
    for c, channel in enumerate(CHANNELS):
        place = f"place + {c}u" if c else "place"
        name = "dither_blue" if channel == "blue" else "dither"
        offset = f"is_lit ? {name}({place}) : 0.0f"
        lines.append(f"            rgb[i][{c}] = to_byte({channel} + ({offset}));")
    return lines


def _dither(draft: Draft) -> list[str]:
    """The offsets before rounding: `light.dither.offsets`, without tables."""
    if draft.plan.dither is None:
        return []
    frames = draft.plan.dither.frames
    about = "The dither: added to an LED's light before rounding, in each frame of a pattern."
    found = comment(about)
    for name, length in (("dither", frames), ("dither_blue", BLUE_TAKES * frames)):
        terms = [
            f"((place & {1 << bit}u) != 0u ? {value} : -{value})"
            for bit, value in enumerate(["0.25f", "0.125f", "0.0625f", "0.03125f"])
            if 1 << bit < length
        ]
        body = statement(f"return {' + '.join(terms)};", "    ")
        found += [f"static inline float {name}(uint32_t place)", "{", *body, "}", ""]
    return ["\n".join(found).rstrip()]


def _step(draft: Draft) -> str:
    name = draft.name
    is_same = frame_size(draft) == 3 * draft.plan.spot_count
    start = "bytes" if is_same else f"(bytes + {draft.rgb_at})"
    return "\n".join(
        [
            f"void {name}_step(struct {name} *state, const struct {name}_signals *signals,",
            f"    uint32_t now_ms, uint8_t bytes[{draft.size}])",
            "{",
            f"    frame(state, signals, now_ms, (uint8_t (*)[3]){start});",
            *to_wire_call(draft),
            "}",
        ]
    )
