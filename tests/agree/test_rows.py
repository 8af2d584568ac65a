"""Every row of the operation table gives in C and in WebAssembly the bits of NumPy."""

from __future__ import annotations

import ctypes

import numpy as np
import pytest
import wasmtime

from agreement import grids
from fendra.core.engines.c99.helpers import helpers
from fendra.core.engines.c99.text import C_TYPES, Piece, operation, words
from fendra.core.engines.wasm.binary import module
from fendra.core.engines.wasm.block import Block, uses_of
from fendra.core.engines.wasm.block import Piece as Pushed
from fendra.core.engines.wasm.code import LOADS, STORES, Code, get, i32
from fendra.core.engines.wasm.instructions import instruction
from fendra.core.engines.wasm.memory import LANES, Memory
from fendra.core.graph.node import Graph, Node
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


def in_c(library, name, args, got):
    addresses = [ctypes.c_void_p(array.ctypes.data) for array in (*args, got)]
    getattr(library, f"row_{name}")(*addresses, ctypes.c_int(len(got)))


def in_wasm(name, args, got, *, is_wide):
    """A module of its own, whose one layer holds the row's instructions."""
    op, count = OPS[name], len(got)
    nodes = [Node("column", (), kind, 1, f"a{i}", "all") for i, kind in enumerate(op.takes)]
    nodes.append(Node(name, tuple(range(len(op.takes))), op.gives))
    memory, code = Memory(), Code()
    size = LANES if is_wide else 1
    tables = [memory.table(values, of_lanes=is_wide) for values in args]
    out = memory.reserve(4 * (count + LANES))
    at = code.keep(i32(0))

    def leaf(place, node):
        load = f"v128.load:{tables[place]}" if is_wide else f"{LOADS[node.kind]}:{tables[place]}"
        return Pushed(get(at) + instruction(load), of_lanes=is_wide)

    graph = Graph(tuple(nodes), {"out": len(args)}, {})
    block = Block(graph, code, memory, leaf, is_wide=is_wide)
    with code.apart() as body:
        block.write([len(args)], uses_of(graph, [len(args)]), kept=[len(args)])
        store = "v128.store" if is_wide else STORES[op.gives]
        code.add(get(at), block.push(len(args)), f"{store}:{out}")
    with code.counting(at, i32(4 * count), 4 * size):
        code.add(bytes(body))
    machine = wasmtime.Engine()
    held = module([code.done()], {"run": 0}, memory.pages, memory.data)
    store = wasmtime.Store(machine)
    exports = wasmtime.Instance(store, wasmtime.Module(machine, held), []).exports(store)
    exports["run"](store)
    words = np.frombuffer(exports["memory"].read(store, out, out + 4 * count), "<u4")
    got[:] = words != 0 if op.gives is Kind.TRUTH else words.view(op.gives.dtype)


@pytest.mark.parametrize("where", ["c", "wasm", "wasm, four at once"])
@pytest.mark.parametrize("name", OPS)
def test_a_row_gives_the_same_bits(request, name, where):
    op = OPS[name]
    args = grids(name)
    expected, got = (np.empty(len(args[0]), op.gives.dtype) for _ in range(2))
    with np.errstate(all="ignore"):
        op.array(*args, expected)
    if where == "c":
        in_c(request.getfixturevalue("library"), name, args, got)
    else:
        in_wasm(name, args, got, is_wide=where != "wasm")
    if op.gives is Kind.FLOAT:  # what is no number has many bits, and never gets out
        assert (np.isnan(got) == np.isnan(expected)).all()
        expected[np.isnan(expected)] = got[np.isnan(got)] = 0.0
    assert got.tobytes() == expected.tobytes()
    assert len(got) >= 2
