"""Array types by their contents, for annotations: one name for each in the whole program."""

from __future__ import annotations

from typing import Any, TypeAlias

import numpy as np

Array: TypeAlias = np.ndarray[Any, np.dtype[Any]]
"""Of any kind."""
Floats: TypeAlias = np.ndarray[Any, np.dtype[np.float64]]
"""Lengths, times and currents: double precision."""
Floats32: TypeAlias = np.ndarray[Any, np.dtype[np.float32]]
"""Light: single precision, as every engine computes it."""
Ints: TypeAlias = np.ndarray[Any, np.dtype[np.int64]]
"""Counts and places."""
Bytes: TypeAlias = np.ndarray[Any, np.dtype[np.uint8]]
"""Pixels as they are sent."""
Truths: TypeAlias = np.ndarray[Any, np.dtype[np.bool_]]
