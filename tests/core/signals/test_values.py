"""Raw values: what each kind of signal takes, and what it refuses."""

from __future__ import annotations

import math

import numpy as np
import pytest

from fendra.core.document.signal import Signal
from fendra.core.errors import SignalError
from fendra.core.signals.raw import Event
from fendra.core.signals.values import to_numbers

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
        ({}, "fast", "needs a number, and got 'fast'"),
        ({}, math.inf, "finite"),
        ({}, [1, 2], "needs a number"),
        (WORDS, "wilt", "Did you mean 'wild'?"),
        ({"kind": "colour"}, "orang", "needs a colour"),
        ({"kind": "colour"}, 0x1000000, "from 0 to 0xffffff"),
        ({"kind": "colour"}, [1, 2], "three numbers, and got 2"),
        ({"kind": "event"}, {"w": 1}, "has strength, x, y and z, and no w"),
        ({"kind": "vector", "size": 2}, [1, 2, 3], "needs 2 numbers, and got 3"),
        ({"kind": "vector", "size": 2}, "12", "needs 2 numbers, and got '12'"),
    ],
)
def test_what_is_no_value_is_said(keys, raw, problem):
    with pytest.raises(SignalError) as caught:
        to_numbers("s", Signal(**keys), raw)
    assert problem in str(caught.value)
