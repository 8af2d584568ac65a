"""Colours, linear light and bytes."""

from __future__ import annotations

import numpy as np
import pytest

from fendra.core.light.bytes import MANY, quantise, set_white_apart, wire_order
from fendra.core.light.colours import (
    linear_to_srgb,
    pack_colour,
    parse_colour,
    srgb_bytes,
    srgb_to_linear,
)


@pytest.mark.parametrize(
    ("text", "linear"),
    [
        ("red", (1, 0, 0)),
        ("#000", (0, 0, 0)),
        ("#FFF", (1, 1, 1)),
        ("RebeccaPurple", (0.13287, 0.0331, 0.31855)),  # #663399
        ("#808080", (0.21586, 0.21586, 0.21586)),  # IEC 61966-2-1: ((128/255 + .055) / 1.055)**2.4
        ("#0a0a0a", (0.00304, 0.00304, 0.00304)),  # the straight piece: 10 / 255 / 12.92
    ],
)
def test_colours_are_srgb_in_text_and_linear_inside(text, linear):
    assert parse_colour(text) == pytest.approx(linear, abs=5e-5)


@pytest.mark.parametrize("text", ["", "#12", "#12345", "rde", "1, 2, 3", "#gggggg"])
def test_anything_else_is_no_colour(text):
    with pytest.raises(ValueError, match=r".*"):
        parse_colour(text)


def test_srgb_and_linear_light_are_inverse():
    levels = np.linspace(0, 1, 256)
    assert linear_to_srgb(srgb_to_linear(levels)) == pytest.approx(levels, abs=1e-7)


def test_light_becomes_the_nearest_byte_and_nothing_else():
    """Rounded to the nearest after the master level; out of range is full or dark."""
    light = np.array([[0, 0.5, 1, 1.7], [-3, 0.1, np.nan, 2.0 / 255], [np.inf, -np.inf, 0, 0]])
    out = np.empty((4, 3), np.uint8)
    scratch = np.empty((3, 4), np.float32), np.empty((3, 4), np.uint8)
    quantise(light.astype(np.float32), np.float32(1), *scratch, out)
    assert out.T.tolist() == [[0, 128, 255, 255], [0, 26, 0, 2], [255, 0, 0, 0]]
    quantise(light.astype(np.float32), np.float32(0.5), *scratch, out)
    assert out[:, 0].tolist() == [0, 64, 128, 217]


def test_wire_order_is_the_order_of_the_chip():
    pixels = np.array([[1, 2, 3], [4, 5, 6]], np.uint8)
    assert wire_order(pixels, "BRG").tolist() == [[3, 1, 2], [6, 4, 5]]


# ---- Channels that are all unlike -----------------------------------------------------------------------


@pytest.mark.parametrize("count", [3, MANY, MANY + 3])
def test_every_led_has_its_own_channels_in_their_order(count):
    """Few LEDs and many go by ways of their own; a byte is rounded at its half."""
    steps = np.arange(count) % 200
    light = np.stack([steps, steps + 20.4, steps + 40.6]).astype(np.float32) / np.float32(255)
    out = np.empty((count, 3), np.uint8)
    scratch = np.empty((3, count), np.float32), np.empty((3, count), np.uint8)
    quantise(light, np.float32(1), *scratch, out)
    assert (out == np.stack([steps, steps + 20, steps + 41], axis=1)).all()


def test_what_is_no_number_is_dark_for_many_leds_too():
    light = np.full((3, MANY), np.nan, np.float32)
    out = np.empty((MANY, 3), np.uint8)
    quantise(light, np.float32(1), np.empty_like(light), np.empty((3, MANY), np.uint8), out)
    assert not out.any()


def test_white_is_what_all_three_have_in_common_wherever_its_letter_stands():
    pixels = np.array([[9, 8, 5], [4, 7, 6]], np.uint8)
    assert wire_order(pixels, "GRBW").tolist() == [[3, 4, 0, 5], [3, 0, 2, 4]]
    assert wire_order(pixels, "WRGB").tolist() == [[5, 4, 3, 0], [4, 0, 3, 2]]
    assert set_white_apart(np.array([9.0, 8.0, 5.0])).tolist() == [4, 3, 0, 5]


def test_colours_between_and_beyond_their_ends():
    """IEC 61966-2-1 on both of its pieces, and what is beyond is held."""
    assert srgb_to_linear(0.04) == pytest.approx(0.04 / 12.92)
    assert srgb_to_linear(0.2) == pytest.approx(((0.2 + 0.055) / 1.055) ** 2.4)
    assert linear_to_srgb(0.003) == pytest.approx(0.03876)
    assert linear_to_srgb(0.2) == pytest.approx(1.055 * 0.2 ** (1 / 2.4) - 0.055)
    assert linear_to_srgb(np.array([-1.0, 2.0])) == pytest.approx([0, 1])
    assert srgb_bytes(" #FF8A00 ") == (255, 138, 0)
    assert srgb_bytes(" DarkOrange\t") == (255, 140, 0)
    assert srgb_bytes("RebeccaPurple") == (102, 51, 153)
    assert pack_colour(1, 2, 3) == 0x010203
