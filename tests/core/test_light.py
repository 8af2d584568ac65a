"""Colours, linear light and bytes."""

from __future__ import annotations

import numpy as np
import pytest

from fendra.core.light.bytes import quantise, wire_order
from fendra.core.light.colours import linear_to_srgb, parse_colour, srgb_to_linear


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
