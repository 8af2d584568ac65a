"""A frame of 12 V strips behind a screen: three LEDs a chip, in inches, fed beside the stand.

Without the computer the frame is dim; a volume that is turned shows as a bar along its lower edge.
"""

import numpy as np

DESIGN = """
name = "Frame"
rate = 50
units = "in"

[[line]]
name = "frame"
led = "ws2811"
order = "BRG"
supply = "brick"

[[line.part]]
name = "screen"
shape = "frame"
width = 24
height = 14
top = 12
right = 6
bottom = 12
left = 6
first = "bottom-right"
direction = "counter-clockwise"
tilt = [90, 0]
turn = 180
facing = "back"

[supplies.brick]
volts = 12
amps = 2

[groups]
lower = { of = "frame", without = "z > -6.5" }

[signals.volume]
range = [0, 100]
source = { name = "pc:volume", calibrate = [0, 65535] }
lost_after = 3

[signals.muted]
kind = "switch"

[sources.pc]
type = "udp"
address = "127.0.0.1:9400"

[[layer]]
name = "dim"
on = "frame"
effect = "solid"
colour = "white"
level = 0.3
when = "lost(volume)"

[[layer]]
name = "volume"
on = "lower"
effect = "gauge"
value = "volume / 100"
whole = true
colours = ["'red' if muted else 'blue'"]
when = "not lost(volume)"
"""
TAPE = "time,volume,muted\n0,,\n1,50,0\n2,100,1\n"


def test_it_is_dim_until_the_computer_speaks_and_after_it_is_silent(seen):
    """Level 0.3 is 16 of 255; three seconds after the last word it is back."""
    assert seen.bytes(0.5, "screen").tolist() == [[16, 16, 16]] * 12
    assert seen.count(1.5, "screen") < 12


def test_twelve_leds_of_a_side_are_four_chips(seen):
    layout = seen.film.layout
    assert len(layout) == 12
    assert len(layout.leds) == 36
    assert seen.film.layout.line_sizes == (12,)


def test_the_volume_is_a_bar_along_the_lower_edge_and_red_when_it_is_muted(seen):
    """Four chips below; half of them at 50. All are red at 100, muted."""
    lit = seen.bytes(1.5, "screen").any(axis=1)
    assert lit.sum() == 2
    assert (seen.film.layout.position[:, 2][seen.film.layout.rows_of_part("screen")][lit] < 0).all()
    assert seen.bytes(2.5, "screen").sum(axis=0).tolist() == [4 * 255, 0, 0]


def test_the_wire_has_blue_first(seen):
    frame = seen.film.frame(1.5)
    line = np.frombuffer(frame.line_bytes()[0], np.uint8).reshape(-1, 3)
    assert line.sum(axis=0).tolist() == [2 * 255, 0, 0]
