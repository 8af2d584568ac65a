"""Names, values and findings: the small words that everything else is said in."""

from __future__ import annotations

import pytest
from pydantic import TypeAdapter, ValidationError

from fendra.core.findings import Finding, Report, Severity, errors_of, line_of, with_places
from fendra.core.names import NAME, counted, did_you_mean, in_words, listed, nearest, truth_of
from fendra.core.values import Name, Point, Title, Vector, one_of


@pytest.mark.parametrize(
    ("text", "truth"),
    [("on", True), (" TRUE ", True), ("yes", True), ("High", True), ("off", False), ("no", False),
     ("false", False), ("low\n", False), ("1", None), ("", None)],
)  # fmt: skip
def test_words_for_truth(text, truth):
    assert truth_of(text) is truth


def test_things_are_counted_and_listed():
    assert [counted(n, "address") for n in (0, 1, 2)] == ["0 addresses", "1 address", "2 addresses"]
    assert listed(["a", "b", "c", "d"]) == "a, b, c and d"


def test_the_nearest_name_is_given_as_it_is_written():
    assert nearest("BRAKE", ["Brake", "speed"]) == "Brake"
    assert nearest("tail bar", ["Tail-Bar"]) == "Tail-Bar"
    assert nearest("x", ["Brake"]) is None
    names = [f"name{i:02}" for i in range(41)]
    assert did_you_mean("q", names[:40], "names") == f"The names are: {', '.join(names[:40])}."
    assert did_you_mean("q", names, "names").endswith("name39, ....")
    assert did_you_mean("q", [], "names") == "There are no names yet."


@pytest.mark.parametrize(
    ("name", "is_one"),
    [("tail bar", True), ("a.b-c_1", True), ("größe", True), ("3rd", True), (" a", False),
     ("-a", False), ("", False), ("a/b", False), ("a[0]", False)],
)  # fmt: skip
def test_names_of_parts(name, is_one):
    assert bool(NAME.fullmatch(name)) is is_one
    try:
        assert TypeAdapter(Name).validate_python(name) == name
    except ValidationError:
        assert not is_one


@pytest.mark.parametrize(
    ("title", "is_one"),
    [("x" * 80, True), ("x" * 81, False), ("  ", False), ("a\nb", False), ("a/b", True)],
)
def test_titles_are_one_line_of_80_characters(title, is_one):
    try:
        assert TypeAdapter(Title).validate_python(title) == title
        assert is_one
    except ValidationError:
        assert not is_one


def test_points_and_directions():
    assert TypeAdapter(Point).validate_python([3, 4]) == (3, 4, 0)
    assert TypeAdapter(Point).validate_python([3, 4, 5]) == (3, 4, 5)
    assert TypeAdapter(Vector).validate_python([0, 4, 0]) == (0, 4, 0)
    with pytest.raises(ValidationError, match="length 0"):
        TypeAdapter(Vector).validate_python([0, 0, 0])


def test_a_value_in_several_ways_is_told_by_what_it_is():
    either = TypeAdapter(one_of(text=str, numbers=tuple[int, int], list=list[str], number=int))
    assert either.validate_python("a") == "a"
    assert either.validate_python((1, 2)) == (1, 2)
    assert either.validate_python(["a"]) == ["a"]
    assert either.validate_python(7) == 7


def test_values_as_a_message_says_them():
    assert in_words(False) == "false"
    assert in_words({"a": 1}) == "a table"
    assert in_words(["a", "b", "c"]) == "a list of 3"
    assert in_words(2.50) == "2.5"


LINES = {("line", 0): 4, ("line", 0, "part", 1): 9, ("line", 0, "part", 1, "count"): 12}


@pytest.mark.parametrize(
    ("path", "line"),
    [(("line", 0, "part", 1, "count"), 12), (("line", 0, "part", 1, "pitch"), 9),
     (("line", 0, "part", 0), 4), (("line", 1), None), ((), None)],
)  # fmt: skip
def test_a_path_is_at_the_line_of_its_longest_known_beginning(path, line):
    assert line_of(path, LINES) == line
    (found,) = with_places([Finding("x", Severity.NOTE, "m", path=path)], "d.toml", LINES)
    assert (found.file, found.line) == ("d.toml", line or 1)


def test_a_finding_is_said_once_and_with_all_that_is_known_of_it():
    report = Report()
    for _ in range(2):
        report.error(("line", 0, "part", 2, "count"), "x", "wrong.", "Mend it.", "    ab\n     ^")
    report.warning((), "y", "odd.")
    report.note(("a",), "z", "so.")
    error, warning, note = report
    assert str(error) == "error: line[1].part[3].count: wrong. Mend it.\n    ab\n     ^"
    (placed,) = with_places([error], "d.toml", LINES)
    assert str(placed).startswith("d.toml:4: error: ")
    assert (str(warning), str(note)) == ("warning: odd.", "note: a: so.")
    assert errors_of(report) == [error]
    assert error.to_dict()["path"] == ["line", 0, "part", 2, "count"]
    assert error.to_dict()["severity"] == "error"
