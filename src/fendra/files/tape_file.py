"""Tapes in CSV files: a column `time` in seconds, and a column a signal."""

from __future__ import annotations

import io
from collections.abc import Iterable, Mapping
from pathlib import Path

import numpy as np
import pandas as pd

from fendra.core.arrays import Floats, Ints
from fendra.core.document.design import Design
from fendra.core.errors import TapeError
from fendra.core.graph.ops import LARGEST
from fendra.core.light.colours import heard_colour
from fendra.core.limits import SIGNALS, TAPE_BYTES
from fendra.core.names import TRUTHS
from fendra.core.signals.inputs import colours, words
from fendra.core.signals.kinds.colour import WAYS
from fendra.core.signals.tape import Tape
from fendra.whole import read_bytes

TIME = "time"
_SHOWN = 5


def read_tape(path: str | Path, design: Design | None = None) -> Tape:
    """The tape of a CSV file. An empty cell means no news.

    design: whose signals the columns are. It says which columns hold words of a choice, and which
    hold colours. Without it those are colours in which a cell can be nothing else.

    Raises FileError where it cannot be read, and TapeError, which names the rows, where
    times are missing, double or out of order, or a cell holds no number. `true`, `on` and
    `yes` are 1, `false`, `off` and `no` are 0; a colour, as `#ff8a00`, `ff8a00`, `255,138,0` in
    quotes or `orange`, is 0xff8a00. An event `hit` may have the columns `hit.x`, `hit.y` and
    `hit.z` beside it, a vector `sound` has `sound[0]` and so on.

    >>> from fendra.demo import demo_file
    >>> ride = read_tape(demo_file("ride.csv"))
    >>> ride.duration_s, list(ride.signals)[:3]
    (90.0, ['speed', 'rpm', 'throttle'])
    """
    path = Path(path)
    cells = _read_cells(path)
    if len(cells) == 0:
        raise TapeError(f"{path}: the file is empty; it needs a header with `{TIME}`")
    problems = _header_problems(list(cells.iloc[0]))
    if not problems and len(cells) == 1:
        problems.append("there are no rows under the header")
    if not problems:
        table = cells.iloc[1:].set_axis(list(cells.iloc[0]), axis=1)
        known = {} if design is None else words(design)
        if design is None:
            shown = {name for name in table.columns if _holds_colours(table[name])}
        else:
            shown = {*colours(design)}
        columns = {
            name: _numbers(table[name], problems, known.get(name, {}), is_colour=name in shown)
            for name in table.columns
        }
        times = columns.pop(TIME)
        problems += _time_problems(times, table.index.to_numpy())
    if problems:
        raise TapeError("\n".join(f"{path}: {problem}" for problem in problems))
    return Tape(times, columns, path.stem)


def _read_cells(path: Path) -> pd.DataFrame:
    """All cells as text, the header too; the index is the row as an editor numbers it, less 1."""
    text = read_bytes(path, TAPE_BYTES)
    try:
        cells = pd.read_csv(
            io.BytesIO(text),
            header=None,
            dtype=str,
            keep_default_na=False,
            skip_blank_lines=False,
            encoding="utf-8-sig",
        )
    except pd.errors.EmptyDataError:
        return pd.DataFrame()
    except (pd.errors.ParserError, ValueError) as exc:  # a UnicodeDecodeError is one
        raise TapeError(f"{path}: this is no CSV: {str(exc).strip()[:200]}") from exc
    if cells.shape[1] > SIGNALS.most:
        raise TapeError(
            f"{path}: there are {cells.shape[1]:,} columns; the most is {SIGNALS.most:,}"
        )
    cells = cells.fillna("").apply(lambda column: column.str.strip())
    filled: pd.DataFrame = cells.loc[(cells != "").any(axis=1)]
    return filled


def _header_problems(names: list[str]) -> list[str]:
    if TIME not in names:
        known = ", ".join(names)
        remedy = " Separate them with commas." if ";" in known or "\t" in known else ""
        return [f"there is no column `{TIME}` (seconds); the columns are: {known}.{remedy}"]
    problems = [f"two columns are called '{n}'" for n in sorted({*names}) if names.count(n) > 1]
    return problems + ["a column has no name"] * ("" in names)


def _numbers(
    column: pd.Series[str], problems: list[str], words: Mapping[str, int], *, is_colour: bool
) -> Floats:
    """A column's numbers. words: what stands for a number in it, before all others. is_colour:
    its cells are colours.
    """
    own = {word: str(number) for word, number in words.items()}
    text = column.where(column.isin(own), column.str.lower().replace(_WORDS)).replace(own)
    if is_colour:
        text = column.where(column.str.lower() != "nan", "").map(_packed)
    plain = pd.to_numeric(text.where(text != ""), errors="coerce").astype(np.float64)
    others = plain.isna() & (text != "")
    plain[others] = pd.to_numeric(text[others].map(_packed), errors="coerce")
    values = np.asarray(plain, np.float64)
    is_wrong = (text != "").to_numpy() & ~np.isfinite(values)
    if column.name != TIME:
        values = np.clip(values, -LARGEST, LARGEST)  # as everywhere that a signal is heard
    if is_colour:
        is_wrong |= (values < 0) | (values > 0xFFFFFF)
    if is_wrong.any():
        rows = column.index.to_numpy()[is_wrong]
        what = "colour" if is_colour else "number"
        cells = _some(column.loc[rows])
        problem = f"{_rows(rows)}: column '{column.name}' holds no {what} there ({cells})"
        if is_colour:
            problem = f"{problem}; a colour is {WAYS}"
        problems.append(f"{problem}; its words are {', '.join(words)}" if words else problem)
    return values


def _holds_colours(column: pd.Series[str]) -> bool:
    """Whether a cell of a column is a colour, and neither a number nor a word for truth."""
    texts = column[~column.str.lower().isin([*_WORDS, ""])]
    texts = texts[pd.to_numeric(texts, errors="coerce").isna()]
    return any(_packed(text) != text for text in texts.unique())


def _packed(cell: str) -> str:
    """A colour as the number that feeds a signal; anything else as it is."""
    try:
        return str(heard_colour(cell)) if cell else cell
    except ValueError:
        return cell


def _some(cells: Iterable[str]) -> str:
    """The first few cells, each once, as a message shows them."""
    each = [*dict.fromkeys(cells)]
    shown = ", ".join(f"'{cell:.40}'" for cell in each[:_SHOWN])
    return f"{shown}, ..." if len(each) > _SHOWN else shown


_WORDS = {**{word: str(int(truth)) for word, truth in TRUTHS.items()}, "nan": ""}


def _time_problems(times: Floats, rows: Ints) -> list[str]:
    step = np.diff(times, prepend=-np.inf)
    cases = {
        "the time is missing": np.isnan(times),
        f"the time is beyond {LARGEST:g} s": np.abs(times) > LARGEST,
        "the time is that of the row before": step == 0,
        "the time is before that of the row before; sort the rows": step < 0,
    }
    return [f"{_rows(rows[found])}: {what}" for what, found in cases.items() if found.any()]


def _rows(places: Ints) -> str:
    """Rows as an editor numbers them: the header is row 1."""
    shown = ", ".join(str(place + 1) for place in places[:_SHOWN])
    more = f" and {len(places) - _SHOWN} more" if len(places) > _SHOWN else ""
    return f"row{'s' if len(places) > 1 else ''} {shown}{more}"
