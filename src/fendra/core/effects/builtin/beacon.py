"""Groups of short flashes."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    colour,
    effect,
    floor,
    number,
    select,
    to_ms,
)


@effect(family="rhythm")
def beacon(
    led: Led,
    colour: Value = colour("white", "of the flashes"),
    flashes: Value = number(2.0, "", 1.0, 20.0, "in a group"),
    flash: Value = number(0.06, "s", 0.005, 10.0, "how long a flash is", in_frames=True),
    gap: Value = number(0.12, "s", 0.0, 10.0, "between the flashes of a group", in_frames=True),
    every: Value = number(1.2, "s", 0.05, 600.0, "from group to group", in_frames=True),
) -> Look:
    """Short flashes in groups, then a pause: position and anti-collision lights, escorts, alarms.

    An anti-collision light flashes 40 to 100 times a minute (FAR 23.1401). Times that follow
    a signal change at the next group. `flashes` is a whole number.
    """
    elapsed_ms = led.elapsed_ms(to_ms(every))
    begins = led.begins_anew(elapsed_ms)
    flash_ms, gap_ms = (led.caught(begins, to_ms(time)) for time in (flash, gap))
    space_ms = flash_ms + gap_ms
    turn = floor(elapsed_ms / space_ms)
    into_ms = elapsed_ms - turn * space_ms
    is_on = (turn < floor(flashes)) & (into_ms < flash_ms)
    led.label(turn=turn, into_ms=into_ms)
    return Look(colour, select(is_on, 1.0, 0.0))
