"""On and off at random."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    chance,
    colour,
    effect,
    floor,
    maximum,
    mix,
    number,
    pick,
    select,
    to_uint,
)

MOST = 8
"""Flames that go by themselves at most."""


@effect(family="chance")
def flicker(
    led: Led,
    colour: Value = colour("#ffb060", "of the light"),
    ember: Value = colour("#ff4000", "colour that it takes now and then"),
    warmth: Value = number(0.6, "", 0.0, 1.0, "how far it takes the ember's colour, at most"),
    on_low: Value = number(0.04, "s", 0.001, 60.0, "shortest time on"),
    on_high: Value = number(0.25, "s", 0.001, 60.0, "longest time on"),
    off_low: Value = number(0.02, "s", 0.001, 60.0, "shortest time off"),
    off_high: Value = number(0.12, "s", 0.001, 60.0, "longest time off"),
    low: Value = number(0.25, "", 0.0, 1.0, "coverage while off"),
    flames: Value = number(8.0, "", 1.0, 8.0, "flames of their own; each LED belongs to one"),
    seed: Value = number(1.0, "", 0.0, 1e6, "another seed gives other times"),
) -> Look:
    """Random times on, random times off, and random warmth: fire, candles, a loose contact, damage.

    One flame flickers all LEDs together; with more, each LED belongs to one of them by chance. The
    same seed gives the same flicker from power-up on. `flames` is a whole number.
    """
    count = MOST if flames.number is None else int(flames.number)
    key = led.uint(seed)
    covers, warmths = [], []
    for flame in range(count):
        cover, mood = _flame(led, flame, key, (on_low, on_high), (off_low, off_high), low)
        covers.append(cover)
        warmths.append(mood)
    mine = floor(chance(led.number, key, 77) * maximum(floor(flames), 1.0))
    led.label(mine=mine)
    return Look(mix(colour, ember, pick(warmths, mine) * warmth), pick(covers, mine))


def _flame(
    led: Led, flame: int, seed: Value, on_s: tuple[Value, Value], off_s: tuple[Value, Value],
    low: Value,
) -> tuple[Value, Value]:  # fmt: skip
    """One flame: its coverage, and its warmth from 0 to 1.

    It has a counter, odd while it is on, and the milliseconds until the counter rises. Time left
    over counts for the next stretch, so that frames do not make it longer.
    """
    found: dict[str, Value] = {}

    def following(left_ms: Value) -> Value:
        is_over = led.first | ~led.apply("uint_less", led.dt_ms, left_ms)
        turn = led.remembered(
            0, lambda turn: led.apply("uint_add", turn, led.apply("uint_select", is_over, 1, 0)),
            whole=True,
        )  # fmt: skip
        is_on = led.apply("uint_less", 0, led.apply("uint_mod", turn, 2))
        by_chance = chance(turn, seed, flame)
        shortest, longest = select(is_on, on_s[0], off_s[0]), select(is_on, on_s[1], off_s[1])
        new_ms = to_uint(maximum(mix(shortest, longest, by_chance) * 1000.0, 1.0))
        over_ms = led.apply("uint_sub", led.dt_ms, left_ms)  # how late it is
        over_ms = led.apply("uint_select", led.apply("uint_less", over_ms, new_ms), over_ms, 0)
        found["cover"] = select(is_on, 1.0, low)
        found["mood"] = chance(turn, seed, flame, 5)
        return led.apply(
            "uint_select", is_over, led.apply("uint_sub", new_ms, over_ms),
            led.apply("uint_sub", left_ms, led.dt_ms),
        )  # fmt: skip

    led.remembered(0, following, whole=True)
    return found["cover"], found["mood"]
