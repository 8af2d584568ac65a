"""A light that answers light: on in the dusk, off by day, without flapping, and gently."""

DESIGN = """
name = "Porch"
rate = 50
dither = true

[leds.warm-strip]
like = "ws2812b"
white = [1, 0.85, 0.7]

[[line]]
name = "porch"
led = "warm-strip"
part = [{ name = "lamp", shape = "strip", start = [0, 0], end = [150, 0], count = 16 }]

[signals.lux]
range = [0, 1000]
lost_after = 5
fallback = 1000

[signals.dusk]
kind = "switch"
of = "lux"
on_at = 20
off_at = 40
dwell = 2

[[layer]]
name = "porch"
on = "lamp"
effect = "solid"
colour = "#ffcf9e"
level = 0.18
when = "dusk"
fade_in = 1
fade_out = 2
"""

TAPE = """time,lux
0,300
2,15
4,30
5,18
6,60
6.5,10
7,60
12,60
13,60
14,25
18,10
23.5,10
40,
41,10
"""


def test_by_day_it_is_dark(seen):
    assert seen.count(1.98, "lamp") == 0


def test_below_20_lux_it_comes_on_over_a_second(seen):
    """The switch goes below 20 at 2.0; `on_at` is the lower one."""
    half, full = seen.rgb(2.5, "lamp")[0], seen.rgb(3.2, "lamp")[0]
    assert full >= 6
    assert abs(half - full / 2) <= 1


def test_between_20_and_40_it_stays_as_it_is(seen):
    assert seen.rgb(4.5, "lamp")[0] >= 6
    assert seen.rgb(15.0, "lamp")[0] == 0


def test_a_cloud_of_half_a_second_does_not_make_it_flap(seen):
    """60 lux from 6.0 on: off. 10 for half a second at 6.5 is shorter than the dwell of 2 s."""
    course = seen.course("lamp")
    off = course[round(6.0 * 50) : round(8.0 * 50)]
    assert (off[1:] <= off[:-1] + 1).all()
    assert seen.rgb(8.1, "lamp")[0] == 0


def test_little_light_keeps_its_hue(seen):
    """Level 0.18 is 0.0252 of the light, 6.4 of 255. #ffcf9e is 1, 0.624 and 0.342 of light; white of
    this strip 1, 0.85 and 0.7: 6.4, 3.4 and 1.5, in the mean to a quarter, blue to an eighth.
    """
    mean = seen.film.part("lamp")[(20 * 50) : (23 * 50), 5].mean(axis=0)
    assert abs(mean[0] - 6.42) <= 0.26
    assert abs(mean[1] - 3.41) <= 0.26
    assert abs(mean[2] - 1.54) <= 0.13


def test_nobody_sees_it_flicker(seen):
    """No byte goes up and down by more than one; red and green are the same after two frames, and
    blue after four.
    """
    still = seen.film.part("lamp")[(20 * 50) : (23 * 50)].astype(int)
    assert (still.max(axis=0) - still.min(axis=0)).max() <= 1
    assert (still[2:, :, :2] == still[:-2, :, :2]).all()
    assert (still[4:] == still[:-4]).all()


def test_without_its_sensor_it_goes_out(seen):
    """The last news came at 23.5 s; after 5 s it is taken for day."""
    assert seen.rgb(28.0, "lamp")[0] >= 6
    assert seen.count(31.5, "lamp") == 0
