"""Four arms of a multirotor: the wire goes out along each arm's upper side and back along the lower.

It returns from the last arm to the first, so the lower sides are wired in the opposite order, each
fed from its tip. Every side is a gauge of the throttle from the hub on; the tips show the front.
"""

DESIGN = """
name = "Four arms"
rate = 50

[[assemblies.arm.part]]
name = "top"
shape = "strip"
start = [40, 0]
direction = "right"
count = 4
pitch = 15

[[assemblies.arm.part]]
name = "low"
shape = "strip"
start = [40, 0, -9]
direction = "right"
count = 4
pitch = 15
facing = "down"
reverse = true

[[line]]
name = "out"
supply = "bec"
part = [
  { name = "arm-1", shape = "assembly", use = "arm", turn = 30, only = ["top"] },
  { name = "arm-2", shape = "assembly", use = "arm", turn = 150, only = ["top"] },
  { name = "arm-3", shape = "assembly", use = "arm", turn = 210, only = ["top"] },
  { name = "arm-4", shape = "assembly", use = "arm", turn = 330, only = ["top"] },
  { name = "low-4", shape = "assembly", use = "arm", turn = 330, only = ["low"] },
  { name = "low-3", shape = "assembly", use = "arm", turn = 210, only = ["low"] },
  { name = "low-2", shape = "assembly", use = "arm", turn = 150, only = ["low"] },
  { name = "low-1", shape = "assembly", use = "arm", turn = 30, only = ["low"] },
]

[supplies.bec]
amps = 3

[trails]
from-the-hub = { of = ["arm-*", "low-*"], by = "index" }

[signals.throttle]
range = [0, 1]

[signals.turn]
kind = "number"
range = [-1, 1]

[signals.side]
kind = "choice"
choices = ["left", "straight", "right"]
of = { left = "turn < -0.3", right = "turn > 0.3", else = "straight" }

[[layer]]
name = "throttle"
on = "from-the-hub"
effect = "gauge"
value = "throttle"
colours = ["blue"]
whole = true

[[layer]]
name = "the front"
on = { of = "y > 0", outermost = 4 }
effect = "solid"
colour = "white"

[[layer]]
name = "turning left"
on = ["arm-2", "arm-3"]
effect = "solid"
colour = "#ff7a00"
when = "side == 'left'"
"""

TAPE = "time,throttle,turn\n0,0.5,0\n1,0.75,-0.5\n2,0,0.1\n"


def test_every_side_fills_from_the_hub_whichever_end_its_wire_comes_from(seen):
    for arm in ("arm-3.top", "arm-4.top", "low-3.low", "low-4.low"):
        assert seen.lit(0.5, arm) == "##.."
        assert seen.lit(2.5, arm) == "...."
    assert seen.lit(1.5, "low-4.low") == "###."


def test_the_lower_sides_count_from_the_hub_and_are_wired_from_the_tip(seen):
    layout = seen.film.layout
    rows = layout.rows_of_part("low-1.low")
    assert layout.address[rows].tolist() == [31, 30, 29, 28]
    reach = (layout.position[rows, :2] ** 2).sum(axis=1) ** 0.5
    assert reach.round(6).tolist() == [40, 55, 70, 85]


def test_the_tips_of_the_two_front_arms_are_white_above_and_below(seen):
    for arm in ("arm-1.top", "arm-2.top", "low-1.low", "low-2.low"):
        assert seen.lit(2.5, arm) == "...#"
        assert seen.rgb(2.5, arm, 3) == [255, 255, 255]


def test_the_left_arms_show_a_turn_to_the_left(seen):
    """0xff7a00 is (255, 50, 0) of light; only above, as it is written."""
    assert seen.rgb(1.5, "arm-3.top", 1) == [255, 50, 0]
    assert seen.rgb(1.5, "arm-4.top", 1) == [0, 0, 255]
    assert seen.rgb(1.5, "low-3.low", 1) == [0, 0, 255]
