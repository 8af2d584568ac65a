"""Mistakes that makers make in a design: one message each, at its line, with a cure that works."""

from __future__ import annotations

import re

import pytest

from fendra.core.findings import Finding, Severity
from fendra.files.design_file import check_text

DESIGN = """fendra = 1
name = "Heron"

[controllers.hub]
type = "rp2040"
about = "under the seat"

[supplies.deck]
volts = 5
amps = 6

[[line]]
name = "tail"
pin = "GP6"
led = "ws2812b"
order = "GRB"
supply = "deck"
level_shifter = true
controller = "hub"

[[line.part]]
name = "tail-bar"
shape = "strip"
count = 30
start = [-440, -620, 300]
end = [440, -620, 300]
facing = "back"

[[line.part]]
name = "hub-ring"
shape = "ring"
count = 12
centre = [0, 100, 40]
radius = 30

[groups]
tail-left = "part == 'tail-bar' and x < -120"

[trails]
tail-out = { of = "part == 'tail-bar'", by = "abs(x)" }

[signals.brake]
range = [0, 1]
smooth = 0.05
lost_after = 0.5
fallback = 0

[signals.left]
kind = "switch"
hold = 0.8

[signals.speed]
range = [0, 25]
unit = "km/h"

[[layer]]
name = "running"
on = "hub-ring"
effect = "gradient"
colours = ["#200000", "darkred"]

[[layer]]
name = "brake light"
on = "tail-bar"
effect = "solid"
colour = "red"
level = "0.3 + 0.7 * brake"

[[layer]]
name = "turn left"
on = "tail-left"
effect = "fill"
colour = "#ff7a00"
when = "left"
fade_in = 0.1

[[layer]]
name = "pace"
on = "hub-ring"
effect = "gauge"
value = "speed / 25"
colours = ["green", "orange"]
"""
TAIL = '[[line.part]]\nname = "tail-bar"'
RUNNING = '[[layer]]\nname = "running"'
BRAKE = "[signals.brake]\nrange = [0, 1]\nsmooth = 0.05\nlost_after = 0.5\nfallback = 0\n"
LEVEL = 'level = "0.3 + 0.7 * brake"'

MISTAKES = [
    # Tables.
    ("[[line]]", "[line]", "Write [[line]]."),
    (TAIL, TAIL.replace("[[line.part]]", "[line.part]"), "Write [[line.part]]."),
    (TAIL, TAIL.replace("part]]", "parts]]"), "Write [[line.part]]."),
    (RUNNING, RUNNING.replace("[[layer]]", "[layer]"), "Write [[layer]]."),
    (RUNNING, RUNNING.replace("layer", "layers"), "Write [[layer]]."),
    ("[[line]]", "[[lines]]", "Write [[line]]."),
    ("[signals.brake]", "[signal.brake]", "Write [signals.brake]."),
    ("[signals.brake]", "[[signals.brake]]", "Write [signals.brake]."),
    ("[groups]", "[group]", "Write [groups]."),
    ("[signals.left]", "[signals.left", "Write: [signals.left]"),
    ("[signals.left]", "[signals.brake]", "appears twice at line 42.", "[signals.brake]\nkind"),
    ("[signals.brake]", "[signals.brake light]", "Write: [signals.brake_light]"),
    ("[signals.speed]", "[signals.wheel-speed]", "Write: [signals.wheel_speed]"),
    ("[signals.speed]", "[signals.x]", "Give the signal another name."),
    # What TOML is.
    ("count = 30", "count: 30", "Write: count = 30"),
    ("count = 30", '"count": 30,', "Write: count = 30"),
    ("count = 30", "count = 30;", "Write: count = 30"),
    ("count = 30", "count = 30,", "Write: count = 30"),
    ("count = 30", "count\u00a0= 30", "Write: count = 30"),
    ("count = 30", "count = 30 // LEDs", "Write: count = 30 # LEDs"),
    ("count = 30", "count = 30\ncount = 31", "`count` is already on line 24."),
    ("radius = 30", "radius 30", "Write: radius = 30"),
    ("radius = 30", "radius =", "Write one after the ="),
    ("radius = 30", "radius = 30mm", "Write: radius = 30"),
    ("[groups]", "// which LEDs\n[groups]", "Write: # which LEDs"),
    ('name = "tail-bar"', "name = “tail-bar”", 'Write: name = "tail-bar"'),
    ('name = "hub-ring"', 'name = "hub-ring', 'Write: name = "hub-ring"'),
    ('name = "hub-ring"', "name = 'hub-ring\"", "Write: name = 'hub-ring'"),
    ('when = "left"', "when = “left”", 'Write: when = "left"'),
    ('when = "left"', "when = False", "Write: when = false"),
    ('when = "left"', "when = yes", "Write: when = true"),
    ('when = "left"', "when = left", 'Write: when = "left"'),
    ('colour = "red"', "colour = red", 'Write: colour = "red"'),
    (LEVEL, "level = 0.3 + 0.7 * brake", f"Write: {LEVEL}"),
    ("end = [440, -620, 300]", "end = [440, -620, 300", "Write: end = [440, -620, 300]"),
    ('about = "under the seat"', 'about = "C:\\new\\users"', "Write: about = 'C:\\new\\users'"),
    ("smooth = 0.05", "smooth = 0,05", "Write: smooth = 0.05"),
    ("hold = 0.8", "hold = .8", "Write: hold = 0.8"),
    ("hold = 0.8", "hold = 1.", "Write: hold = 1"),
    ("hold = 0.8", "hold = 80ms", "Write: hold = 0.08"),
    ("fallback = 0", "fallback = 50%", "Write: fallback = 0.5"),
    ("fallback = 0", "fallback = null", "Remove the line to use the default."),
    ('["green", "orange"]', "green, orange", 'Write: colours = ["green", "orange"]'),
    ('["green", "orange"]', '"green", "orange"', 'Write: colours = ["green", "orange"]'),
    ('["green", "orange"]', '"green, orange"', 'Write ["green", "orange"].'),
    # Values.
    ("fendra = 1", "fendra = 2", "for a newer Fendra"),
    ("fendra = 1", 'fendra = "1"', "Write: fendra = 1"),
    ("count = 30", 'count = "30"', "Write: count = 30"),
    ("count = 30", "count = 30.0", "Write: count = 30"),
    ("count = 30", "count = 30.5", "this must be a whole number; you wrote 30.5."),
    ("count = 30", "count = 0", "Give it a count of 1 or more."),
    ("count = 30", "count = -3", "Write a number of at least 1."),
    ("count = 30", "leds = 30", "there is no key 'leds' here."),
    ('pin = "GP6"', "pin = 6", 'this must be a text; you wrote 6. Write its name in quotes'),
    ("start = [-440, -620, 300]", "start = [-440]", "there are too few values here."),
    ("[-440, -620, 300]", '"-440, -620, 300"', "Write: start = [-440, -620, 300]"),
    ("[-440, -620, 300]", '["-44cm", -620, 300]', "Write: -440"),
    ("radius = 30", 'radius = "30 mm"', "Write: radius = 30"),
    ("centre = [0, 100, 40]", "center = [0, 100, 40]", "Did you mean 'centre'?"),
    ("smooth = 0.05", 'smooth = "0.05s"', "Write: smooth = 0.05"),
    ("smooth = 0.05", 'smooth = "0,05"', "Write: smooth = 0.05"),
    ("smooth = 0.05", "smooth = -0.05", "Write a number of at least 0."),
    ("hold = 0.8", 'hold = "0.8s"', "Write: hold = 0.8"),
    ("hold = 0.8", 'hold = "0.8"', "Write: hold = 0.8"),
    ("lost_after = 0.5", 'lost_after = "500 ms"', "Write: lost_after = 0.5"),
    ('kind = "switch"', 'type = "switch"', 'Write: kind = "switch"'),
    ("range = [0, 25]", "min = 0\nmax = 25", "Write: range = [0, 25]"),
    ("hold = 0.8", 'fallback = "on"', 'Write: fallback = true'),
    ("[supplies.deck]", "[[supplies]]", "Write [supplies.NAME]."),
    ('when = "left"', 'when = "lost brake"', "Write: lost(brake)"),
    (LEVEL, 'level = "0.3 + 0.7 * brake;"', "Write: 0.3 + 0.7 * brake"),
    (LEVEL, 'level = "30% + 70% * brake"', "Write: 0.3 + 0.7 * brake"),
    (LEVEL, 'level = "if left then 1 else brake"', "Write: 1 if left else brake"),
    ('effect = "fill"', 'effects = "fill"', "Did you mean 'effect'?"),
    (LEVEL, 'level = "0.3 + 0.7 * hold(left, 450ms)"', "Write: 0.3 + 0.7 * hold(left, 0.45)"),
    ('when = "left"', 'when = "left and speed > 2.5 km/h"', "Write: left and speed > 2.5"),
    ('when = "left"', 'when = "speed < 5% and left"', "Write: speed < 0.05 and left"),
    ("x < -120", 'part != "hub-ring"', "Write: tail-left = \"part == 'tail-bar' and part != 'hub-ring'\""),
    ("volts = 5\namps = 6", 'battery = { volts = 12, ah = "2600mAh" }\nconverter = { amps = 6 }',
     "ah = 2.6"),
    ("count = 30", "count = thirty", "Write one, as in: count = 30"),
    ("lost_after = 0.5", 'lost_after = "1,5 min"', "Write: lost_after = 90"),
    ("fade_in = 0.1", 'fade_in = "100ms"', "Write: fade_in = 0.1"),
    ("fade_in = 0.1", "fade = 0.1", "Did you mean 'fade_in'?"),
    ("range = [0, 25]", 'range = "0-25"', "Write: range = [0, 25]"),
    ("range = [0, 25]", "range = [25, 0]", "Write the lower value first."),
    ("volts = 5", 'volts = "5V"', "Write: volts = 5"),
    ("amps = 6", 'amps = "600mA"', "Write: amps = 0.6"),
    ("volts = 5", "volts = 12", "use a supply of 5 V", 'supply = "deck"'),
    ('unit = "km/h"', 'units = "km/h"', "Did you mean 'unit'?"),
    ('order = "GRB"', 'order = "grb"', 'Write: order = "GRB"'),
    ('facing = "back"', 'facing = "Back"', "Did you mean 'back'?"),
    ('facing = "back"', 'facing = "rear"', 'down, front, in, left, out, right or up; you wrote "rear".'),
    ('kind = "switch"', 'kind = "bool"', 'Write: kind = "switch"'),
    (LEVEL, "level = 255", "It goes from 0 to 1."),
    ('when = "left"', 'when = "left"\nempty = "no"', "Write false, without quotes.", 'empty = "no"'),
    # Names.
    ('type = "rp2040"', 'type = "RP-2040"', "Did you mean 'rp2040'?"),
    ('type = "rp2040"', 'type = "esp32s2"', "The types are: atmega2560,"),
    ('led = "ws2812b"', 'led = "WS2812"', "Did you mean 'ws2812b'?"),
    ('led = "ws2812b"', 'led = "ws2813"', "The types are: apa102,"),
    ('shape = "strip"', 'shape = "stripe"', "Did you mean 'strip'?", TAIL),
    ('shape = "ring"', 'shape = "circle"', "The shapes are: arc,", '[[line.part]]\nname = "hub-ring"'),
    ('effect = "gauge"', 'effect = "guage"', "Did you mean 'gauge'?"),
    ('effect = "gauge"\n', "", 'Add it, as in: effect = "solid"', '[[layer]]\nname = "pace"'),
    ('on = "hub-ring"', 'on = "hub-rng"', "Did you mean 'hub-ring'?"),
    ('on = "hub-ring"', 'on = "hub-ring, tail-bar"', 'Write ["hub-ring", "tail-bar"].'),
    ('on = "hub-ring"\n', "", 'Add it, as in: on = "all"', RUNNING),
    ('supply = "deck"', 'supply = "dek"', "Did you mean 'deck'?"),
    ('name = "hub-ring"', 'name = "tail-bar"', "Give this part a name of its own.", 'name = "tail-bar"\nshape = "ring"'),
    ('value = "speed / 25"', 'value = "speed / 25"\nspeed = 2', "The parameters are: by_value,", "speed = 2"),
    ("fade_in = 0.1", 'scene = "night"', "there is no scene 'night'."),
    ("fade_in = 0.1", 'blend = "screen"', 'multiply or over; you wrote "screen".'),
    # Colours.
    ('"#ff7a00"', '"ff7a00"', 'Write "#ff7a00".'),
    ('"#ff7a00"', '"0xff7a00"', 'Write "#ff7a00".'),
    ('"#ff7a00"', '"255, 122, 0"', 'Write "#ff7a00".'),
    ('"#ff7a00"', "[255, 122, 0]", 'Write "#ff7a00".'),
    ('"#ff7a00"', '"#ff7a00ff"', 'Write "#ff7a00".'),
    ('"#ff7a00"', '"#ff7a0"', "After # come three or six digits"),
    ('colour = "red"', 'colour = "redd"', "Did you mean 'red'?"),
    ('colour = "red"', 'colour = "turbo"', 'Write "#rrggbb", or a CSS name'),
    ('colour = "red"', 'colour = "mix(red, white, brake)"', "Write: mix('red', 'white', brake)"),
    ('colour = "red"', 'colour = "white if left else red"', "Write: 'white' if left else 'red'"),
    ('colour = "red"', 'color = "red"', "Did you mean 'colour'?"),
    # Expressions.
    (BRAKE, "", "Declare it: [signals.brake].", LEVEL),
    ("0.7 * brake", "0.7 * brak", "Did you mean 'brake'?"),
    ('when = "left"', 'when = "right"', "Declare it: [signals.right]."),
    ('when = "left"', 'when = "left = 1"', "Write: left == 1"),
    ('when = "left"', 'when = "left && brake > 0.5"', "Write: left and brake > 0.5"),
    ('when = "left"', 'when = "left || brake > 0.5"', "Write: left or brake > 0.5"),
    ('when = "left"', 'when = "left AND brake > 0.5"', "Write: left and brake > 0.5"),
    ('when = "left"', 'when = "!left"', "Write: not left"),
    ('when = "left"', 'when = "left == false"', "Write False; a switch is a condition by itself"),
    ('when = "left"', 'when = "brake"', "Write: brake > 0.5"),
    ('when = "left"', 'when = "x > 0"', "each LED has its own x"),
    ('when = "left"', 'when = ""', "Write one, or leave it out."),
    ("0.3 + 0.7 * brake", "0,3 + 0,7 * brake", "Write: 0.3 + 0.7 * brake"),
    ("0.3 + 0.7 * brake", "0.3 + 0.7brake", "Write: 0.3 + 0.7 * brake"),
    ("0.3 + 0.7 * brake", "(0.3 + 0.7 * brake", "each ( needs its )"),
    ("0.3 + 0.7 * brake", "brake > 0.5 ? 1 : 0.3", "Write: 1 if brake > 0.5 else 0.3"),
    ("0.3 + 0.7 * brake", "brake ** 2", "for a square write x * x"),
    ("0.3 + 0.7 * brake", "sin(brake)", "Did you mean 'sine'?"),
    ("0.3 + 0.7 * brake", "clamp(brake)", "clamp takes 3 values; you wrote 1."),
    ("part == 'tail-bar' and", "part = 'tail-bar' and", "Write: part == 'tail-bar' and x < -120"),
    ("part == 'tail-bar' and", "part == ‘tail-bar’ and", "Write: part == 'tail-bar' and x < -120"),
    ("part == 'tail-bar' and", "part == tail-bar and", "Write: part == 'tail-bar'"),
    ("part == 'tail-bar' and", "part == 'tailbar' and", "Did you mean 'tail-bar'?"),
    ("and x < -120", "and xx < -120", "Did you mean 'x'?"),
    ("and x < -120", "and x =< -120", "Write: part == 'tail-bar' and x <= -120"),
    ("and x < -120", "and |x| => 120", "Write: part == 'tail-bar' and abs(x) >= 120"),
    ("part == 'tail-bar' and", "part in ('hub-ring', 'tail-bar') and",
     "Write: (part == 'hub-ring' or part == 'tail-bar')"),
    ("{ of = ", "{ on = ", "The keys are:"),
    ("x < -120", "x < -1200", "Compare with `fendra map`."),
]  # fmt: skip


@pytest.mark.parametrize("case", MISTAKES, ids=lambda case: repr(case[1])[1:50])
def test_a_mistake_has_one_message_at_its_line_with_the_cure(case: tuple[str, ...]) -> None:
    """Line and cure are those that a maker needs; what follows from a mistake is not told."""
    was, now, cure, *at = case
    text = DESIGN.replace(was, now, 1)
    finding, *others = check_text(text, "heron.toml").findings
    assert not others, others
    assert cure in f"{finding.message} {finding.remedy}"
    faulty = at[0] if at else now
    line = text[: text.index(faulty)].count("\n") + 1
    assert finding.line in range(line, line + 1 + (0 if at else faulty.count("\n")))
    if finding.severity is Severity.ERROR:
        shown = text.split("\n")[finding.line - 1].strip()
        assert finding.excerpt.split("\n")[0].strip() in shown
    assert not re.search(r"Value error|Input should|valid_|pydantic", f"{finding}")


@pytest.mark.parametrize(
    "case", [case for case in MISTAKES if "Write" in case[2]], ids=lambda case: repr(case[1])[1:50]
)
def test_what_a_message_says_to_write_mends_the_mistake(case: tuple[str, ...]) -> None:
    """Pasted in place of what was wrong, it leaves a design that reads."""
    text = DESIGN.replace(case[0], case[1], 1)
    [finding] = check_text(text, "heron.toml").findings
    mended = _pasted(text, finding)
    if mended is None:
        pytest.skip("the remedy says what to do in words")
    left = check_text(mended, "heron.toml").findings
    errors = [each for each in left if each.severity is Severity.ERROR]
    assert not [each for each in errors if each.line == finding.line], left


def _pasted(text: str, finding: Finding) -> str | None:
    """The text with the remedy in place of what it is about."""
    lines = text.split("\n")
    line = lines[(finding.line or 1) - 1]
    written = re.search(r"Write:? (.+)$", f"{finding.message} {finding.remedy}")
    assert written is not None
    better = written[1]
    if re.fullmatch(
        r"its name.*|one,.*|[A-Z].*|a number.*|one .*|the lower.*|\"#rrggbb.*|false, .*|False.*",
        better,
    ):
        return None
    if re.match(r"\[\[?[a-z]", better) or re.match(r"[\w-]+ = |# ", better):
        new = better.removesuffix(".") if better.startswith("[") else better
    elif better.startswith(('"', "[")):
        new = f"{line.split('=')[0]}= {better.removesuffix('.')}"
    elif "\n" in finding.excerpt:
        wrong = finding.excerpt.split("\n")[0].strip()
        if better.startswith("part == ") and " and " not in better:
            wrong = "part == tail-bar"
        new = line.replace(wrong, better)
    else:
        new = re.sub(r'"-44cm"', better, line)
    lines[(finding.line or 1) - 1] = new
    return "\n".join(lines)


def test_a_byte_order_mark_is_no_mistake() -> None:
    """Some editors write one; nothing is said of it."""
    assert not check_text(f"\ufeff{DESIGN}", "heron.toml").findings


def test_two_mistakes_have_two_messages() -> None:
    """One does not hide the other."""
    text = DESIGN.replace('"red"', '"redd"').replace("count = 12", "count = 12.5")
    found = check_text(text, "heron.toml").findings
    assert [(each.line, each.severity) for each in found] == [(32, "error"), (66, "error")]
