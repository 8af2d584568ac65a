"""A macro pad: rings from the key that is pressed, a knob that shows the volume, and a mode."""

DESIGN = """
name = "Pad"
rate = 50

[[line]]
name = "pad"
led = "ws2812b"

[[line.part]]
name = "keys"
shape = "grid"
columns = 4
rows = 3
pitch = 19.05
centre = [28.575, 19.05]

[[line.part]]
name = "knob"
shape = "ring"
centre = [120, 20]
radius = 15
count = 12
start_angle = 90
direction = "clockwise"

[signals.press]
kind = "event"

[signals.volume]
range = [0, 100]

[signals.mode]
kind = "choice"
choices = ["edit", "mix", "game"]

[[layer]]
name = "mode"
on = "keys"
effect = "solid"
colour = { by = "mode", mix = "#00ff80", game = "#ff0040", else = "#4060ff" }
level = 0.4

[[layer]]
name = "pressed"
on = "keys"
effect = "ripple"
trigger = "press"
x = "press.x"
y = "press.y"
colour = "white"
speed = 60
width = 12
life = 0.6
blend = "add"

[[layer]]
name = "volume"
on = "knob"
effect = "gauge"
value = "volume"
high = 100
colours = ["#00c0ff"]
whole = true
"""

TAPE = """time,press,press.x,press.y,volume,mode
0,,,,0,edit
1,,,,50,mix
2,1,0,0,50,
2.3,1,57.15,0,50,
4,,,,100,game
5,,,,25,7
6,,,,25,
"""


def key_at(seen, x, y):
    position = seen.film.layout.position[seen.film.layout.spots_of_part("keys")]
    return int(((position[:, 0] - x) ** 2 + (position[:, 1] - y) ** 2).argmin())


def test_each_mode_has_its_colour_and_an_unknown_number_that_of_else(seen):
    """Level 0.4 is byte 29."""
    blue, green, red = seen.rgb(0.5, "keys"), seen.rgb(1.5, "keys"), seen.rgb(4.5, "keys")
    assert blue[2] == 29
    assert blue[0] < blue[1] < blue[2]
    assert green[:2] == [0, 29]
    assert red[0] == 29
    assert red[1] == 0
    assert seen.rgb(5.5, "keys") == blue


def test_a_press_lights_its_own_key_first_and_then_its_neighbours(seen):
    """19.05 mm at 60 mm in a second: a third of a second. After 0.6 s it has faded."""
    own, next_key = key_at(seen, 0, 0), key_at(seen, 19.05, 0)
    assert seen.rgb(2.0, "keys", own)[0] == 255
    assert seen.rgb(2.0, "keys", next_key)[0] < 10
    assert seen.rgb(2.28, "keys", next_key)[0] > 60 > seen.rgb(2.28, "keys", own)[0]
    assert seen.rgb(3.0, "keys", own) == seen.rgb(1.5, "keys", own)


def test_a_second_press_does_not_move_the_ring_of_the_first(seen):
    """At 2.3 s another key is pressed: the ring round the first goes on from where it was."""
    right = key_at(seen, 57.15, 0)
    assert seen.rgb(2.3, "keys", right)[0] >= 200
    above = key_at(seen, 0, 19.05)
    before, after = seen.rgb(2.28, "keys", above)[0], seen.rgb(2.3, "keys", above)[0]
    assert abs(before - after) < 30
    assert after > 60


def test_the_knob_is_lit_as_far_as_it_is_turned_clockwise_from_the_top(seen):
    assert [seen.lit(at, "knob") for at in (0.5, 1.5, 4.5, 5.5)] == [
        "............", "######......", "############", "###.........",
    ]  # fmt: skip
