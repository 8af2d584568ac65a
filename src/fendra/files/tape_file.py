"""Tapes in CSV files: a column `time` in seconds, and a column a signal."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from pathlib import Path

import numpy as np

from fendra.core.arrays import Floats, Ints, Truths
from fendra.core.document.design import Design
from fendra.core.errors import TapeError
from fendra.core.graph.ops import LARGEST
from fendra.core.light.colours import heard_colour
from fendra.core.limits import SIGNALS, TAPE_BYTES
from fendra.core.names import truth_of
from fendra.core.signals.inputs import colours, fed, words
from fendra.core.signals.kinds.colour import WAYS
from fendra.core.signals.tape import Tape
from fendra.whole import read_text

TIME = "time"
TIMES_S = {"time": 1.0, "time_s": 1.0, "time_ms": 0.001}
"""Names of the column of times, and their units in seconds."""
_SHOWN = 5
_PROBABLY_MS = (10.0, 1000.0)
"""Rows that lie so far apart, all at whole numbers, are probably in milliseconds."""
_FEWEST = 6
"""Rows from which on that is asked."""
_MOST_WORDS = 64
"""Words of a column that no design knows."""


def read_tape(path: str | Path, design: Design | None = None) -> Tape:
    """Read the tape of a CSV file. An empty cell is no news; lines that begin with # are skipped.

    Commas, semicolons or tabs separate cells; with semicolons and tabs, numbers may have a decimal
    comma. The times are in seconds, in a column `time` or `time_s`, or in milliseconds in
    `time_ms`.

    `true`, `on` and `yes` are 1, `false`, `off` and `no` are 0. A colour, such as `#ff8a00`,
    `ff8a00`, `255,138,0` in quotes or `orange`, is 0xff8a00. An event `hit` may have columns
    `hit.x`, `hit.y` and `hit.z`; a vector `sound` has `sound[0]` and so on.

    Args:
        path: the file
        design: its signals name the columns: which hold words of a choice, and which hold colours.
            Values that make no sense in a column that is not a signal count as no news. Without a
            design, a column of words keeps them as `Tape.words`, until a design plays it.

    Raises:
        FileError: the file cannot be read
        TapeError: times are missing, double or out of order, or a cell is not a number; it names
            the rows

    >>> from fendra.demo import demo_file
    >>> ride = read_tape(demo_file("ride.csv"))
    >>> ride.duration_s, list(ride.signals)[:3]
    (90.0, ['speed', 'rpm', 'throttle'])
    """
    path = Path(path)
    heads, rows, numbers, has_commas = _read_cells(path)
    problems = _header_problems(heads)
    if not problems and not rows:
        problems.append("there are no rows under the header")
    texts: dict[str, tuple[str, ...]] = {}
    if not problems:
        table = dict(zip(heads, map(list, zip(*rows, strict=True)), strict=True))
        time = next(name for name in heads if name in TIMES_S)
        known = {} if design is None else words(design)
        heard = {time} if design is None else {time, *fed(design), *design.signals}
        packed = {name for name in table if name not in heard and _holds_colours(table[name])}
        packed |= set() if design is None else colours(design)
        read = _plain_comma if has_commas else _plain
        columns = {}
        for name, cells in table.items():
            own = known.get(name, {})
            if name not in heard and name not in packed:
                texts[name] = _only_words(cells, read)
                own = {word: i for i, word in enumerate(texts[name])}
            column = _Column(name, cells, numbers, own, name in packed)
            is_wanted = design is None or name in heard
            columns[name] = column.values(read, problems if is_wanted else [])
        times = columns.pop(time)
        problems += _time_problems(times, numbers)
        if not problems and time == TIME:
            problems += _unit_problems(times)
        times = times * TIMES_S[time]
    if problems:
        raise TapeError("\n".join(f"{path}: {problem}" for problem in problems))
    return Tape(times, columns, path.stem, {name: each for name, each in texts.items() if each})


def _read_cells(path: Path) -> tuple[list[str], list[list[str]], Ints, bool]:
    """The header, the rows, their numbers as an editor counts them, and whether numbers may have
    decimal commas.
    """
    text = read_text(path, TAPE_BYTES).replace("\0", "")
    lines = text.split("\n")
    if path.suffix.lower() == ".toml":
        remedy = f"It needs a CSV file with a column `{TIME}`, as in: --tape ride.csv"
        raise TapeError(f"{path}: this is a design, not a tape.", remedy=remedy)
    first = next((i for i, line in enumerate(lines) if line.strip() and line[0] != "#"), None)
    if first is None:
        raise TapeError(f"{path}: the file is empty; it needs a header with `{TIME}`")
    delimiter = max(",;\t", key=lines[first].count)
    if lines[first].count(delimiter) >= SIGNALS.most:
        count = lines[first].count(delimiter) + 1
        raise TapeError(
            f"{path}: there are {count:,} columns; at most {SIGNALS.most:,} are allowed"
        )
    kept = (line if line[:1] != "#" else "" for line in io.StringIO(text))
    reader = csv.reader(kept, delimiter=delimiter, skipinitialspace=True)
    rows: list[list[str]] = []
    numbers: list[int] = []
    try:
        for row in reader:
            cells = [cell.strip() for cell in row]
            if any(cells):
                rows.append(cells)
                numbers.append(reader.line_num)
    except csv.Error as exc:
        raise TapeError(f"{path}: this is not CSV: {str(exc).strip()[:200]}") from exc
    heads, *rows = rows
    width = len(heads)
    for i, row in enumerate(rows):
        if len(row) < width:
            row.extend([""] * (width - len(row)))
        elif any(row[width:]):
            raise TapeError(
                f"{path}: row {numbers[i + 1]} has {len(row)} cells, the header has {width}"
                + ("; a decimal comma needs ; between cells" if delimiter == "," else "")
            )
        del row[width:]
    return heads, rows, np.array(numbers[1:], np.int64), delimiter != ","


def _header_problems(names: list[str]) -> list[str]:
    times = [name for name in names if name in TIMES_S]
    if not times:
        known = ", ".join(names)
        meant = next((name for name in names if _IS_TIME.fullmatch(name)), None)
        remedy = f" Call the column '{meant}' `time`." if meant is not None else ""
        return [f"there is no column `{TIME}` (seconds); the columns are: {known}.{remedy}"]
    problems = [f"two columns are called '{n}'" for n in sorted({*names}) if names.count(n) > 1]
    if len({*times}) > 1:
        problems.append(f"there are two columns of times, {' and '.join(times)}; remove one")
    return problems + ["a column has no name"] * ("" in names)


_IS_TIME = re.compile(r"(?i)t|times?|timestamp|seconds?|secs?|time ?[(\[]?(s|sec|seconds?)[)\]]?")


def _plain(cell: str) -> float | None:
    """The number that a cell holds; NaN of an empty one, None if it holds something else."""
    if not cell or cell.casefold() == "nan":
        return math.nan
    try:
        number = float(cell) if "_" not in cell else math.inf
    except ValueError:
        return None
    return number if math.isfinite(number) else None


def _plain_comma(cell: str) -> float | None:
    """The same, of a number that may have a decimal comma."""
    return _plain(cell.replace(",", ".") if cell.count(",") == 1 else cell)


class _Column:
    """A column of cells. own: words that mean numbers; is_colour: its cells are colours."""

    def __init__(
        self, name: str, cells: list[str], rows: Ints, own: Mapping[str, int], is_colour: bool
    ) -> None:
        self._name, self._cells, self._rows = name, cells, rows
        self._own, self._is_colour = own, is_colour

    def values(self, read: Callable[[str], float | None], problems: list[str]) -> Floats:
        """Its numbers: (n,), NaN for empty cells. Mistakes go to the problems."""
        known = {cell: self._value(cell, read) for cell in {*self._cells}}
        found = [known[cell] for cell in self._cells]
        is_wrong = np.array([value is None for value in found])
        values = np.array([math.nan if value is None else value for value in found], np.float64)
        if is_wrong.any():
            problems.append(self._what_is_wrong(is_wrong))
        if self._name in TIMES_S:
            return values
        return np.asarray(np.clip(values, -LARGEST, LARGEST))  # as for all incoming values

    def _value(self, cell: str, read: Callable[[str], float | None]) -> float | None:
        if cell in self._own:
            return float(self._own[cell])
        number = read(cell)
        if self._is_colour:
            packed = number if number is not None and math.isnan(number) else _packed(cell)
            packed = number if packed is None else packed
            return None if packed is not None and not _is_packed(packed) else packed
        truth = truth_of(cell) if number is None else None
        if truth is not None:
            return float(truth)
        return _packed(cell) if number is None else number

    def _what_is_wrong(self, is_wrong: Truths) -> str:
        what = "colour" if self._is_colour else "number"
        places = np.flatnonzero(is_wrong).tolist()
        cells = _some(self._cells[place] for place in places)
        rows = _rows(self._rows[is_wrong])
        problem = f"{rows}: column '{self._name}' has no {what} there ({cells})"
        if self._is_colour:
            problem = f"{problem}; a colour is {WAYS}"
        return f"{problem}; its words are {', '.join(self._own)}" if self._own else problem


def _is_packed(number: float) -> bool:
    return math.isnan(number) or 0 <= number <= 0xFFFFFF


def _only_words(cells: Sequence[str], read: Callable[[str], float | None]) -> tuple[str, ...]:
    """The words of a column that holds words and no numbers, as they come; else nothing."""
    each = [cell for cell in dict.fromkeys(cells) if cell and cell.casefold() != "nan"]
    others = [cell for cell in each if truth_of(cell) is None and _packed(cell) is None]
    is_words = bool(others) and all(read(cell) is None for cell in each)
    is_words = is_words and all(_WORD.fullmatch(cell) for cell in each)
    return tuple(each) if is_words and len(each) <= _MOST_WORDS else ()


_WORD = re.compile(r"[^\W\d][\w .-]{0,39}")


def _holds_colours(cells: Sequence[str]) -> bool:
    """Whether all cells are colours, or a number or word for truth, and one can be nothing else."""
    each = {cell for cell in cells if cell and truth_of(cell) is None and _plain(cell) is None}
    return bool(each) and any(_packed(cell) is not None for cell in each)


def _packed(cell: str) -> float | None:
    """A colour as the number that feeds a signal; None of anything else."""
    try:
        return float(heard_colour(cell))
    except ValueError:
        return None


def _some(cells: Iterable[str]) -> str:
    """The first few cells, each once, as a message shows them."""
    each = [*dict.fromkeys(cells)]
    shown = ", ".join(f"'{cell:.40}'" for cell in each[:_SHOWN])
    return f"{shown}, ..." if len(each) > _SHOWN else shown


def _time_problems(times: Floats, rows: Ints) -> list[str]:
    step = np.diff(times, prepend=-np.inf)
    cases = {
        "the time is missing": np.isnan(times),
        f"the time is beyond {LARGEST:g} s": np.abs(times) > LARGEST,
        "the time is the same as in the row before": step == 0,
        "the time is before that of the row before; sort the rows": step < 0,
    }
    return [f"{_rows(rows[found])}: {what}" for what, found in cases.items() if found.any()]


def _unit_problems(times: Floats) -> list[str]:
    """Times that are probably milliseconds: the rows of a log lie 10 to 1,000 ms apart."""
    steps = np.diff(times)
    if len(times) < _FEWEST or not np.all(times == np.rint(times)):
        return []
    typical = float(np.median(steps))
    if not _PROBABLY_MS[0] <= typical <= _PROBABLY_MS[1] or steps.min() < 5:
        return []
    return [
        f"the rows are {typical:g} apart in `{TIME}`, so the tape would last "
        f"{times[-1] - times[0]:,g} s; these look like milliseconds. Call the "
        "column `time_ms` if they are, and `time_s` if they are seconds"
    ]


def _rows(numbers: Ints) -> str:
    """Rows as an editor numbers them: the header is row 1."""
    shown = ", ".join(str(number) for number in numbers[:_SHOWN])
    more = f" and {len(numbers) - _SHOWN} more" if len(numbers) > _SHOWN else ""
    return f"row{'s' if len(numbers) > 1 else ''} {shown}{more}"
