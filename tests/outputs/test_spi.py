"""SPI: what LEDs hear, by the stand-in's decoder; and the devices that are there or not."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.catalogue.leds import LED_TYPES
from fendra.demo.spi_strip import PulseError, read_clocked, read_one_wire
from fendra.outputs import make_output
from fendra.outputs.spi import clocked, one_wire
from helpers import design, layer, strip

WS2812B = LED_TYPES["ws2812b"]


@given(st.binary(min_size=1, max_size=200))
def test_a_line_is_heard_as_it_was_sent(line):
    data = one_wire(np.frombuffer(line, np.uint8), WS2812B, 2_400_000)
    assert read_one_wire(data, 2_400_000, reset_s=WS2812B.reset_s) == [line]


def test_pulses_are_within_tolerance_at_the_usual_clock_and_not_at_any():
    """2.4 MHz: 417 and 833 ns, where 400 and 800 +-150 are wanted. 1.6 MHz: 625 and 1250 ns, neither;
    4 MHz: 250 and 500 ns, and every bit is heard as a 0."""
    line = np.array([0xA5], np.uint8)
    for speed_hz in (2_400_000, 2_200_000):
        data = one_wire(line, WS2812B, speed_hz)
        assert read_one_wire(data, speed_hz, reset_s=WS2812B.reset_s) == [b"\xa5"]
    with pytest.raises(PulseError, match="high for 1250 ns"):
        read_one_wire(one_wire(line, WS2812B, 1_600_000), 1_600_000, reset_s=WS2812B.reset_s)
    fast = one_wire(line, WS2812B, 4_000_000)
    assert read_one_wire(fast, 4_000_000, reset_s=WS2812B.reset_s) == [b"\0"]


@given(st.integers(1, 400))
def test_clocked_leds_get_their_colours_and_enough_clocks(count):
    line = (np.arange(3 * count) % 251).astype(np.uint8)
    shown = read_clocked(clocked(line, 3), count)
    assert b"".join(shown) == line.tobytes()


def test_frames_go_to_a_file_in_the_place_of_a_device(tmp_path):
    made = design(layer(colour="#ff0000"), count=3)
    path = tmp_path / "spi"
    path.write_bytes(b"")
    with make_output(f"spi:{path}") as output:
        output.open(made)
        output.send(made.compile().frame())
        output.send(made.compile().frame())
    shown = read_one_wire(path.read_bytes(), 2_400_000, reset_s=WS2812B.reset_s)
    assert shown == [bytes([0, 255, 0] * 3)] * 2  # GRB


def test_a_clocked_line_goes_as_it_is(tmp_path):
    line = [{"name": "a", "led": "apa102", "part": [strip(count=40)]}]
    made = design(layer(colour="#0000ff"), line=line)
    path = tmp_path / "spi"
    path.write_bytes(b"")
    with make_output(f"spi:{path}") as output:
        output.open(made)
        output.send(made.compile().frame())
        assert output.most_frames_hz(made) > 2000
    assert read_clocked(path.read_bytes(), 40) == [b"\xff\0\0"] * 40  # BGR


def test_a_device_drives_one_line(tmp_path):
    lines = [{"name": name, "part": [strip(f"{name}-bar")]} for name in ("a", "b")]
    made = design(layer(), line=lines)
    path = tmp_path / "spi"
    path.write_bytes(b"")
    with pytest.raises(
        fd.OutputError, match="takes one line; say which, as in lines=NAME, of a, b"
    ):
        make_output(f"spi:{path}").open(made)
    with make_output(f"spi:{path},lines=b") as output:
        output.open(made)
        assert output.wire.lines == (1,)


def test_a_device_that_is_not_there_is_said():
    if Path("/dev/spidev0.7").exists():
        pytest.skip("there is one")
    with pytest.raises(fd.OutputError, match=r"there is no SPI /dev/spidev0\.7"):
        make_output("spi:/dev/spidev0.7").open(design(layer()))
