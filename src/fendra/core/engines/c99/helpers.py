"""The small functions that the emitted code calls; only those that it does."""

from __future__ import annotations

from fendra.core.engines.c99.flash import read
from fendra.core.engines.c99.tables import SMALLEST_INT
from fendra.core.engines.c99.text import comment, float_literal
from fendra.core.engines.c99.tiny import QUOTIENT
from fendra.core.graph.bounds import Bounds
from fendra.core.graph.ops import LARGEST

_CHOICE = """static inline {type} {name}({type} a, {type} b)
{{
    return a {sign} b ? a : b;
}}"""

_TO_BYTE = {
    "any": """static inline uint8_t to_byte(float light)
{
    float byte = light + 0.5f;
    byte = byte > 0.0f ? byte : 0.0f;
    byte = byte < 255.0f ? byte : 255.0f;
    return (uint8_t)(int)byte;
}""",
    "bright": """static inline uint8_t to_byte(float light)
{
    const int byte = (int)(light + 0.5f);
    return (uint8_t)(byte < 255 ? byte : 255);
}""",
    "byte": """static inline uint8_t to_byte(float light)
{
    return (uint8_t)(int)(light + 0.5f);
}""",
}
"""All give the same for what they are for: light that may be anything, no number included; light
that is never below 0 and fits into an int; light that is never above full."""

_CLAMP = """static inline float clamp(float x, float low, float high)
{
    const float a = x > low ? x : low;
    return a < high ? a : high;
}"""

_TAKEN = f"""static ON_ITS_OWN float taken(float value)
{{
    const float most = {float_literal(LARGEST)};
    if (value > most) {{
        return most;
    }}
    return value >= -most ? value : value < 0.0f ? -most : 0.0f;
}}"""

_IS_NEWS = """static ON_ITS_OWN bool is_news(bool is_new, float value)
{
    return is_new && fabsf(value) <= 3.4e38f;
}"""

_HIGH = """static inline uint32_t high_word(uint32_t a, uint32_t b)
{
    return (uint32_t)(((uint64_t)a * b) >> 32);
}"""

_SHOWN = """static inline float of_picture(const float (*picture)[3], {place} i, int channel)
{{
    return picture ? picture[i][channel] : 0.0f;
}}"""

_FROM = """static inline {place} from_{type}(const {type} *leds, {place} count, {place} first)
{{
    {place} low = 0, high = count;
    while (low < high) {{
        const {place} middle = low + (high - low) / 2;
        if ({at} < first) {{
            low = middle + 1;
        }} else {{
            high = middle;
        }}
    }}
    return low;
}}"""


def helpers(used: set[str], place: str, light: Bounds | None) -> list[str]:
    """The text of each helper whose name is among the words used.

    light: between which values all light lies, times 255.
    """
    choices = {
        "smaller": ("float", "<"), "larger": ("float", ">"),
        "earlier": (place, "<"), "later": (place, ">"),
    }  # fmt: skip
    texts = {
        name: _CHOICE.format(name=name, type=c_type, sign=sign)
        for name, (c_type, sign) in choices.items()
    }
    texts["clamp"] = _CLAMP
    about = comment("A value that arrived, limited to -1e9 to 1e9; NaN becomes 0.")
    texts["taken"] = "\n".join([*about, _TAKEN])
    about = comment("Whether a value arrived and is a finite number.")
    texts["is_news"] = "\n".join([*about, _IS_NEWS])
    texts["high_word"] = _HIGH
    texts["of_picture"] = "\n".join([*comment("A live picture; black if there is none."),
                                _SHOWN.format(place=place)])  # fmt: skip
    about = comment("a / b. avr-libc rounds twice below the smallest normal float.")
    texts["quotient"] = "\n".join([*about, QUOTIENT])
    texts["to_byte"] = _to_byte(light)
    about = comment("The place of the first LED that is not below first; leds ascend.")
    for c_type in ("uint8_t", "int16_t", "int32_t"):
        at = read(c_type, "leds[middle]")
        texts[f"from_{c_type}"] = "\n".join(
            [*about, _FROM.format(type=c_type, place=place, at=at)]
        )  # fmt: skip
    return [text for name, text in texts.items() if name in used]


def _to_byte(light: Bounds | None) -> str:
    if light is None or not light.is_positive or light.high >= SMALLEST_INT:
        about, text = "NaN is dark.", _TO_BYTE["any"]
    elif light.high + 0.5 >= 256:
        about, text = f"Here all light is between 0 and {light.high:.4g}.", _TO_BYTE["bright"]
    else:
        about, text = f"Here all light is between 0 and {light.high:.4g}.", _TO_BYTE["byte"]
    return "\n".join([*comment(f"Light times 255 as a byte, rounded. {about}"), text])
