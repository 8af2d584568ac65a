"""Stairs: 13 steps that light up from where somebody comes, and stay until all have gone."""

DESIGN = """
name = "Stairs"
rate = 50

[[line]]
name = "stairs"
led = "ws2812b"
part = [{ name = "steps", shape = "strip", start = [0, 0], end = [0, 3000], count = 13 }]

[signals.below]
kind = "switch"
about = "somebody at the foot"

[signals.above]
kind = "switch"
about = "somebody at the head"

[[layer]]
name = "up"
on = "steps"
effect = "run-up"
trigger = "below"
colour = "#ffb060"
step = 0.1
stay = 4
fade = 1

[[layer]]
name = "down"
on = "steps"
effect = "run-up"
trigger = "above"
colour = "#ffb060"
step = 0.1
stay = 4
fade = 1
reverse = true
blend = "max"
"""

TAPE = """time,below,above
0,0,0
1,1,
1.4,0,
5.6,1,
6,0,
20,,1
20.3,,0
20.9,1,
21.1,0,
40,0,0
"""


def test_it_is_dark_until_somebody_comes(seen):
    assert seen.count(0.98, "steps") == 0


def test_the_first_step_lights_up_at_the_foot_a_tenth_of_a_second_after_the_sensor(seen):
    assert seen.lit(1.08, "steps") == "............."
    assert seen.lit(1.1, "steps") == "#............"
    assert seen.lit(1.5, "steps") == "#####........"


def test_all_are_lit_after_one_and_three_tenths(seen):
    assert seen.count(2.28, "steps") == 12
    assert seen.count(2.3, "steps") == 13


def test_a_second_person_while_the_stairs_are_lit_keeps_them_lit_and_darkens_none(seen):
    """They were full at 2.3 and due to fade from 6.3 on. The second comes at 5.6: until 9.6."""
    for at in (5.58, 5.6, 5.7, 6.5, 8.0, 9.58):
        assert seen.count(at, "steps") == 13
        assert seen.rgb(at, "steps") == seen.rgb(3.0, "steps")


def test_then_they_fade_within_a_second(seen):
    full = seen.rgb(9.58, "steps")[0]
    assert 0.45 * full < seen.rgb(10.1, "steps")[0] < 0.55 * full
    assert seen.count(10.6, "steps") == 0


def test_who_comes_from_above_is_lit_from_above(seen):
    assert seen.lit(20.2, "steps") == "...........##"


def test_two_who_meet_each_bring_their_own_light(seen):
    """From above at 20.0, from below at 20.9: at 21.1 eleven and two, which is all of them."""
    assert seen.lit(21.08, "steps") == "#..##########"
    assert seen.lit(21.1, "steps") == "#############"
    assert seen.count(24.0, "steps") == 13
