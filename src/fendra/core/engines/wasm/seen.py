"""A frame of balanced LEDs as the eye sees it: see `fendra.core.light.balance.seen_of`."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fendra.core.engines.wasm.binary import F32, Function
from fendra.core.engines.wasm.code import Code, const, get, i32
from fendra.core.engines.wasm.draft import Draft
from fendra.core.engines.wasm.instructions import instruction
from fendra.core.graph.ops import Kind
from fendra.core.light.balance import Shares


@dataclass(frozen=True)
class Balance:
    """Spots in a row, from `first` up to `end`, whose white is balanced in one way.

    shares, has_white: as `seen_of` takes them.
    """

    first: int
    end: int
    shares: Shares
    has_white: bool


def see(draft: Draft, balances: Sequence[Balance], at: int) -> Function:
    """A function that writes the newest frame, as seen, to an address: three numbers a spot."""
    code = Code()
    source = code.keep(i32(0))
    with code.counting(source, i32(3 * draft.plan.spot_count)):
        code.add(get(source), get(source), f"i32.load8_u:{draft.rgb} i32.store8:{at}")
    for balance in balances:
        code.add(i32(3 * balance.first), f"local.set:{source}")
        with code.counting(source, i32(3 * balance.end), 3):
            _balanced(code, balance, source, draft.rgb, at)
    return code.done()


def _balanced(code: Code, balance: Balance, source: int, rgb: int, at: int) -> None:
    """One LED: the light that is not white's own, over the share of its channel."""
    form = instruction("f32.convert_i32_u")
    light = [
        code.keep(get(source) + instruction(f"i32.load8_u:{rgb + c}") + form, F32) for c in range(3)
    ]
    common = code.keep(const(Kind.FLOAT, 0.0), F32)
    if balance.has_white:
        code.least([*map(get, light)], common, "f32.lt")
    for channel, (each, share) in enumerate(zip(light, balance.shares, strict=True)):
        code.add(get(common), get(each), get(common), "f32.sub", const(Kind.FLOAT, share))
        code.add("f32.div f32.add f32.nearest")
        value, most = get(code.keep(b"", F32)), const(Kind.FLOAT, 255.0)
        code.add(get(source), value, most, value, most, "f32.lt select i32.trunc_f32_u")
        code.add(f"i32.store8:{at + channel}")
