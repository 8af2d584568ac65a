"""What is known of signals on a tape, against values worked out by hand."""

from __future__ import annotations

import numpy as np

import fendra as fd

NAN = np.nan
TAPE = fd.Tape(
    np.array([1.0, 1.1, 1.2, 1.3]),
    {
        "a": np.array([NAN, 5.0, NAN, 7.0]),
        "b": np.array([2.0, 3.0, NAN, NAN]),
        "c": np.full(4, NAN),
    },
)


def test_heard_is_the_newest_value_and_whether_it_came_since_the_time_before():
    """Between 1.0 and 1.25 two values of b came: the newer one counts, once."""
    values, is_new = TAPE.heard(["a", "b", "c", "d"], np.array([0.9, 1.0, 1.25, 1.28, 1.3, 9.0]))
    assert values[:, 0].tolist() == [0, 0, 5, 5, 7, 7]
    assert values[:, 1].tolist() == [0, 2, 3, 3, 3, 3]
    assert is_new[:, 0].tolist() == [False, False, True, False, True, False]
    assert is_new[:, 1].tolist() == [False, True, True, False, False, False]
    assert not values[:, 2:].any()
    assert not is_new[:, 2:].any()


def test_a_row_counts_at_its_own_time_whatever_the_rounding():
    values, is_new = TAPE.heard(["a"], 1.0 + np.arange(4) / 10)
    assert values[:, 0].tolist() == [0, 5, 5, 7]
    assert is_new[:, 0].tolist() == [False, True, False, True]
