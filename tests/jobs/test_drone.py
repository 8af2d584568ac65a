"""A drone: position lights, strobes, and what it says before it drops out of the sky."""

DESIGN = """
name = "Drone"
rate = 50
units = "in"

[leds.bright]
like = "ws2812b"
channel_ma = 12

[[line]]
name = "arms"
led = "bright"

[[line.part]]
name = "left"
shape = "strip"
start = [-8, 0]
end = [-4, 0]
count = 5

[[line.part]]
name = "right"
shape = "strip"
start = [4, 0]
end = [8, 0]
count = 5

[[line.part]]
name = "tail"
shape = "points"
points = [[0, -6]]

[groups]
tips = { of = ["left[0]", "right[4]"] }

[signals.armed]
kind = "switch"

[signals.battery]
unit = "%"
range = [0, 100]
fallback = 100

[[layer]]
name = "port"
on = "left"
effect = "solid"
colour = "red"
level = 0.6
when = "armed"
fade_out = 0.5

[[layer]]
name = "starboard"
on = "right"
effect = "solid"
colour = "lime"
level = 0.6
when = "armed"
fade_out = 0.5

[[layer]]
name = "strobe"
on = "tips"
effect = "beacon"
flashes = 1
flash = 0.06
every = 1.2
when = "armed"

[[layer]]
name = "land now"
on = "all"
effect = "blink"
colour = "#ff0060"
rate = 2
when = "battery < 20"
priority = 10
hides_below = true
"""

TAPE = """time,armed,battery
0,0,90
1,1,90
6,1,19
8,0,90
10,0,90
"""


def test_before_it_is_armed_it_is_dark(seen):
    assert [seen.count(0.98, part) for part in ("left", "right", "tail")] == [0, 0, 0]


def test_red_is_left_and_green_is_right(seen):
    """Level 0.6 is byte 72."""
    assert seen.rgb(1.5, "left", 2) == [72, 0, 0]
    assert seen.rgb(1.5, "right", 2) == [0, 72, 0]


def test_the_strobes_are_at_the_tips_and_three_frames_long(seen):
    """The first comes with the arming, the next 1.2 s later: 50 a minute, within 40 to 100."""
    for at in (1.0, 2.2, 3.4):
        assert seen.rgb(at, "left", 0) == [255] * 3
        assert seen.rgb(at + 0.04, "right", 4) == [255] * 3
        assert seen.rgb(at + 0.06, "left", 0) == [72, 0, 0]
        assert seen.rgb(at, "left", 1) == [72, 0, 0]


def test_a_low_battery_is_over_everything_and_dark_between(seen):
    """Twice a second, on first: 0.25 s each, and no red or green between."""
    assert seen.rgb(6.0, "tail") == seen.rgb(6.2, "left", 3) == [255, 0, 30]
    for part in ("left", "right", "tail"):
        assert seen.count(6.26, part) == seen.count(6.48, part) == 0
    assert seen.rgb(6.5, "right", 0) == [255, 0, 30]


def test_when_it_is_disarmed_the_position_lights_fade_within_half_a_second(seen):
    assert 30 <= seen.rgb(8.24, "left", 2)[0] <= 42
    assert seen.count(8.5, "left") == 0


def test_inches_are_inches(seen):
    """4 inches between the ends of an arm are 101.6 mm."""
    rows = seen.film.layout.spots_of_part("left")
    x = seen.film.layout.position[rows, 0]
    assert abs(x[-1] - x[0] - 101.6) < 1e-6
