"""Raw values: what each kind of signal takes, and what it refuses."""

from __future__ import annotations

import math

import numpy as np
import pytest

from fendra.core.document.signal import Signal
from fendra.core.errors import SignalError
from fendra.core.signals.inputs import inputs_of
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.raw import Event
from fendra.core.signals.values import to_numbers
from helpers import design, layer, strip

WORDS = {"kind": "choice", "choices": {"calm": 3, "wild": 7}}


@pytest.mark.parametrize(
    ("keys", "raw", "numbers"),
    [
        ({}, 3, {"s": 3.0}),
        ({}, " 3.5 ", {"s": 3.5}),
        ({}, np.float32(0.5), {"s": 0.5}),
        ({}, math.nan, {}),
        ({}, None, {}),
        ({}, 1e300, {"s": 1e9}),
        ({"kind": "switch"}, True, {"s": 1.0}),
        ({"kind": "switch"}, "OFF", {"s": 0.0}),
        (WORDS, "wild", {"s": 7.0}),
        (WORDS, "3", {"s": 3.0}),
        (WORDS, 3, {"s": 3.0}),
        ({"kind": "colour"}, "orange", {"s": float(0xFFA500)}),
        ({"kind": "colour"}, [255, 128, 0], {"s": float(0xFF8000)}),
        ({"kind": "colour"}, [1.0, 0.5, 0.0], {"s": float(0xFF8000)}),
        ({"kind": "event"}, 0.5, {"s": 0.5}),
        ({"kind": "event"}, Event(0.5, 1, 2, 3), {"s": 0.5, "s.x": 1, "s.y": 2, "s.z": 3}),
        ({"kind": "vector", "size": 2}, (1, "2"), {"s[0]": 1.0, "s[1]": 2.0}),
    ],
)
def test_values_become_the_numbers_of_a_signal(keys, raw, numbers):
    assert to_numbers("s", Signal(**keys), raw) == numbers


@pytest.mark.parametrize(
    ("keys", "raw", "problem"),
    [
        ({}, "fast", "needs a number, but got 'fast'"),
        ({}, math.inf, "finite"),
        ({}, [1, 2], "needs a number"),
        (WORDS, "wilt", "Did you mean 'wild'?"),
        ({"kind": "colour"}, "orang", "needs a colour"),
        ({"kind": "colour"}, 0x1000000, "from 0 to 0xffffff"),
        ({"kind": "colour"}, [1, 2], "three numbers, but got 2"),
        ({"kind": "event"}, {"w": 1}, "has strength, x, y and z, and no w"),
        ({"kind": "vector", "size": 2}, [1, 2, 3], "needs 2 numbers, but got 3"),
        ({"kind": "vector", "size": 2}, "12", "needs 2 numbers, but got '12'"),
    ],
)
def test_what_is_no_value_is_said(keys, raw, problem):
    with pytest.raises(SignalError) as caught:
        to_numbers("s", Signal(**keys), raw)
    assert problem in str(caught.value)


@pytest.mark.parametrize(
    ("keys", "raw", "numbers"),
    [
        ({}, -1e300, {"s": -1e9}),
        ({"kind": "switch"}, " High ", {"s": 1.0}),
        ({"kind": "switch"}, "low", {"s": 0.0}),
        ({"kind": "colour"}, [1, 2, 3], {"s": float(0x010203)}),
        (
            {"kind": "colour"},
            [1.0, 0, 0.2],
            {"s": float(0xFF0033)},
        ),  # one share makes all of them so
        ({"kind": "colour"}, [0, 0.5, 2], {"s": float(0x0080FF)}),
        ({"kind": "colour"}, [300, -5, 7], {"s": float(0xFF0007)}),
        ({"kind": "colour"}, [128.0, 0.0, 7.0], {"s": float(0x800007)}),
        ({"kind": "event"}, {"y": 2}, {"s": 1.0, "s.x": 0, "s.y": 2, "s.z": 0}),
        (
            {"kind": "event"},
            {"strength": 0.25, "z": -1},
            {"s": 0.25, "s.x": 0, "s.y": 0, "s.z": -1},
        ),
    ],
)
def test_lopsided_values_become_the_numbers_of_a_signal(keys, raw, numbers):
    assert to_numbers("s", Signal(**keys), raw) == numbers


def test_what_a_signal_is_while_it_is_lost():
    """A choice its lowest number, or the word that is said; a number what is said, in its range."""
    for keys, value in (
        ({"kind": "choice", "choices": {"a": 4, "b": 2}}, 2),
        ({"kind": "choice", "choices": {"a": 4, "b": 2}, "fallback": "a"}, 4),
        ({"kind": "choice", "choices": ["a", "b"], "fallback": 1}, 1),
        ({"range": [2, 5]}, 2), ({"range": [2, 5], "fallback": 9}, 5), ({"fallback": -3}, -3),
    ):  # fmt: skip
        signal = Signal(**keys)
        assert kind_of(signal).fallback(signal) == value, keys


def test_where_a_signal_may_come_from():
    """By a name, several, or a table that says more; without any by its own, of any source."""
    names = [
        [given.name for given in Signal(source=source).sources]
        for source in ("a:b", ["a:b", "", {"name": "c:d"}], {"invert": True}, "")
    ]
    assert names == [["a:b"], ["a:b", "c:d"], [""], [""]]


@pytest.mark.parametrize("curve", [[[0, 1]], [[0, 1], [0, 2]], [[1, 0], [0, 2]]])
def test_a_curve_ascends(curve):
    with pytest.raises(ValueError, match="ascending"):
        Signal(curve=curve)


def test_pins_belong_to_the_first_controller_unless_another_is_said():
    made = design(
        layer(), controllers={"one": {}, "two": {}},
        line=[{"name": "l", "controller": "one", "part": [strip()]}],
        signals={"a": {"pin": "P1"}, "b": {"kind": "switch", "pin": {"name": "P2", "controller": "two"}}},
    )  # fmt: skip
    assert [*inputs_of(made, "one")] == ["a"]
    assert [*inputs_of(made, "two")] == ["b"]
    assert (inputs_of(made, "one")["a"].kind, inputs_of(made, "two")["b"].kind) == (
        "analogue",
        "switch",
    )
