"""A lit screen in a dark room."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    chance,
    clamp,
    colour,
    effect,
    mix,
    number,
    smooth,
)

CUT = 0.12
"""The share of a shot in which its light changes to the light of the next."""


@effect(family="chance")
def screen_glow(
    led: Led,
    cold: Value = colour("#8fb4ff", "of shots by night"),
    warm: Value = colour("#ffd9a8", "of shots by day"),
    rate: Value = number(0.5, "Hz", 0.0, 20.0, "shots a second"),
    depth: Value = number(0.8, "", 0.0, 1.0, "how dark the darkest shot is"),
    shimmer: Value = number(0.15, "", 0.0, 1.0, "how much the light moves within a shot"),
    seed: Value = number(1.0, "", 0.0, 1e6, "another seed gives other shots"),
) -> Look:
    """The light of a screen that nobody sees: shots of one brightness and tint, cut one to the
    next, with a little motion in each: a model house, a stage, an empty cockpit. The same seed
    gives the same shots.
    """
    shot, into = led.turns(rate)
    before = led.apply("uint_sub", shot, 1)
    key = led.uint(seed)
    change = smooth(clamp(into * (1.0 / CUT)))
    light = mix(chance(before, key, 1), chance(shot, key, 1), change)
    tint = mix(chance(before, key, 2), chance(shot, key, 2), change)
    beat, share = led.turns(rate * 5.0)
    next_beat = led.apply("uint_add", beat, 1)
    motion = mix(chance(beat, key, 3), chance(next_beat, key, 3), smooth(share)) - 0.5
    led.label(light=light, tint=tint, motion=motion)
    cover = clamp(1.0 - depth * light + shimmer * motion)
    return Look(mix(cold, warm, tint), cover)
