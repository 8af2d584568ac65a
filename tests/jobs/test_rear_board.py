"""A multirotor's rear board: pins in its own firmware, the radio's telemetry in the simulator's run.

A three-way switch chooses the flight mode; the battery is measured behind a divider; the landing
light is on a switch of the remote control, and at a pin. Which arm is which is seen by its colour.
"""

import tomllib

import fendra as fd
from fendra.firmware.project import make_project

DESIGN = """
name = "Rear board"
rate = 50

[controllers.rear]
type = "atmega328p"

[supplies.bec]
amps = 2

[sources.radio]
type = "lines"
address = "/dev/ttyUSB0"
columns = ["stick", "volts", "land", "gyro[0]", "gyro[1]"]

[assemblies.arm]

[[assemblies.arm.part]]
name = "top"
shape = "strip"
start = [60, 0]
direction = "right"
count = 5
pitch = 12
skip = [1]

[[line]]
name = "arms"
pin = "D6"
supply = "bec"

[[line.part]]
name = "arm-front"
shape = "assembly"
use = "arm"
turn = 45

[[line.part]]
name = "arm-rear"
shape = "assembly"
use = "arm"
turn = 225
reverse = true

[signals.mode]
kind = "choice"
choices = ["level", "acro", "return"]
source = { name = "radio:stick", bands = [-0.4, 0.4] }
pin = { name = "A0", bands = [0.3, 0.7] }
fallback = "return"
lost_after = 0.6

[signals.cell]
cells = "guess"
range = [3.3, 4.2]
source = "radio:volts"
pin = { name = "A1", curve = [[0, 0], [1, 26]] }

[signals.land]
kind = "switch"
source = { name = "radio:land", invert = true }
pin = "D2"

[signals.gyro]
kind = "vector"
size = 2
range = [-1, 1]
source = "radio:gyro"

[signals.low]
kind = "choice"
choices = ["fine", "soon", "now"]
of = { now = "cell < 3.5", soon = "cell < 3.7", else = "fine" }

[[layer]]
name = "mode"
on = "arm-front"
effect = "solid"
colour = { by = "mode", level = "blue", acro = "red", return = "lime" }

[[layer]]
name = "charge"
on = "arm-rear"
effect = "gauge"
value = "ramp(cell, 3.3, 4.2)"
whole = true
colours = ["'red' if low == 'now' else 'gold' if low == 'soon' else 'lime'"]

[[layer]]
name = "landing light"
on = "arm-*.top[4]"
effect = "solid"
colour = "white"
when = "land"

[[layer]]
name = "which way it drifts"
on = "arm-front.top[0]"
effect = "solid"
colour = "rgb(0, abs(gyro[mode == 'acro']), 0)"
when = "abs(gyro[mode == 'acro']) > 0.5"
"""

TAPE = """time,mode,cell,land,gyro[0],gyro[1]
0,level,12.45,0,0,0
1,acro,12.45,1,0.75,0.1
2,2,10.8,0,0.1,-0.75
2.1,,10.35,,,
"""

BLUE, RED, LIME, WHITE, DARK = [0, 0, 255], [255, 0, 0], [0, 255, 0], [255] * 3, [0] * 3


def test_the_mode_is_the_front_arm_s_colour_and_return_when_the_radio_is_silent(seen):
    assert seen.bytes(0.5, "arm-front.top").tolist() == [BLUE] * 4
    assert seen.rgb(1.5, "arm-front.top", 1) == RED
    assert seen.rgb(2.05, "arm-front.top", 1) == LIME


def test_three_cells_are_counted_and_the_rear_arm_is_full_from_its_root_on(seen):
    """12.45 V are three of 4.15 V: 0.944 of 4 is 3.8, so 4 of the four that are seen. 3.6 V is a
    third: one, and gold; 3.45 V a sixth: one, red. The arm is fed from its tip: no matter."""
    assert seen.bytes(0.5, "arm-rear.top").tolist() == [LIME] * 4
    assert seen.lit(2.05, "arm-rear.top") == "#..."
    assert seen.rgb(2.05, "arm-rear.top") == [255, 173, 0]
    assert seen.rgb(2.2, "arm-rear.top") == RED


def test_the_landing_light_is_the_tip_of_both_arms(seen):
    for part in ("arm-front.top", "arm-rear.top"):
        assert seen.rgb(1.5, part, 3) == WHITE
    assert seen.rgb(2.05, "arm-front.top", 3) == LIME


def test_the_gyro_that_counts_is_chosen_by_the_mode(seen):
    """In acro the second one, 0.1: no drift light. In return the first one again: 0.1 as well."""
    assert seen.rgb(1.5, "arm-front.top") == RED
    assert seen.rgb(2.05, "arm-front.top") == LIME


def test_the_wire_meets_the_rear_arm_at_its_tip(seen):
    """Five addresses to the front arm's tip, whose second one is dark; then the rear one's tip."""
    layout = seen.film.layout
    rear = layout.rows_of_part("arm-rear.top")
    assert layout.address[rear].tolist() == [9, 7, 6, 5]
    assert layout.skipped("arms") == [1, 8]


def test_the_firmware_hears_all_but_the_gyro():
    """At the pins: the mode by thirds of the voltage, the pack by its divider, the light by ground."""
    design = fd.Design.from_values(tomllib.loads(DESIGN))
    (note,) = [f for f in design.check() if f.code == "never-heard"]
    assert "never receives 'gyro': it has no pin" in note.message
    board = make_project(design.examined.sound).files["board.c"]
    assert "signals->mode.value = raw < 0.3f ? 0.0f : raw < 0.7f ? 1.0f : 2.0f;" in board
    assert "raw <= 0.0f ? 0.0f : raw < 1.0f ? raw * 26.0f : 26.0f;" in board
    assert "signals->land.value = (PIND & (1u << 2)) == 0u ? 1.0f : 0.0f;" in board
    own = make_project(design.examined.sound, "generic").files["board.c"]
    assert "signals->cell: 3.3 to 4.2; pin A1: raw <= 0.0f ? 0.0f : raw < 1.0f ? raw * 26.0f" in own
    assert "pin D2: 1 when it is connected to ground" in own
