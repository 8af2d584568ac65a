"""The bytes of the lines: a frame's colours in the order of each wire.

Addresses without a visible LED are never written, so they stay dark.
"""

from __future__ import annotations

from fendra.core.engines.wasm.binary import Function
from fendra.core.engines.wasm.code import Code, get, i32
from fendra.core.engines.wasm.draft import Draft
from fendra.core.engines.wasm.instructions import instruction


def to_wires(draft: Draft) -> Function:
    """A function that turns the newest frame into the bytes of all lines."""
    code = Code()
    source, target, white = code.local(), code.local(), code.local()
    first, at = 0, draft.bytes
    for wire in draft.plan.wires:
        for stretch in wire.stretches:
            size = len(wire.order)
            if not stretch.is_dark:
                code.add(i32(draft.rgb + 3 * first), f"local.set:{source}")
                code.add(i32(at), f"local.set:{target}")
                first += stretch.count
                with code.counting(source, i32(draft.rgb + 3 * first), 3):
                    _put(code, wire.order, source, target, white)
            at += stretch.count * size
    return code.done()


def _put(code: Code, order: str, source: int, target: int, white: int) -> None:
    """One LED, in the order of its wire; white is the part that the others have in common."""
    loads = {name: get(source) + instruction(f"i32.load8_u:{c}") for c, name in enumerate("RGB")}
    if "W" in order:
        code.least([*loads.values()], white)
        loads = {name: load + get(white) + instruction("i32.sub") for name, load in loads.items()}
        loads["W"] = get(white)
    for number, name in enumerate(order):
        code.add(get(target), loads[name], f"i32.store8:{number}")
    code.add(get(target), i32(len(order)), f"i32.add local.set:{target}")
