"""Tapes from CSV."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from helpers import design


def read(tmp_path, text: str) -> fd.Tape:
    path = tmp_path / "ride.csv"
    path.write_text(text)
    return fd.read_tape(path)


def test_empty_cells_are_no_news_and_words_are_switches(tmp_path):
    tape = read(tmp_path, "time, speed, left\n0, 1.5, on\n0.5,, off\n1.0, 2, \n")
    assert tape.times.tolist() == [0, 0.5, 1]
    assert [row for _, row in tape.news()] == [{"speed": 1.5, "left": 1}, {"left": 0}, {"speed": 2}]
    assert tape.last(0.7) == {"speed": (1.5, 0.0), "left": (0.0, 0.5)}
    assert tape.duration_s == 1


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("time,speed\n0,1\n2,1\n1,1\n", "row 4: the time is before that of the row before"),
        ("time,speed\n0,1\n0,1\n", "row 3: the time is that of the row before"),
        ("time,speed\n0,1\n,1\n", "row 3: the time is missing"),
        ("time,speed\n0,fast\n1,1\n", "row 2: column 'speed' holds no number there ('fast')"),
        ("time,speed\n0,1\n1,inf\n", "row 3: column 'speed' holds no number"),
        ("t,speed\n0,1\n", "no column `time`"),
        ("time,speed\n", "no rows under the header"),
        ("", "empty"),
        ("time,speed\n0,1\n1,2,3,4\n", "no CSV"),
        ("time,speed,speed\n0,1,2\n", "two columns are called 'speed'"),
        ("time,\n0,1\n", "a column has no name"),
    ],
)
def test_what_is_wrong_is_said_with_its_row(tmp_path, text, says):
    with pytest.raises(fd.TapeError) as caught:
        read(tmp_path, text)
    assert says in str(caught.value)


def test_all_problems_come_at_once_with_at_most_five_rows_each(tmp_path):
    rows = "".join(f"{i % 2},x\n" for i in range(20))
    with pytest.raises(fd.TapeError) as caught:
        read(tmp_path, f"time,speed\n{rows}")
    first, second = str(caught.value).split("\n")
    assert "rows 2, 3, 4, 5, 6 and 15 more" in first
    assert "rows 4, 6, 8, 10, 12 and 4 more" in second


def test_a_missing_tape_is_one_line(tmp_path):
    with pytest.raises(fd.FileError, match="there is no file"):
        fd.read_tape(tmp_path / "none.csv")


def test_the_ride_is_what_the_readme_says():
    """90 s, 20 rows a second, three seconds without news."""
    ride = fd.read_tape(fd.demo_file("ride.csv"))
    assert len(ride.times) == 1801
    assert np.diff(ride.times) == pytest.approx(np.full(1800, 0.05))
    silent = np.all([np.isnan(values) for values in ride.signals.values()], axis=0)
    assert ride.times[silent][[0, -1]].tolist() == [47.0, 49.95]
    assert set(np.unique(ride.signals["left"][~silent])) == {0, 1}


def test_a_tape_of_python_values_is_checked_at_the_door():
    with pytest.raises(fd.TapeError, match=r"shape \(2,\)"):
        fd.Tape(np.array([0.0]), {"s": np.zeros(2)})
    with pytest.raises(fd.TapeError, match="ascend"):
        fd.Tape(np.array([1.0, 0.0]), {})
    with pytest.raises(fd.TapeError, match="infinity"):
        fd.Tape(np.array([1.0]), {"s": np.array([np.inf])})


def test_words_of_a_choice_stand_for_their_numbers(tmp_path):
    path = tmp_path / "words.csv"
    path.write_text("time,mode,armed\n0,manual,on\n1,,off\n2,return,on\n3,off,yes\n")
    choices = {"manual": 0, "return": 11, "off": 5}
    tape = fd.read_tape(path, design(signals={"mode": {"kind": "choice", "choices": choices}}))
    assert tape.signals["mode"][[0, 2, 3]].tolist() == [0, 11, 5]
    assert np.isnan(tape.signals["mode"][1])
    assert tape.signals["armed"].tolist() == [1, 0, 1, 1]
    with pytest.raises(fd.TapeError, match=r"\('manual', 'return'\); its words are hold"):
        fd.read_tape(path, design(signals={"mode": {"kind": "choice", "choices": ["hold"]}}))
    with pytest.raises(fd.TapeError, match=r"holds no number there \('manual', 'return'\)"):
        fd.read_tape(path)
