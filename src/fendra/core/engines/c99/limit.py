"""The limiter in C: the same whole numbers as in `fendra.core.electric.limiter`."""

from __future__ import annotations

from fendra.core.catalogue.leds import MICRO
from fendra.core.electric.limiter import FULL, RELEASE, RELEASE_MS, REST_MS, Limit
from fendra.core.electric.loads import BYTE, Span
from fendra.core.engines.c99.draft import Draft
from fendra.core.engines.c99.text import comment

_DRAW = """struct draw {
    uint64_t sum, slack;
};"""

_ADD = """static void add_draw(struct draw *draw, uint8_t rgb[][3], PLACE first, PLACE end,
    const uint32_t ua[3])
{
    for (int c = 0; c < 3; c++) {
        uint32_t sum = 0u, lit = 0u;
        for (PLACE i = first; i < end; i++) {
            sum += rgb[i][c];
            lit += rgb[i][c] > 0u;
        }
        draw->sum += (uint64_t)READ_U32(ua[c]) * sum;
        draw->slack += (uint64_t)READ_U32(ua[c]) * lit;
    }
}"""

_ADD_WHITE = """static void add_white_draw(struct draw *draw, uint8_t rgb[][3], PLACE first,
    PLACE end, const uint32_t ua[4])
{
    uint32_t sum[4] = {0u, 0u, 0u, 0u}, lit[4] = {0u, 0u, 0u, 0u};
    for (PLACE i = first; i < end; i++) {
        uint8_t white = rgb[i][0] < rgb[i][1] ? rgb[i][0] : rgb[i][1];
        white = white < rgb[i][2] ? white : rgb[i][2];
        for (int c = 0; c < 3; c++) {
            sum[c] += (uint32_t)(rgb[i][c] - white);
            lit[c] += rgb[i][c] > white;
        }
        sum[3] += white;
        lit[3] += white > 0u;
    }
    for (int c = 0; c < 4; c++) {
        draw->sum += (uint64_t)READ_U32(ua[c]) * sum[c];
        draw->slack += 2u * ((uint64_t)READ_U32(ua[c]) * lit[c]);
    }
}"""

_GAIN = f"""static void follow(struct NAME_limit *limit, const struct draw *draw, uint64_t most,
    uint32_t dt_ms)
{{
    uint32_t highest = {FULL}u;
    if (draw->sum > most) {{
        const uint64_t room = 2u * most > draw->slack ? 2u * most - draw->slack : 0u;
        highest = (uint32_t)(room * {FULL}u / (2u * draw->sum));
    }}
    if (highest <= limit->gain) {{
        limit->gain = highest;
        limit->rest_ms = {REST_MS}u;
    }} else if (dt_ms < limit->rest_ms) {{
        limit->rest_ms -= dt_ms;
    }} else {{
        const uint32_t freely_ms = dt_ms - limit->rest_ms;
        const uint32_t grown = freely_ms < {RELEASE_MS}u ? {RELEASE}u * freely_ms : {FULL}u;
        limit->gain = limit->gain + grown < highest ? limit->gain + grown : highest;
        limit->rest_ms = 0u;
    }}
}}"""

_SCALE = f"""static void scale(uint8_t rgb[][3], PLACE first, PLACE end, uint32_t gain)
{{
    for (PLACE i = first; i < end; i++) {{
        for (int c = 0; c < 3; c++) {{
            rgb[i][c] = (uint8_t)((rgb[i][c] * gain + {FULL // 2}u) >> 16);
        }}
    }}
}}"""


def limit_helpers(draft: Draft) -> list[str]:
    """The functions that limits call; nothing if the design has none."""
    limits = draft.plan.limits
    if not limits:
        return []
    spans = [span for limit in limits for span in limit.spans]
    about = "The current of the light, in microamperes times 255, and how much rounding may add."
    texts = ["\n".join([*comment(about), _DRAW])]
    plain = "Adds the current of LEDs first to end - 1. ua: microamperes of a full channel."
    white = "The same for LEDs with a white channel, which takes the common part of the others."
    if any(not span.has_white for span in spans):
        texts.append("\n".join([*comment(plain), _ADD]))
    if any(span.has_white for span in spans):
        texts.append("\n".join([*comment(white), _ADD_WHITE]))
    gain = "The gain falls at once to the highest that the budget allows, waits, and rises again."
    texts.append("\n".join([*comment(gain), _GAIN]))
    texts.append("\n".join([*comment("Scales all channels alike, to keep the hues."), _SCALE]))
    return [text.replace("PLACE", draft.place).replace("NAME", draft.name) for text in texts]


def limit_functions(draft: Draft) -> list[str]:
    """A function for each budget."""
    return [_function(draft, limit) for limit in draft.plan.limits]


def limit_calls(draft: Draft) -> list[str]:
    """The calls of those functions, after a frame's bytes are made."""
    return [
        f"    limit_{draft.limit_slugs[limit.supply]}(state, dt_ms, rgb);"
        for limit in draft.plan.limits
    ]


def _function(draft: Draft, limit: Limit) -> str:
    state = f"state->{draft.limits[limit.supply]}"
    most_a = limit.most / BYTE * MICRO
    about = draft.about(("supplies", limit.supply))
    body, known = [], list(dict.fromkeys(span.ua for span in limit.spans))
    for i, ua in enumerate(known):
        values = ", ".join(f"{each}u" for each in ua)
        body.append(f"    static const uint32_t ua_{i}[{len(ua)}] IN_FLASH = {{{values}}};")
    body.append("    struct draw draw = {0u, 0u};")
    for span in limit.spans:
        add = "add_white_draw" if span.has_white else "add_draw"
        table = f"ua_{known.index(span.ua)}"
        body.append(f"    {add}(&draw, rgb, {span.first}, {span.end}, {table});")
    return "\n".join(
        [
            *comment(f"{about}: the light may draw {most_a:.4g} A, on top of the dark LEDs."),
            f"static ON_ITS_OWN void limit_{draft.limit_slugs[limit.supply]}(",
            f"    struct {draft.name} *state, uint32_t dt_ms, uint8_t rgb[{draft.leds}][3])",
            "{",
            *body,
            f"    follow(&{state}, &draw, {limit.most}u, dt_ms);",
            f"    if ({state}.gain < {FULL}u) {{",
            *(
                f"        scale(rgb, {first}, {end}, {state}.gain);"
                for first, end in _rows(limit.spans)
            ),
            "    }",
            "}",
        ]
    )


def _rows(spans: tuple[Span, ...]) -> list[tuple[int, int]]:
    """Where spans begin and end; spans in a row count as one."""
    rows: list[tuple[int, int]] = []
    for span in spans:
        if rows and rows[-1][1] == span.first:
            rows[-1] = (rows[-1][0], span.end)
        else:
            rows.append((span.first, span.end))
    return rows
