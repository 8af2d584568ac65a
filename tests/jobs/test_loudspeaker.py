"""A loudspeaker: bands as bars round the front, and a burst of light with each beat."""

DESIGN = """
name = "Speaker"
rate = 50

[[line]]
name = "front"
led = "ws2812b"

[[line.part]]
name = "grille"
shape = "grid"
columns = 3
rows = 8
pitch = 12

[[line.part]]
name = "halo"
shape = "strip"
start = [100, 0]
end = [300, 0]
count = 21

[signals.sound]
kind = "vector"
size = 3
lost_after = 0.5

[signals.beat]
kind = "event"

[[layer]]
name = "bars"
on = "grille"
effect = "bands"
levels = "sound"
colours = ["lime", "gold", "red"]

[[layer]]
name = "beats"
on = "halo"
effect = "push"
trigger = "beat"
strength = "beat.strength"
colour = "#8000ff"
speed = 2
width = 0.2
"""

TAPE = """time,sound[0],sound[1],sound[2],beat
0,0,0,0,
1,1,0.5,0.25,
1.4,1,0.5,0.25,1
1.8,1,0.5,0.25,
3,0,0,0,0.5
5,0,0,0,
"""


def column(seen, at_s, number):
    """A column of the grille, from its foot up."""
    rows = seen.film.layout.spots_of_part("grille")
    x, y = seen.film.layout.position[rows, 0].round(3), seen.film.layout.position[rows, 1]
    mine = [i for i in range(24) if x[i] == sorted({*x.tolist()})[number]]
    mine.sort(key=lambda i: y[i])
    return seen.bytes(at_s, "grille")[mine]


def test_in_silence_the_bars_are_at_their_foot(seen):
    assert seen.count(0.5, "grille") <= 3


def test_a_band_is_a_bar_as_high_as_it_is_loud(seen):
    """Full, half and a quarter of eight rows."""
    heights = [int((column(seen, 1.2, i).max(axis=1) > 0).sum()) for i in range(3)]
    assert heights[0] == 8
    assert abs(heights[1] - 4) <= 1
    assert abs(heights[2] - 2) <= 1


def test_a_bar_is_green_at_its_foot_and_red_at_its_top(seen):
    bar = column(seen, 1.2, 0)
    assert bar[0].tolist() == [0, 255, 0]
    assert bar[-1].tolist() == [255, 0, 0]


def test_a_source_that_falls_silent_leaves_no_bar_standing(seen):
    """The last news of it came at 1.8 s; after half a second it is lost."""
    assert seen.count(2.28, "grille") > 10
    assert seen.count(2.4, "grille") <= 3


def test_a_beat_sets_out_from_the_middle_and_reaches_the_ends_in_half_a_second(seen):
    at = seen.bytes(1.42, "halo")[:, 2]
    assert at[10] == at.max() > 100
    assert at[0] == at[20] == 0
    later = seen.bytes(1.88, "halo")[:, 2]
    assert later[0] > 0
    assert later[10] == 0


def test_the_burst_has_the_colour_that_was_written(seen):
    """#8000ff is 55 of red to 255 of blue, and no green."""
    red, green, blue = seen.rgb(1.42, "halo", 10)
    assert green == 0
    assert abs(red - blue * 0.2159) < 1


def test_a_beat_half_as_strong_is_half_as_bright(seen):
    loud, soft = seen.rgb(1.42, "halo", 10)[2], seen.rgb(3.02, "halo", 10)[2]
    assert abs(soft - loud / 2) <= 1
