"""A model railway: a level crossing, a fire in a firebox, a lamp that flutters before it burns."""

DESIGN = """
name = "Crossing"
rate = 50

[[line]]
name = "track"
led = "ws2812b"

[[line.part]]
name = "lamps"
shape = "points"
points = [[0, 0], [20, 0]]

[[line.part]]
name = "firebox"
shape = "points"
points = [[60, 0], [66, 0], [72, 0]]

[[line.part]]
name = "platform"
shape = "points"
points = [[120, 0]]

[signals.train]
kind = "switch"

[signals.dusk]
kind = "switch"

[[layer]]
name = "crossing"
on = "lamps"
effect = "alternate"
colour = "red"
other = "red"
rate = 0.8
by = "x"
when = "train"

[[layer]]
name = "fire"
on = "firebox"
effect = "flicker"
colour = "#ff9030"
ember = "#ff2000"
low = 0.2
flames = 3

[[layer]]
name = "flutter"
on = "platform"
effect = "flicker"
colour = "#e8f0ff"
ember = "#e8f0ff"
low = 0
on_low = 0.02
on_high = 0.1
off_low = 0.04
off_high = 0.2
flames = 1
when = "dusk and since(not dusk) < 1.5"

[[layer]]
name = "burning"
on = "platform"
effect = "solid"
colour = "#e8f0ff"
when = "dusk and since(not dusk) >= 1.5"
"""

TAPE = """time,train,dusk
0,0,0
2,1,
4,,1
7,0,
12,,0
13,0,0
"""


def test_without_a_train_both_lamps_are_dark(seen):
    assert seen.lit(1.98, "lamps") == ".."


def test_with_the_train_the_first_lamp_comes_on_at_once_and_then_they_take_turns(seen):
    """0.8 turns of both in a second: each is on for 0.625 s."""
    assert seen.lit(2.0, "lamps") == "#."
    assert seen.lit(2.6, "lamps") == "#."
    assert seen.lit(2.64, "lamps") == ".#"
    assert seen.lit(3.24, "lamps") == ".#"
    assert seen.lit(3.26, "lamps") == "#."


def test_never_are_both_lamps_on_or_both_off_while_the_train_passes(seen):
    for frame in range(100, 350):
        assert seen.count(frame / 50, "lamps") == 1


def test_when_the_train_has_gone_they_are_dark_in_the_same_frame(seen):
    assert seen.count(6.98, "lamps") == 1
    assert seen.count(7.0, "lamps") == 0


def test_the_fire_never_goes_out_and_is_warm_in_every_frame(seen):
    fire = seen.film.part("firebox").astype(int)
    assert fire[..., 0].min() >= 0.19 * 255
    assert (fire[..., 0] > 2 * fire[..., 1]).all()
    assert (fire[..., 1] > fire[..., 2]).mean() > 0.9


def test_the_fire_s_leds_do_not_flicker_as_one(seen):
    first, second = seen.course("firebox", 0), seen.course("firebox", 1)
    assert (first != second).mean() > 0.2 or (first != seen.course("firebox", 2)).mean() > 0.2


def test_the_lamp_flutters_for_a_second_and_a_half_and_then_burns(seen):
    flashes = seen.flashes("platform")
    assert flashes[-1][0] <= 5.5
    assert flashes[-1][1] == 12.0
    assert len([f for f in flashes if f[0] < 5.5]) >= 4
    assert all(seen.rgb(at, "platform") == seen.rgb(6.0, "platform") for at in (5.5, 8.0, 11.98))
