"""A cargo trike: brake light, hubs that roll with the road, and a warning over everything."""

import itertools

DESIGN = """
name = "Trike"
rate = 50
level = 0.9

[[line]]
name = "tail"
led = "ws2812b"
supply = "deck"

[[line.part]]
name = "bar"
shape = "strip"
start = [-200, 0]
end = [200, 0]
count = 11

[[line.part]]
name = "hub"
shape = "ring"
centre = [300, 0]
radius = 40
count = 12

[supplies.deck]
volts = 5
amps = 2

[signals.brake]
range = [0, 1]
lost_after = 0.5

[signals.speed]
unit = "km/h"
range = [0, 30]
lost_after = 0.5

[signals.battery]
unit = "V"
range = [36, 55]
fallback = 48

[[layer]]
name = "tail light"
on = "bar"
effect = "solid"
colour = "red"
level = 0.35

[[layer]]
name = "brake"
on = "bar"
effect = "solid"
colour = "red"
level = "0.35 + 0.65 * brake"
when = "brake > 0.05"

[[layer]]
name = "hub"
on = "hub"
effect = "spin"
colour = "white"
arcs = 3
length = 0.34
rate = "speed / 6"

[[layer]]
name = "battery low"
on = "bar"
effect = "pulse"
colour = "#ff00ff"
rate = 1
low = 0
priority = 5
when = "battery < 42"
hides_below = true
"""

TAPE = "\n".join(
    ["time,brake,speed,battery"]
    + [f"{i / 10:.1f},{brake},{speed},{battery}" for i in range(91) for brake, speed, battery in [(
        0.5 if 20 <= i < 30 else 1 if 30 <= i < 40 else 0, 0 if i < 50 else 6, 41 if 70 <= i < 80 else 48)]]
    + ["10.2,,,"]
)  # fmt: skip


def test_the_tail_light_is_always_on(seen):
    """Level 0.35 at a master of 0.9: 0.0850 and 0.763 of the light, so 0.0649: byte 17."""
    assert seen.bytes(1.0, "bar").tolist() == [[17, 0, 0]] * 11


def test_the_harder_one_brakes_the_brighter_it_is(seen):
    """Half: level 0.675, 0.3755 of the light, 73. Full: all that the master lets through, 195."""
    assert seen.rgb(2.5, "bar") == [73, 0, 0]
    assert seen.rgb(3.5, "bar") == [195, 0, 0]
    assert seen.rgb(4.1, "bar") == [17, 0, 0]


def test_the_hub_stands_while_the_trike_does(seen):
    assert len({seen.lit(at / 10, "hub") for at in range(1, 49)}) == 1


def test_at_6_km_h_the_hub_turns_once_a_second_and_never_jumps(seen):
    """Three arcs: after a third of a second it looks the same. In a frame, 0.02 turns, an LED of twelve
    at the most comes to each arc and one leaves it.
    """
    rows = [seen.lit(5.4 + i / 50, "hub") for i in range(60)]
    assert rows[0] == rows[50]
    assert len({*rows}) >= 4
    for before, after in itertools.pairwise(rows):
        assert sum(a != b for a, b in zip(before, after, strict=True)) <= 6


def test_a_low_battery_is_shown_over_the_tail_light_and_hides_it(seen):
    """A pulse that begins at the clock's second: dark at 7.0, magenta at 7.5, no red alone between."""
    assert seen.rgb(7.02, "bar") in ([0, 0, 0], [1, 0, 1])
    assert seen.rgb(7.5, "bar") == [195, 0, 195]
    for i in range(1, 49):
        red, green, blue = seen.rgb(7 + i / 50, "bar")
        assert (red, green) == (blue, 0)
    assert seen.rgb(8.1, "bar") == [17, 0, 0]


def test_when_the_bus_falls_silent_the_hub_stands_and_the_tail_light_stays(seen):
    """The last news came at 9.0 s: from 9.5 on nothing is known of brake and speed."""
    assert len({seen.lit(9.6 + i / 50, "hub") for i in range(25)}) == 1
    assert seen.rgb(10.0, "bar") == [17, 0, 0]
