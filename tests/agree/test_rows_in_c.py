"""Every row of the operation table gives in C the bits that it gives in NumPy."""

from __future__ import annotations

import ctypes

import numpy as np
import pytest

from agreement import grids
from fendra.core.engines.c99.helpers import helpers
from fendra.core.engines.c99.text import C_TYPES, Piece, operation, words
from fendra.core.graph.ops import OPS, Binds, Kind

INDEX = "i"


def function_text(name):
    """A loop over arrays, with the row's own text for each element."""
    op = OPS[name]
    given = [f"const {C_TYPES[kind]} *a{i}, " for i, kind in enumerate(op.takes)]
    args = [Piece(f"a{i}[{INDEX}]", Binds.ATOM) for i in range(len(op.takes))]
    return (
        f"void row_{name}({''.join(given)}{C_TYPES[op.gives]} *restrict out, int count)\n"
        f"{{\n    for (int {INDEX} = 0; {INDEX} < count; {INDEX}++) {{\n"
        f"        out[{INDEX}] = {operation(name, args).text};\n    }}\n}}\n"
    )


@pytest.fixture(scope="module")
def library(compiler, tmp_path_factory):
    body = "\n".join(function_text(name) for name in OPS)
    head = "#include <math.h>\n#include <stdbool.h>\n#include <stdint.h>\n"
    target = tmp_path_factory.mktemp("rows") / "rows.so"
    compiler.make_library("\n".join([head, *helpers(words(body), "int", None), body]), target)
    return ctypes.CDLL(str(target))


@pytest.mark.parametrize("name", OPS)
def test_a_row_gives_the_same_bits(library, name):
    op = OPS[name]
    args = grids(name)
    expected, got = (np.empty(len(args[0]), op.gives.dtype) for _ in range(2))
    with np.errstate(all="ignore"):
        op.array(*args, expected)
    addresses = [ctypes.c_void_p(array.ctypes.data) for array in (*args, got)]
    getattr(library, f"row_{name}")(*addresses, ctypes.c_int(len(got)))
    if op.gives is Kind.FLOAT:  # what is no number has many bits, and never gets out
        assert (np.isnan(got) == np.isnan(expected)).all()
        expected[np.isnan(expected)] = got[np.isnan(got)] = 0.0
    assert got.tobytes() == expected.tobytes()
    assert len(got) >= 2
