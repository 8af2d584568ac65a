"""A clock: a ring of 60 with two hands, and the time in figures, dimmer at night."""

DESIGN = """
name = "Clock"
rate = 25
most = "0.4 if hour >= 22 or hour < 7 else 1"

[[line]]
name = "face"
led = "ws2812b"
feed = [{ at = 0 }, { at = 90 }, { at = 180 }, { at = "end" }]

[[line.part]]
name = "ring"
shape = "ring"
centre = [0, 0]
radius = 100
count = 60
start_angle = 90
direction = "clockwise"

[[line.part]]
name = "figures"
shape = "grid"
columns = 30
rows = 7
pitch = 8
at = [0, -200]

[signals.hour]
range = [0, 24]

[signals.minute]
range = [0, 60]

[signals.now]
about = "seconds since midnight"

[[layer]]
name = "minute hand"
on = "ring"
effect = "field"
colour = "#00a0ff"
amount = "index <= minute"

[[layer]]
name = "hour hand"
on = "ring"
effect = "field"
colour = "#ff6000"
amount = "index == floor((hour % 12) * 5)"

[[layer]]
name = "figures"
on = "figures"
effect = "text"
text = "{now:h:mm}"
colour = "white"
"""

TAPE = """time,hour,minute,now
0,9,5,32700
1,9,6,32760
2,22,0,79200
3,22,0,79200
"""


def test_the_minute_hand_is_as_long_as_the_minutes(seen):
    """From the top on, clockwise: LEDs 0 to 5 at five past, one more a minute later."""
    assert seen.lit(0.5, "ring")[:8] == "######.."
    assert seen.lit(1.5, "ring")[:8] == "#######."


def test_the_top_of_the_ring_is_at_the_top(seen):
    position = seen.film.layout.position[seen.film.layout.spots_of_part("ring")]
    assert position[0].round(3).tolist() == [0, 100, 0]
    assert position[15].round(3).tolist() == [100, 0, 0]


def test_nine_o_clock_is_at_the_left(seen):
    assert seen.rgb(0.5, "ring", 45) == [255, 30, 0]
    assert seen.count(0.5, "ring") == 7


def test_the_figures_show_the_time(seen):
    """9:05 has three figures and a colon; at 22:00 a figure more stands."""
    early, late = seen.count(0.5, "figures"), seen.count(2.5, "figures")
    assert early > 30
    assert late > early
    assert seen.bytes(0.5, "figures").tolist() != seen.bytes(1.5, "figures").tolist()


def test_at_night_nothing_is_brighter_than_level_0_4_and_hues_stay(seen):
    """Level 0.4 is byte 29 of 255. #ff6000 has 30 of green to 255 of red, so 3 to 29."""
    assert seen.film.frame(2.5).rgb.max() == 29
    assert seen.rgb(2.5, "ring", 50) == [29, 3, 0]


def test_by_day_it_is_as_bright_as_it_is_written(seen):
    assert seen.film.frame(1.5).rgb.max() == 255
