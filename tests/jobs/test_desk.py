"""A desk rig on a canvas: fans and memory sticks, one of which sits turned round in its slot.

Its wire comes in at what is the far end now. The canvas puts all of them side by side, so that a
wave crosses the fans, and the load fills every stick from below.
"""

DESIGN = """
name = "Desk"
rate = 50
units = "in"

[[line]]
name = "case"
supply = "psu"

[[line.part]]
name = "fan-1"
shape = "ring"
radius = 2
count = 8
direction = "clockwise"

[[line.part]]
name = "fan-2"
shape = "ring"
radius = 2
count = 8
at = [6, 0]
off = "quiet"

[[line.part]]
name = "stick-1"
shape = "strip"
start = [10, -2]
end = [10, 2]
count = 5

[[line.part]]
name = "stick-2"
shape = "strip"
start = [11, -2]
end = [11, 2]
count = 5
reverse = true

[supplies.psu]
amps = 3

[canvases.wall]
"fan-1" = { at = [0, 10] }
"fan-2" = { at = [4, 10] }
"stick-*" = { at = [12, 10], turn = 90 }

[signals.load]
range = [0, 1]

[signals.quiet]
kind = "switch"

[[layer]]
name = "load"
on = "stick-1"
effect = "gauge"
value = "load"
colours = ["lime"]
whole = true

[[layer]]
name = "load, the other"
on = "stick-2"
effect = "gauge"
value = "load"
colours = ["lime"]
whole = true

[[layer]]
name = "left half of the wall"
on = ["fan-1", "fan-2"]
canvas = "wall"
effect = "solid"
colour = "blue"
cover = "1 if x < 4 else 0"

[[layer]]
name = "the sticks lie on the wall"
on = "stick-*"
canvas = "wall"
effect = "solid"
colour = "red"
cover = "1 if x > 13 else 0"
blend = "add"
"""

TAPE = "time,load,quiet\n0,0.4,0\n1,0.8,1\n2,0,0\n"


def test_both_sticks_fill_from_below_though_one_is_turned_round(seen):
    assert seen.lit(0.5, "stick-1") == seen.lit(0.5, "stick-2") == "##..."
    for stick in ("stick-1", "stick-2"):
        y = seen.film.layout.position[seen.film.layout.rows_of_part(stick), 1]
        assert [*y] == sorted(y)
    address = seen.film.layout.address
    assert address[seen.film.layout.rows_of_part("stick-2")].tolist() == [25, 24, 23, 22, 21]


def test_on_the_wall_the_second_fan_is_half_blue(seen):
    """Its middle is at 4: the LEDs left of it, and none of those above, below and right of it."""
    assert seen.count(0.5, "fan-1") == 8
    y_and_lit = zip(seen.lit(0.5, "fan-2"), range(8), strict=True)
    assert [i for mark, i in y_and_lit if mark == "#"] == [3, 4, 5]


def test_the_sticks_lie_as_one_block_turned_by_a_quarter(seen):
    """From 10 to 11 and -2 to 2, about (10.5, 0): what was above by 2 is left of 12 by 2. So the red
    is what was below: x = 12 + 2 and 12 + 1, of which 14 is beyond 13. 13 itself is not."""
    assert seen.rgb(2.5, "stick-1", 0) == [255, 0, 0]
    assert seen.lit(2.5, "stick-1") == seen.lit(2.5, "stick-2") == "#...."


def test_a_device_is_switched_off_by_one_key_and_comes_back(seen):
    assert seen.count(0.9, "fan-2") == 3
    assert seen.count(1.5, "fan-2") == 0
    assert seen.count(1.5, "fan-1") == 8
    assert seen.count(2.1, "fan-2") == 3
