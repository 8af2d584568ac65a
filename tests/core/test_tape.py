"""What is known of signals on a tape, against values worked out by hand."""

from __future__ import annotations

import numpy as np

import fendra as fd
from fendra.core.signals.tape import TapeReader

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


def test_the_last_word_of_each_signal_and_when_it_came():
    assert TAPE.last(1.15) == {"a": (5.0, 1.1), "b": (3.0, 1.1)}
    assert TAPE.last(1.25) == {"a": (5.0, 1.1), "b": (3.0, 1.1)}
    assert TAPE.last(1.0) == {"b": (2.0, 1.0)}
    assert TAPE.last(0.9) == {}


def test_the_beginning_of_a_tape_goes_up_to_its_end_and_with_it():
    part = TAPE.until(1.2)
    assert part.times.tolist() == [1.0, 1.1, 1.2]
    assert part.signals["a"].tolist()[1] == 5.0
    assert TAPE.until(1.19).end_s == 1.1


def test_a_value_counts_from_its_row_on_and_nothing_before():
    """Nothing was heard of `a` at 1.0: 0, and no news."""
    values, is_new = TAPE.heard(["a", "b"], np.array([1.0, 1.05]))
    assert values.tolist() == [[0, 2], [0, 2]]
    assert is_new.tolist() == [[False, True], [False, False]]
    values, is_new = TAPE.heard(["b"], np.array([0.5]))
    assert (values.tolist(), is_new.tolist()) == ([[0]], [[False]])


def test_a_reader_gives_the_newest_since_it_was_asked():
    reader = TapeReader(TAPE)
    assert reader.news_until(1.15) == {"a": 5.0, "b": 3.0}
    assert reader.news_until(1.15) == {}
    assert reader.news_until(1.3) == {"a": 7.0}
