"""docs/cheat-sheet.html: one sheet of A4 for the workbench."""

from __future__ import annotations

import re
from html import escape

from fendra.core.catalogue.leds import LED_TYPES
from fendra.core.composition.blends import BLENDS
from fendra.core.effects import EFFECTS, FAMILIES
from fendra.core.language.vocabulary import FUNCTIONS
from fendra.core.shapes import SHAPES
from fendra.core.signals.kinds import KINDS

STYLE = """
@page { size: A4 landscape; margin: 8mm }
* { box-sizing: border-box }
body { margin: 0 auto; max-width: 281mm; color: #16181d; background: #fff;
       font: 8.2pt/1.36 system-ui, "Liberation Sans", Arial, sans-serif }
header { display: flex; align-items: baseline; gap: 4mm; border-bottom: 0.6mm solid #ff8a00; margin-bottom: 2.5mm }
h1 { font-size: 15pt; margin: 0 }
main { columns: 4; column-gap: 5mm }
section { break-inside: avoid; margin: 0 0 2.6mm }
h2 { font-size: 9.4pt; margin: 0 0 0.8mm; color: #b04a00 }
pre, code { font: 7.3pt/1.32 ui-monospace, "Liberation Mono", monospace }
pre { margin: 0; white-space: pre-wrap }
p { margin: 0 0 0.6mm }
table { border-collapse: collapse; width: 100% }
.line { padding-left: 2.5mm; text-indent: -2.5mm }
.line code { font-weight: 600 }
td { padding: 0 1.5mm 0.35mm 0; vertical-align: top }
td:first-child { white-space: nowrap }
@media screen { body { padding: 6mm } }
@media screen and (max-width: 800px) { main { columns: 1 } }
"""

DESIGN = """name = "Heron"
level = 0.6
[supplies.deck]
volts = 5
amps = 3
[[line]]            # parts in wire order
name = "tail"
pin = "D7"
led = "ws2812b"
supply = "deck"
[[line.part]]
name = "bar"
shape = "strip"
start = [-240, 0]   # mm, x right
end = [240, 0]
count = 30
[signals.brake]
range = [0, 1]
lost_after = 0.5
[[layer]]           # later ones on top
name = "brake light"
on = "bar"
effect = "solid"
colour = "red"
level = "0.3 + 0.7 * brake"
when = "brake > 0.05"
"""

CHOICE = {
    '"bar"': "a part, line, group or trail; `all`",
    '"hub-*"': "all names of that form",
    '"bar[0-9]"': "places; also keys[esc]",
    '"x < 0 and facing_back"': "a condition",
    '["a", "b"]': "both",
    '{ of = "all", without = "bar" }': "some, less others",
    "{ near = [0, 9], within = 80 }": "round a point",
}

TRAILS = {
    '{ of = "bar", by = "x" }': "from left to right",
    '{ of = "bar", by = "abs(x)" }': "from the middle outward",
    '{ join = ["-a", "b"] }': "a from its end, then b",
}

SIGNALS = {
    "range, calibrate, curve": "its scale",
    "smooth, average, slew, dead_band": "calm a number",
    "on_at, off_at, debounce, dwell, hold": "a number as a switch",
    "lost_after, fallback": "when news stops",
    "of": "computed from other signals",
    "source, pin": "where it comes from",
}

COMMANDS = {
    "new NAME --like drone": "begin a design",
    "check D --tape T": "what is wrong; currents",
    "map D --view front": "where each LED is",
    "film D --sweep rpm=0:6000:6s": "pictures of made-up values",
    "page D --tape T": "in the browser, one file",
    "explain D --tape T --at 8 --spot bar:4": "why an LED looks so",
    "compare D --vary KEY=1,2 --tape T": "one key, several values",
    "sheet D --tape T": "the build sheet",
    "probe D walk --to serial:PORT": "test the map",
    "listen D --from udp:9400 --learn": "see signals, learn ranges",
    "simulate game": "a stand-in that sends",
    "run D --to serial:PORT --page": "live",
    "emit D --tape T": "firmware",
    "effects NAME": "an effect in full",
}

LEVELS = {"0.1": "1.1 %", "0.3": "6.2 %", "0.5": "18 %", "0.7": "41 %", "0.9": "76 %"}


def page() -> str:
    """The sheet."""
    effects = {
        family: ", ".join(name for name in EFFECTS if EFFECTS[name].family == family)
        for family in FAMILIES
    }
    sections = [
        ("A design", f"<pre>{escape(DESIGN)}</pre>"),
        ("Units", "<p>mm (or <code>units = \"in\"</code>), degrees counter-clockwise, seconds, levels 0 to 1 as "
         "the eye sees them, colours <code>\"#ff8a00\"</code> or CSS names. A value in quotes is an expression.</p>"),
        ("Shapes", words(SHAPES)),
        (
            "Keys of every part",
            "<p><code>at turn tilt mirror on reverse facing skip parallel_to names leds_per_address off"
            "</code></p>",
        ),
        ("LED types", words(LED_TYPES)),
        ("Which LEDs: `on`, [groups]", lines(CHOICE)),
        ("In which order: [trails]", lines(TRAILS)),
        ("Signals: kind", words(KINDS)),
        ("Signals: keys", lines(SIGNALS)),
        (
            "Signals: pin, on a controller",
            "<p><code>switch analogue pulses servo knob matrix temperature</code></p>",
        ),
        ("Effects", rows({family: names for family, names in effects.items() if names})),
        ("Layers", "<p><code>on effect when level cover blend priority scene rhythm preset fade_in fade_out "
         "least_on hides_below canvas</code></p><p>blend: " + words(BLENDS)[3:]),
        ("Scenes", "<p><code>[[scene]] name when fade button</code>: the first whose condition holds. A layer "
         "names its <code>scene</code>.</p>"),
        ("Expressions", "<p><code>+ - * / // % &lt; &lt;= == != and or not a if c else b</code></p>"
         + words(FUNCTIONS)),
        ("In a layer", "<p><code>x y z along rank index address across up angle radius part line name "
         "facing_back ...</code></p>"),
        ("Level and light", "<p>" + ", ".join(f"{level} is {light}" for level, light in LEVELS.items()) + "</p>"),
        ("Commands: fendra ... (D design, T tape)", lines(COMMANDS)),
        ("Currents", "<p>WS2812B: 60 mA an LED at full white by the data sheet, often 35 to 45 mA measured, 1 mA "
         "dark. Supply at 80 %. 30 µs an LED on the wire. 5 V LEDs want 3.5 V data. Join all grounds.</p>"),
    ]  # fmt: skip
    body = "\n".join(
        f"<section><h2>{marked(title)}</h2>{text}</section>" for title, text in sections
    )
    return f"""<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Fendra on one sheet</title>
<style>{STYLE}</style>
<header><h1>Fendra on one sheet</h1><span>Light built into things. The page "The design file" has all keys. Print on A4, landscape.</span></header>
<main>
{body}
</main>
</html>
"""


def marked(text: str) -> str:
    """A text in which `this` is code."""
    return re.sub(r"`([^`]+)`", r"<code>\1</code>", escape(text, quote=False))


def words(names: object) -> str:
    """Names in a row."""
    return f"<p><code>{escape(' '.join(map(str, names)))}</code></p>"  # type: ignore[call-overload]


def rows(table: dict[str, str]) -> str:
    """A row for each key."""
    cells = "".join(
        f"<tr><td>{escape(key)}</td><td>{marked(value)}</td></tr>" for key, value in table.items()
    )
    return f"<table>{cells}</table>"


def lines(table: dict[str, str]) -> str:
    """A line for each piece of code, with what it is."""
    return "".join(
        f'<p class="line"><code>{escape(key)}</code> {marked(value)}</p>'
        for key, value in table.items()
    )
