"""Emitting: a recorded design as C99 that gives the same bytes as the preview.

The code allocates nothing, calls nothing but floorf, fabsf and sqrtf, and keeps all that it
remembers in one struct.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from fendra.core.electric.limiter import FULL
from fendra.core.graph.c99.count import Count, count
from fendra.core.graph.c99.flash import read, target_macros
from fendra.core.graph.c99.header import header, signals_in_words
from fendra.core.graph.c99.helpers import helpers
from fendra.core.graph.c99.layers import Layers
from fendra.core.graph.c99.limit import limit_calls, limit_functions, limit_helpers
from fendra.core.graph.c99.mix import mix_calls, scene_functions
from fendra.core.graph.c99.names import Names
from fendra.core.graph.c99.scene import Scene, make_scene
from fendra.core.graph.c99.step import step
from fendra.core.graph.c99.text import C_TYPES, comment, literal, statement, words
from fendra.core.graph.c99.wire import (
    LineBytes,
    frame_size,
    line_bytes,
    to_wire,
    to_wire_call,
    wire_helpers,
)
from fendra.core.graph.ops import CHANNELS
from fendra.core.names import counted

if TYPE_CHECKING:
    from fendra.core.design import Design
    from fendra.core.mix import Recording

MOST_AT_ONCE = 64
"""Spots painted at a time, if whoever compiles says nothing else."""
MOST_AT_ONCE_8_BIT = 16
"""The same on 8-bit parts, which have 2 KB of memory."""


@dataclass(frozen=True)
class Emitted:
    """C99 for one design.

    name: of the header file, and the first part of every public name. header: the public side.
    source: the rest; it includes `NAME.h`. gains: the fields that say what the limiters let
    through, in the order of the design's supplies. lines: where the bytes of each line stand.
    fields: of the struct of signals, each with its unit and range in words, in the order of
    `Design.fed`. count: what the code consists of. cells: of each memory cell its field and C type.
    """

    name: str
    header: str
    source: str
    gains: tuple[str, ...]
    lines: tuple[LineBytes, ...]
    fields: Mapping[str, str]
    count: Count
    cells: Mapping[str, tuple[str, str]]


def emit(design: Design, recording: Recording) -> Emitted:
    """Write a design as C99. The same design gives the same text."""
    with np.errstate(all="ignore"):  # rules are tried on values of any size
        return _emit(design, recording)


def _emit(design: Design, recording: Recording) -> Emitted:
    scene = make_scene(design, recording)
    names = Names()
    names.hold([scene.name, *(f"paint_{slug}" for slug in scene.slugs.values())])
    names.hold([f"limit_{slug}" for slug in scene.limit_slugs.values()])
    layers = Layers(scene, names)
    functions = [layers.function(i, paint) for i, paint in enumerate(scene.lowered.paints)]
    limits = limit_functions(scene)
    stepping = step(scene, layers.tables)
    ends = [*limits, _frame(scene), *to_wire(scene), _init(scene), _step(scene)]
    body = "\n\n".join([stepping, *functions, _paint(scene), *ends])
    tables = [table.text for table in (*layers.tables, *layers.lists.values())]
    runs = [_run(scene), *layers.run_tables] if layers.run_tables else []
    small = [
        *helpers(words(body), scene.place, scene.lowered.bytes), *limit_helpers(scene),
        *wire_helpers(scene),
    ]  # fmt: skip
    head = _head(scene, words("\n".join([*tables, *runs, *small, body])))
    parts = [head, *tables, *runs, _light(scene), *small, body]
    counted_up = count(scene, layers, [*layers.tables, *layers.lists.values()])
    gains = tuple(f"{field}.gain" for field in scene.limits.values())
    kinds = scene.cell_kinds
    cells = {cell: (name, C_TYPES[kinds[cell]]) for cell, name in scene.cells.items()}
    source, lines = "\n\n".join(parts) + "\n", line_bytes(scene)
    return Emitted(
        scene.name,
        header(scene, lines, source),
        source,
        gains,
        lines,
        signals_in_words(scene),
        counted_up,
        cells,
    )


def _head(scene: Scene, used: set[str]) -> str:
    design = scene.design
    about = f" {design.about.rstrip('.')}." if design.about else ""
    leds = counted(scene.recording.spot_count, "LED")
    return "\n".join(
        [
            *comment(f"{design.name}.{about} Light for {leds}. {scene.made_from}"),
            *comment(
                "C99. It gives the bytes of the preview, bit for bit, where float is IEEE 754 "
                "single precision and the compiler neither contracts nor reorders: "
                "-ffp-contract=off, and never -ffast-math."
            ),
            *(["#include <math.h>"] if used & _OF_MATH_H else []),
            "#include <stdbool.h>",
            "#include <stdint.h>",
            "#include <string.h>",
            "",
            f'#include "{scene.name}.h"',
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


def _run(scene: Scene) -> str:
    about = "LEDs in a row, from first up to end. place: of the first one in its group."
    fields = f"    {scene.place} first, end, place;"
    taken = ", ".join(
        read(scene.place, f"runs[r].{name}") for name in ("first", "end", "place")
    )  # fmt: skip
    return "\n".join(
        [
            *comment(about), "struct run {", fields, "};", "",
            f"static inline struct run run_of(const struct run *runs, {scene.place} r)",
            "{",
            *statement(f"const struct run run = {{{taken}}};", "    "),
            "    return run;",
            "}",
        ]
    )  # fmt: skip


def _light(scene: Scene) -> str:
    most, few = (
        min(scene.recording.spot_count, at_once) for at_once in (MOST_AT_ONCE, MOST_AT_ONCE_8_BIT)
    )
    by_default = [f"#define AT_ONCE {most}"]
    if few < most:
        by_default = ["#ifdef __AVR__", f"#define AT_ONCE {few}", "#else", *by_default, "#endif"]
    return "\n".join(
        [
            *comment("LEDs painted at a time: 12 bytes of stack each."),
            "#ifndef AT_ONCE",
            *by_default,
            "#endif",
            "",
            *comment("Linear light, 0 to 1, of the LEDs that are being painted."),
            "struct light {",
            *(f"    float {channel}[AT_ONCE];" for channel in CHANNELS),
            "};",
        ]
    )


def _paint(scene: Scene) -> str:
    dark = [channel for channel in CHANNELS if channel not in _covered(scene)]
    clearing = [
        f"    for ({scene.place} at = 0; at < end - first; at++) {{",
        *(f"        light->{channel}[at] = 0.0f;" for channel in dark),
        "    }",
    ]
    painting = mix_calls(scene)
    return "\n".join(
        [
            *scene_functions(scene),
            *comment("The light of the LEDs from first up to end, layer over layer."),
            f"static ON_ITS_OWN void paint(const struct {scene.name}_now *now,",
            f"    {scene.place} first, {scene.place} end, struct light *light)",
            "{",
            *([] if painting else ["    (void)now;"]),
            *(clearing if dark else []),
            *painting,
            "}",
        ]
    )


def _covered(scene: Scene) -> frozenset[str]:
    """The channels that the lowest layer gives to every LED in every frame."""
    if not scene.lowered.paints:
        return frozenset()
    paint = scene.lowered.paints[0]
    is_always = scene.graph.nodes[paint.on].op == "const"
    is_whole = len(scene.recording.spots[paint.slot.space]) == scene.recording.spot_count
    is_alone = paint.slot.scenes is None and 0 not in scene.recording.mixed
    return frozenset(paint.results) if is_always and is_whole and is_alone else frozenset()


def _init(scene: Scene) -> str:
    starts = {
        field: literal(scene.cell_kinds[cell], scene.graph.start[cell]).text
        for cell, field in scene.cells.items()
        if scene.graph.start[cell]
    }
    return "\n".join(
        [
            f"void {scene.name}_init(struct {scene.name} *state)",
            "{",
            *comment("All that is not named is 0 or false.", "    "),
            "    memset(state, 0, sizeof *state);",
            *(f"    state->{field} = {text};" for field, text in starts.items()),
            *(f"    state->{field}.gain = {FULL}u;" for field in scene.limits.values()),
            "}",
        ]
    )


def _frame(scene: Scene) -> str:
    name, place = scene.name, scene.place
    return "\n".join(
        [
            *comment("The next frame, as red, green and blue of every LED."),
            f"static ON_ITS_OWN void frame(struct {name} *state, "
            f"const struct {name}_signals *signals,",
            f"    uint32_t now_ms, uint8_t rgb[{scene.leds}][3])",
            "{",
            "    struct light light;",
            *(
                ["    const uint32_t dt_ms = state->has_begun ? now_ms - state->last_ms : 0u;"]
                if scene.limits
                else []
            ),
            "    advance(state, signals, now_ms);",
            "    const float full = state->now.master * 255.0f;",
            f"    for ({place} first = 0; first < {scene.leds}; first += AT_ONCE) {{",
            f"        const {place} end = earlier({scene.leds}, first + AT_ONCE);",
            "        paint(&state->now, first, end, &light);",
            f"        for ({place} i = first; i < end; i++) {{",
            *(
                f"            rgb[i][{c}] = to_byte(light.{channel}[i - first] * full);"
                for c, channel in enumerate(CHANNELS)
            ),
            "        }",
            "    }",
            *limit_calls(scene),
            "}",
        ]
    )


def _step(scene: Scene) -> str:
    name = scene.name
    is_same = frame_size(scene) == 3 * scene.recording.spot_count
    start = "bytes" if is_same else f"(bytes + {scene.rgb_at})"
    return "\n".join(
        [
            f"void {name}_step(struct {name} *state, const struct {name}_signals *signals,",
            f"    uint32_t now_ms, uint8_t bytes[{scene.size}])",
            "{",
            f"    frame(state, signals, now_ms, (uint8_t (*)[3]){start});",
            *to_wire_call(scene),
            "}",
        ]
    )
