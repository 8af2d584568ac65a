"""A turn indicator in step with its flasher relay, as docs/design-file.md shows it."""

DESIGN = """
name = "Indicators"
rate = 50

[[line]]
name = "bar"
led = "ws2812b"
part = [{ name = "bar", shape = "strip", start = [-190, 0], end = [190, 0], count = 20 }]

[trails]
left-out = { of = "x < 0", by = "-x" }
right-out = { of = "x > 0", by = "x" }

[signals.left]
kind = "switch"
lost_after = 0.5

[signals.right]
kind = "switch"
lost_after = 0.5

[presets.indicator]
effect = "turn"
colour = "#ff7a00"
run = 0.2
rate = 0.5
duty = 1

[[layer]]
name = "running"
on = "bar"
effect = "solid"
colour = "white"
level = 0.3
when = "not (hold(left, 0.45) or hold(right, 0.45))"

[[layer]]
name = "turn left"
on = "left-out"
preset = "indicator"
when = "left"

[[layer]]
name = "turn right"
on = "right-out"
preset = "indicator"
when = "right"
"""

PULSE_S = 0.34
LEFT = [1.0 + 0.68 * i for i in range(3)]
RIGHT = [1.0 + 0.68 * i for i in range(3, 5)]
BOTH = [8.0 + 0.68 * i for i in range(2)]


def pulses():
    """A row each 20 ms: left three times, then right twice without a pause; later both twice."""
    rows = ["time,left,right"]
    for i in range(550):
        at = i / 50
        left, right = (
            any(begin - 1e-9 <= at < begin + PULSE_S - 1e-9 for begin in begins + BOTH)
            for begins in (LEFT, RIGHT)
        )
        rows.append(f"{at:.2f},{left:d},{right:d}")
    return "\n".join(rows)


TAPE = pulses()


def orange(seen, at_s):
    """The LEDs that show the indicator."""
    return "".join("#" if r > 0 and b == 0 else "." for r, _, b in seen.bytes(at_s, "bar").tolist())


def test_each_flash_begins_and_ends_with_the_relay(seen):
    """Of the innermost LED on the left: lit from the first frame of a pulse to its last."""
    lit = [i / 50 for i in range(550) if orange(seen, i / 50)[9] == "#"]
    for begin in (*LEFT, *BOTH):
        assert any(abs(at - begin) < 0.021 for at in lit)
        assert not any(begin + PULSE_S <= at - 1e-9 < begin + 0.66 for at in lit)


def test_it_fills_outward_within_a_fifth_of_a_second(seen):
    assert orange(seen, 1.0) == ".........#.........."
    assert orange(seen, 1.1) == "....######.........."
    assert orange(seen, 1.18) == "##########.........."


def test_after_the_last_pulse_there_is_no_further_flash(seen):
    end = RIGHT[-1] + PULSE_S
    assert all("#" not in orange(seen, end + i / 50) for i in range(1, 180))


def test_from_left_to_right_both_are_never_on_at_once(seen):
    for i in range(round(7.5 * 50)):
        row = orange(seen, i / 50)
        assert not ("#" in row[:10] and "#" in row[10:])


def test_with_both_pulses_both_sides_run_as_one(seen):
    for at in (8.0, 8.1, 8.2, 8.7):
        row = orange(seen, at)
        assert row == row[::-1]
        assert "#" in row


def test_the_running_light_is_dark_from_the_first_pulse_to_the_last(seen):
    """Between two pulses as well, and back 0.45 s after the end of the last."""
    end = RIGHT[-1] + PULSE_S
    assert seen.rgb(0.5, "bar", 0) == [16, 16, 16]
    for i in range(50, round(end * 50) + 20):
        assert seen.rgb(i / 50, "bar", 0) in ([0, 0, 0], [255, 50, 0])
    assert seen.rgb(end + 0.5, "bar", 0) == [16, 16, 16]
