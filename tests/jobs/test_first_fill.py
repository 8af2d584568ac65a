"""The first design of a newcomer: ten LEDs that fill, stay, and empty, and do so again."""

DESIGN = """
name = "First fill"

[[line]]
name = "data"
part = [{ name = "bar", shape = "strip", start = [0, 0], end = [90, 0], count = 10 }]

[signals.speed]
range = [0, 1]

[[layer]]
name = "fill"
on = "bar"
effect = "fill"
colour = "magenta"
step = "mix(0.1, 0.02, speed)"
hold = 0.5
rest = 0.5
"""

TAPE = """time,speed
0,0
6.8,0
6.9,1
7.4,0
14,0
"""


def test_the_first_led_is_lit_one_step_after_the_beginning_and_the_last_after_ten(seen):
    assert [seen.count(at, "bar") for at in (0, 0.08, 0.1, 0.98, 1.0)] == [0, 0, 1, 9, 10]


def test_all_are_lit_for_as_long_as_hold_says(seen):
    """From 1.0 to 1.5 s, and not a frame longer."""
    assert [seen.count(at, "bar") for at in (1.0, 1.48, 1.5)] == [10, 10, 9]


def test_they_go_off_in_the_order_in_which_they_came_on(seen):
    assert seen.lit(1.7, "bar") == "...#######"
    assert seen.count(2.4, "bar") == 0


def test_all_are_dark_for_as_long_as_rest_says(seen):
    assert [seen.count(at, "bar") for at in (2.38, 2.4, 2.88, 2.9)] == [1, 0, 0, 1]


def test_magenta_is_red_and_blue(seen):
    assert seen.rgb(1.2, "bar") == [255, 0, 255]


def test_while_the_step_changes_no_led_that_is_lit_goes_dark(seen):
    """Rounds of 2.8 s: the third has filled at 6.6 s and holds until 7.1. From 6.9 s on the step is
    five times as short: all stay on, and then they go off five times as fast.
    """
    assert [seen.count(at, "bar") for at in (6.58, 6.6)] == [9, 10]
    for frame in range(round(6.6 * 50), round(7.1 * 50)):
        assert seen.count(frame / 50, "bar") == 10
    assert [seen.count(7.1 + i / 50, "bar") for i in range(4)] == [9, 8, 7, 6]
