"""A turn indicator."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    maximum,
    mix,
    nearest,
    number,
    reached,
    select,
)


@effect(family="direction")
def turn(
    led: Led,
    colour: Value = colour("#ff7a00", "of the indicator"),
    steer: Value = number(0.0, "", 0.0, 1.0, "how hard you steer"),
    rate: Value = number(1.5, "Hz", 0.5, 10.0, "flashes a second, straight ahead"),
    rate_hard: Value = number(1.5, "Hz", 0.5, 10.0, "flashes a second at full lock"),
    length: Value = number(1.0, "", 0.0, 1.0, "share of the trail that it fills, straight ahead"),
    length_hard: Value = number(1.0, "", 0.0, 1.0, "share that it fills at full lock"),
    run: Value = number(0.2, "s", 0.0, 5.0, "time in which it fills outward; 0 is all at once"),
    duty: Value = number(0.5, "", 0.05, 1.0, "share of a flash on"),
) -> Look:
    """A turn indicator that fills outward, stays, and goes dark: on a trail from the middle out.

    It can follow the steering: with its rate, its length, or both. UN R6 asks for 90
    flashes a minute, give or take 30, and for a sequential one to be full within 0.2 s.
    """
    pace = mix(rate, rate_hard, steer)
    phase = led.cycle_from_start(pace)
    begins = led.begins_anew(phase)
    run = led.caught(begins, run)
    seconds = phase / pace if pace.number is not None else led.ms_since(begins) * 0.001
    most = maximum(nearest(mix(length, length_hard, steer) * float(led.ranks)), 1.0)
    step = maximum(run / most, 1e-6)
    lit = select(run > 0.0, reached(seconds / step) + 1.0, most)
    lit = select(lit < most, lit, most)
    led.label(phase=phase, lit=lit)
    return Look(colour, select(phase < duty, clamp(lit - led.rank), 0.0))
