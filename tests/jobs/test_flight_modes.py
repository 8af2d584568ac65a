"""Flight modes by a three-way switch, in the firmware: two contacts at two pins, none in the middle.

The words follow from the contacts; a knob at an analogue pin dims. With nothing connected the pins
are pulled up: the switch is in its middle.
"""

import tomllib

import fendra as fd
from fendra.firmware.project import make_project

DESIGN = """
name = "Modes"
rate = 50

[controllers.main]
type = "stm32f103"

[supplies.bec]
amps = 1

[[line]]
name = "belly"
pin = "PA8"
level_shifter = true
supply = "bec"
part = [{ name = "belly", shape = "strip", start = [0, 30], end = [0, -40], count = 8 }]

[signals.upper]
kind = "switch"
pin = "PB0"
debounce = 0.04

[signals.lower]
kind = "switch"
pin = "PB1"
debounce = 0.04

[signals.knob]
range = [0.1, 1]
pin = { name = "PA1", calibrate = [0.9, 0.1] }
fallback = 1

[signals.mode]
kind = "choice"
choices = { manual = 0, hold = 5, return = 9 }
of = { return = "upper", manual = "lower", else = "hold" }

[signals.lamp]
kind = "choice"
choices = ["dim", "bright"]
of = { by = "mode", manual = "dim", hold = "dim", return = "bright" }

[[layer]]
name = "mode"
on = "belly"
effect = "solid"
colour = { by = "mode", manual = "blue", hold = "gold", return = "red" }
level = { by = "lamp", dim = "knob", bright = 1 }

[[layer]]
name = "which has been chosen last"
on = "belly[7]"
effect = "solid"
colour = { by = "latest(upper, lower)", 1 = "lime", 2 = "white", else = "black" }
"""

TAPE = """time,upper,lower,knob
0,0,0,0.1
0.5,0,0,0.55
1,1,0,
1.02,0,0,
1.5,0,1,0.1
2.5,1,0,
3.5,0,0,
"""


def test_the_middle_is_hold_at_the_level_of_the_knob(seen):
    """A tape has the signal's own numbers: 0.1 is byte 3 of red; 0.55 is 22.9 % of the light, 58."""
    assert seen.rgb(0.3, "belly") == [3, 2, 0]
    assert seen.rgb(0.7, "belly")[0] == 58


def test_a_contact_that_bounces_does_not_choose(seen):
    assert seen.rgb(1.2, "belly")[2] == 0
    assert seen.rgb(1.2, "belly", 7) == [0, 0, 0]


def test_down_is_manual_and_up_is_return_in_full_light(seen):
    assert seen.rgb(1.7, "belly") == [0, 0, 3]
    assert seen.rgb(2.7, "belly") == [255, 0, 0]
    assert seen.rgb(1.7, "belly", 7) == [255, 255, 255]
    assert seen.rgb(3.7, "belly", 7) == [0, 255, 0]


def test_the_firmware_hears_all_of_it():
    design = fd.Design.from_values(tomllib.loads(DESIGN))
    assert [f for f in design.check() if f.code in ("never-heard", "pin-cannot")] == []
    board = make_project(design.examined.sound).files["board.c"]
    assert "signals->upper.value = (" in board
    assert "signals->knob.value = 1.0f + (raw - 0.1f) * -1.125f;" in board
