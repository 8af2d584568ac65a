"""A split keyboard: two halves on two lines, the right one mirrored and fed from its far end.

Each key glows under the finger and fades; the newest press is a vector of all keys of a half. Which
half was hit last shows at its thumb key.
"""

DESIGN = """
name = "Halves"
rate = 50

[[line]]
name = "left"
supply = "usb"

[[line.part]]
name = "left-keys"
shape = "keys"
columns = [{ keys = 2 }, { keys = 2, shift = 0.25 }, { keys = 1 }]
back_and_forth = true

[[line]]
name = "right"
supply = "usb"

[[line.part]]
name = "right-keys"
shape = "keys"
columns = [{ keys = 2 }, { keys = 2, shift = 0.25 }, { keys = 1 }]
back_and_forth = true
mirror = "x"
at = [200, 0]
reverse = true

[supplies.usb]
amps = 0.9

[signals.left_down]
kind = "vector"
size = 5
range = [0, 1]

[signals.right_down]
kind = "vector"
size = 5
range = [0, 1]

[signals.last_half]
of = "latest(max(left_down[0], left_down[1], left_down[2], left_down[3]) > 0.5, right_down[2] > 0.5)"

[signals.typing]
of = "stopwatch(left_down[0] > 0.5, left_down[4] > 0.5)"

[[layer]]
name = "left keys"
on = "left"
effect = "each"
levels = "left_down"
colours = ["red"]
fade = 0.5

[[layer]]
name = "right keys"
on = "right-keys"
effect = "each"
levels = "right_down"
colours = ["red"]
fade = 0.5

[[layer]]
name = "held"
on = ["left-keys[0-2]", "right-keys[0-2]"]
effect = "solid"
colour = "blue"
cover = "left_down[rank]"
blend = "add"

[[layer]]
name = "hit last"
on = "left-keys[4]"
effect = "solid"
colour = { by = "last_half", 0 = "black", 1 = "lime", 2 = "white", else = "black" }

[[layer]]
name = "for half a second"
on = "right-keys[4]"
effect = "solid"
colour = "gold"
when = "typing >= 0.5"
"""

HEAD = ["time", *(f"{side}_down[{i}]" for side in ("left", "right") for i in range(5))]
TAPE = "\n".join([
    ",".join(HEAD),
    "0,0,0,0,0,0,0,0,0,0,0",
    "1,1,0,0,0,0,0,0,0,0,0",
    "1.4,0,0,0,0,0,0,0,0,0,0",
    "2,0,0,0,0,0,0,0,1,0,0",
    "3,1,0,0.5,0,0,0,0,0,0,0",
    "3.2,0,0,0,0,0,0,0,0,0,0",
    "4,0,0,0,0,1,0,0,0,0,0",
    "5,0,0,0,0,0,0,0,0,0,0",
])  # fmt: skip


def test_the_key_that_is_down_is_lit_at_once_and_fades_in_half_a_second(seen):
    """Let go at 1.4: 0.25 s after it half of its light is left, 128; half a second after nothing."""
    assert seen.rgb(1.0, "left-keys", 0) == [255, 0, 255]
    assert seen.lit(1.2, "left-keys") == "#...#"
    assert abs(seen.rgb(1.62, "left-keys", 0)[0] - 138) <= 6  # of 0.24 s, 0.52
    assert seen.rgb(1.94, "left-keys", 0)[0] == 0


def test_the_half_that_is_fed_from_its_end_lights_its_own_key(seen):
    """The third number is the third key of the half as it is drawn, whatever the wire does."""
    assert seen.lit(2.1, "right-keys") == "..#.."
    layout = seen.film.layout
    assert layout.address[layout.rows_of_part("right-keys")].tolist() == [4, 3, 2, 1, 0]


def test_levels_between_are_half_light_and_the_blue_goes_by_rank(seen):
    """The layer over both halves: ranks 0 to 2 are the left keys, 3 to 5 the right ones."""
    assert seen.rgb(3.1, "left-keys", 2) == [128, 0, 128]
    assert seen.rgb(3.1, "right-keys", 0) == [0, 0, 0]


def test_the_thumb_key_shows_which_half_was_hit_last(seen):
    assert seen.rgb(0.5, "left-keys", 4) == [0, 0, 0]
    assert seen.rgb(1.9, "left-keys", 4) == [0, 255, 0]
    assert seen.rgb(2.5, "left-keys", 4) == [255, 255, 255]
    assert seen.rgb(3.5, "left-keys", 4) == [0, 255, 0]


def test_the_stopwatch_stands_still_and_is_reset(seen):
    """0.4 s at first; from 3.0 on it goes on, and passes half a second at 3.1; at 4 it is 0."""
    times = seen.flashes("right-keys", 4)
    assert len(times) == 1
    assert abs(times[0][0] - 3.08) <= 0.021
    assert abs(times[0][1] - 4.0) <= 0.021
