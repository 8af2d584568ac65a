"""Tapes from CSV."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from helpers import design


def read(tmp_path, text: str) -> fd.Tape:
    path = tmp_path / "ride.csv"
    path.write_text(text, encoding="utf-8")
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
        ("time,speed\n0,1\n0,1\n", "row 3: the time is the same as in the row before"),
        ("time,speed\n0,1\n,1\n", "row 3: the time is missing"),
        ("time,speed\n0,fast\n1,1\n", "row 2: column 'speed' has no number there ('fast')"),
        ("time,speed\n0,1\n1,inf\n", "row 3: column 'speed' has no number"),
        ("t,speed\n0,1\n", "no column `time`"),
        ("time,speed\n", "no rows under the header"),
        ("", "empty"),
        ("time,speed\n0,1\n1,2,3,4\n", "row 3 has 4 cells, the header has 2"),
        ("time,speed,speed\n0,1,2\n", "two columns are called 'speed'"),
        ("time,\n0,1\n", "a column has no name"),
    ],
)
def test_what_is_wrong_is_said_with_its_row(tmp_path, text, says):
    with pytest.raises(fd.TapeError) as caught:
        read(tmp_path, text)
    assert says in str(caught.value)


def test_all_problems_come_at_once_with_at_most_five_rows_each(tmp_path):
    rows = "".join(f"{i % 2},?\n" for i in range(20))
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
    said = fd.read_tape(path)
    assert said.words == {"mode": ("manual", "return", "off")}
    numbers = said.in_words_of({"mode": choices}).signals["mode"]
    assert numbers[[0, 2, 3]].tolist() == [0, 11, 5]
    with pytest.raises(fd.TapeError, match="column 'mode' of tape 'words' contains 'manual'"):
        said.in_words_of({"mode": {"hold": 0}})


@pytest.mark.parametrize(
    ("text", "times", "speed"),
    [
        ("time;speed\n0;1,5\n0,25;2\n", [0, 0.25], [1.5, 2]),
        ("# a ride\ntime,speed\n0,1\n# a stop\n2,3\n", [0, 2], [1, 3]),
        ("time\tspeed\n0\t1,5\n1\t-2,25\n", [0, 1], [1.5, -2.25]),
        ("\ufefftime_ms,speed\n0,1\n40,2\n", [0, 0.04], [1, 2]),
        ("time_s,speed\n" + "".join(f"{20 * i},{i}\n" for i in range(9)), [20 * i for i in range(9)],
         list(range(9))),
    ],
)  # fmt: skip
def test_other_ways_of_writing_a_tape(tmp_path, text, times, speed):
    """Semicolons and tabs with decimal commas, comments, milliseconds, and seconds that say so."""
    tape = read(tmp_path, text)
    assert tape.times.tolist() == pytest.approx(times)
    assert tape.signals["speed"].tolist() == speed


@pytest.mark.parametrize("step", [10, 20, 1000])
def test_times_that_look_like_milliseconds_are_asked_about(tmp_path, step):
    """Nobody waits for a film of hours; both cures are said."""
    rows = "".join(f"{step * i},{i}\n" for i in range(500))
    with pytest.raises(fd.TapeError, match=r"Call the column `time_ms` if they are, and `time_s`"):
        read(tmp_path, f"time,speed\n{rows}")


def test_a_tape_in_words_plays_on_the_design_that_knows_them(tmp_path):
    """Without a design the words are kept; the film shows the same as with it."""
    path = tmp_path / "gears.csv"
    path.write_text("time,gear\n0,park\n0.5,\n1,drive\n2,park\n")
    gear = {"kind": "choice", "choices": {"drive": 4, "park": 1}}
    layer = {"name": "g", "on": "all", "effect": "solid", "colour": "white", "level": "gear / 4"}
    lit = design(layer, signals={"gear": gear})
    alone = lit.compile().film(fd.read_tape(path))
    assert (alone.rgb == lit.compile().film(fd.read_tape(path, lit)).rgb).all()
    assert alone.rgb[0].max() < alone.rgb[60].max() == 255


def test_what_a_log_holds_beside_the_signals_of_a_design_is_in_nobodys_way(tmp_path):
    """Words, dates and a number that nobody knows; the signal's own column has to make sense."""
    path = tmp_path / "log.csv"
    rows = "".join(f"{i / 10},2026-11-{i % 28:02} 12:00:{i % 60:02},{'rain' if i % 2 else 'sun'},{i},7\n"
                   for i in range(90))  # fmt: skip
    path.write_text(f"time,date,weather,speed,other\n{rows}")
    layer = {"name": "g", "on": "all", "effect": "solid", "colour": "red", "level": "speed / 100"}
    lit = design(layer, signals={"speed": {"range": [0, 100]}})
    tape = fd.read_tape(path, lit)
    assert tape.signals["speed"].tolist() == list(range(90))
    assert tape.words == {"weather": ("sun", "rain")}
    assert np.isnan(tape.signals["date"]).all()
    assert (lit.compile().film(tape).rgb[:, 0, 0] > 0).any()
    path.write_text("time,date,speed\n0,today,fast\n")
    with pytest.raises(
        fd.TapeError, match=r"row 2: column 'speed' has no number there \('fast'\)$"
    ):
        fd.read_tape(path, lit)


def test_a_column_that_leaves_its_range_is_a_warning_with_the_cure(tmp_path):
    """A throttle in per cent against a range of 0 to 1: 3 of 4 values are held at 1."""
    path = tmp_path / "ride.csv"
    path.write_text("time,throttle\n0,0\n1,35\n2,60\n3,96\n")
    layer = {"name": "g", "on": "all", "effect": "solid", "colour": "red", "level": "throttle"}
    lit = design(layer, signals={"throttle": {"range": [0, 1]}})
    film = lit.compile().film(fd.read_tape(path))
    found = [each for each in lit.check(film) if each.code == "saturated"]
    assert [each.path for each in found] == [("signals", "throttle", "range")]
    assert "75% of the tape's values" in found[0].message
    assert found[0].remedy.startswith("Write range = [0, 96], or calibrate = [0, 96]")
