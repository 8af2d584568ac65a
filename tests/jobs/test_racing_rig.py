"""A racing rig: shift lights that fill by rpm, a red line that blinks, and the marshal's flag."""

DESIGN = """
name = "Rig"
rate = 50

[[line]]
name = "rig"
led = "ws2812b"

[[line.part]]
name = "shift"
shape = "strip"
start = [0, 0]
end = [140, 0]
count = 15

[[line.part]]
name = "flag"
shape = "grid"
columns = 4
rows = 4
pitch = 10
at = [0, 100]

[signals.rpm]
range = [0, 9000]

[signals.flag]
kind = "colour"

[signals.pit]
kind = "switch"

[[layer]]
name = "rpm"
on = "shift"
effect = "gauge"
value = "rpm"
low = 3000
high = 7500
colours = ["lime", "lime", "gold", "red"]
whole = true
threshold = 7500
rate = 10

[[layer]]
name = "flag"
on = "flag"
effect = "solid"
colour = "flag"

[[layer]]
name = "pit lane"
on = "shift"
effect = "blink"
colour = "#0060ff"
rate = 2.5
when = "pit"
hides_below = true
"""

TAPE = """time,rpm,flag,pit
0,1000,off,0
1,5250,#ffd700,
2,7500,magenta,
3,7400,"128,0,255",
4,6000,0x00ff00,1
5.2,,,0
6,3300,ff8a01,
7,,,
"""


def test_below_3000_it_is_dark_and_at_half_half_of_it_is_lit(seen):
    """3000 to 7500 over 15 LEDs: 300 each. At 5250 seven and a half, and whole ones only: eight."""
    assert seen.count(0.5, "shift") == 0
    assert seen.lit(1.5, "shift") == "########......."
    assert seen.lit(6.5, "shift") == "#.............."


def test_it_is_green_at_the_beginning_and_red_at_the_end(seen):
    assert seen.rgb(3.5, "shift", 0) == [0, 255, 0]
    assert seen.rgb(2.0, "shift", 14) == [255, 0, 0]


def test_from_the_red_line_on_all_of_it_blinks_ten_times_a_second(seen):
    """Of 50 frames each five make a blink; two or three of them are lit."""
    lit = [seen.count(2 + i / 50, "shift") for i in range(50)]
    assert {*lit} == {0, 15}
    assert lit[:5] * 10 == lit
    assert lit.count(15) in (20, 30)
    assert seen.count(3.5, "shift") == 15


def test_the_flag_has_the_colour_that_the_game_sends_however_it_writes_it(seen):
    assert seen.count(0.5, "flag") == 0
    assert seen.rgb(1.5, "flag") == [255, 173, 0]
    assert seen.rgb(2.5, "flag") == [255, 0, 255]
    assert seen.rgb(3.5, "flag", 7) == [55, 0, 255]
    assert seen.rgb(4.5, "flag") == [0, 255, 0]
    assert seen.rgb(6.5, "flag") == [255, 65, 0]


def test_in_the_pit_lane_it_blinks_blue_and_nothing_of_the_rpm_shows_between(seen):
    """2.5 a second: on for 0.2 s, then dark, although six thousand rpm would light ten LEDs."""
    assert seen.rgb(4.0, "shift", 14) == [0, 30, 255]
    assert seen.rgb(4.18, "shift") == [0, 30, 255]
    assert seen.count(4.2, "shift") == 0
    assert seen.count(4.38, "shift") == 0
    assert seen.rgb(4.4, "shift") == [0, 30, 255]
    assert seen.count(5.3, "shift") == 10
