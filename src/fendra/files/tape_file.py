"""Tapes in CSV files: a column `time` in seconds, and a column a signal."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pandas as pd

from fendra.core.errors import FileError, TapeError
from fendra.core.tape import Tape

TIME = "time"
_SHOWN = 5


def read_tape(path: str | Path) -> Tape:
    """The tape of a CSV file. An empty cell means no news.

    Raises FileError where it cannot be read, and TapeError, which names the rows, where
    times are missing, double or out of order, or a cell holds no number. `true`, `on` and
    `yes` are 1, `false`, `off` and `no` are 0.
    """
    path = Path(path)
    try:
        cells = pd.read_csv(path, dtype=str, keep_default_na=False, skipinitialspace=True)
    except FileNotFoundError as exc:
        raise FileError(f"there is no file '{path}'") from exc
    except pd.errors.EmptyDataError as exc:
        raise TapeError(f"{path}: the file is empty; it needs a header with `{TIME}`") from exc
    except (pd.errors.ParserError, UnicodeDecodeError) as exc:
        raise TapeError(f"{path}: this is no CSV: {str(exc).strip()}") from exc
    except OSError as exc:
        raise FileError(f"'{path}' cannot be read: {exc.strerror}") from exc
    cells.columns = [str(name).strip() for name in cells.columns]
    if TIME not in cells.columns:
        raise TapeError(
            f"{path}: there is no column `{TIME}` (seconds); the columns are "
            f"{', '.join(cells.columns)}"
        )
    if len(cells) == 0:
        raise TapeError(f"{path}: there are no rows under the header")
    problems: list[str] = []
    columns = {name: _numbers(cells[name], problems) for name in cells.columns}
    times = columns.pop(TIME)
    problems += _time_problems(times)
    if problems:
        raise TapeError("\n".join(f"{path}: {problem}" for problem in problems))
    return Tape(times, columns, path.stem)


def _numbers(
    column: pd.Series[str], problems: list[str]
) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    text = column.str.strip().str.lower().replace(_WORDS)
    values = pd.to_numeric(text.where(text != ""), errors="coerce").to_numpy(np.float64)
    is_wrong = (text != "").to_numpy() & ~np.isfinite(values)
    if is_wrong.any():
        rows = np.flatnonzero(is_wrong)
        first = column.iloc[int(rows[0])]
        problems.append(f"{_rows(rows)}: column '{column.name}' holds no number there ('{first}')")
    return values


_WORDS = {"true": "1", "on": "1", "yes": "1", "false": "0", "off": "0", "no": "0", "nan": ""}


def _time_problems(times: np.ndarray[tuple[int], np.dtype[np.float64]]) -> list[str]:
    problems = []
    missing = np.flatnonzero(np.isnan(times))
    if len(missing):
        problems.append(f"{_rows(missing)}: the time is missing")
    step = np.diff(times)
    double = np.flatnonzero(step == 0) + 1
    if len(double):
        problems.append(f"{_rows(double)}: the time is that of the row before")
    back = np.flatnonzero(step < 0) + 1
    if len(back):
        problems.append(f"{_rows(back)}: the time is before that of the row before; sort the rows")
    return problems


def _rows(places: np.ndarray[tuple[int], np.dtype[np.int64]]) -> str:
    """Rows as an editor numbers them: the header is row 1."""
    shown = ", ".join(str(place + 2) for place in places[:_SHOWN])
    more = f" and {len(places) - _SHOWN} more" if len(places) > _SHOWN else ""
    return f"row{'s' if len(places) > 1 else ''} {shown}{more}"
