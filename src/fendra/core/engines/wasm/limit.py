"""The limiter: the same whole numbers as in `fendra.core.electric.limiter`."""

from __future__ import annotations

from fendra.core.electric.limiter import FULL, RELEASE, RELEASE_MS, REST_MS, Limit
from fendra.core.electric.loads import Span
from fendra.core.engines.wasm.binary import I32, I64, Function
from fendra.core.engines.wasm.code import Code, get, i32
from fendra.core.engines.wasm.draft import Draft
from fendra.core.engines.wasm.instructions import instruction


def limit(draft: Draft, budget: Limit) -> Function:
    """A function that keeps the bytes at the address that it takes within a supply's budget."""
    code, state = Code(I32), draft.limits[budget.supply]
    total, slack = code.local(I64), code.local(I64)
    for span in budget.spans:
        _add_span(code, span, total, slack)
    most, gain, highest = i64(budget.most), code.local(), code.local()
    code.add(i32(FULL), f"local.set:{highest}")
    code.add(get(total), most, "i64.gt_u if")
    room = i64(2 * budget.most)
    code.add(room, get(slack), "i64.gt_u if", room, get(slack), f"i64.sub local.set:{slack} else")
    code.add(i64(0), f"local.set:{slack} end")
    code.add(get(slack), i64(FULL), "i64.mul", get(total), i64(1), "i64.shl i64.div_u")
    code.add(f"i32.wrap_i64 local.set:{highest} end")
    code.add(i32(0), f"i32.load:{state} local.set:{gain}")
    _follow(code, draft, state, gain, highest)
    code.add(get(gain), i32(FULL), "i32.lt_u if")
    for span in budget.spans:
        _scale(code, span, gain)
    code.add("end")
    return code.done()


def draws(draft: Draft, supplies: dict[int, Limit]) -> Function:
    """A function that sums up what the newest frame draws of each supply, in uA times 255.

    supplies: of each address of a 64-bit float, whose it is.
    """
    code = Code(I32)
    code.add(i32(draft.rgb), "local.set:0")
    for address, supply in supplies.items():
        total, slack = code.local(I64), code.local(I64)
        for span in supply.spans:
            _add_span(code, span, total, slack)
        code.add(i32(0), get(total), f"f64.convert_i64_u f64.store:{address}")
    return code.done()


def i64(value: int) -> bytes:
    """The instruction that pushes 64 bits of an integer."""
    return instruction(f"i64.const:{value - 2**64 if value >= 2**63 else value}")


def _add_span(code: Code, span: Span, total: int, slack: int) -> None:
    """Add what its light draws, and by how much rounding may raise that."""
    sums = [code.local() for _ in span.ua]
    lit = [code.local() for _ in span.ua]
    for local in (*sums, *lit):
        code.add(i32(0), f"local.set:{local}")
    white = code.local()
    at = code.keep(get(0) + i32(3 * span.first) + instruction("i32.add"))
    end = get(0) + i32(3 * span.end) + instruction("i32.add")
    with code.counting(at, end, 3):
        channels = [code.keep(get(at) + instruction(f"i32.load8_u:{c}")) for c in range(3)]
        if span.has_white:
            code.least([*map(get, channels)], white)
            for channel in channels:
                code.add(get(channel), get(white), f"i32.sub local.set:{channel}")
            channels.append(white)
        for channel, added, count in zip(channels, sums, lit, strict=True):
            code.add(get(added), get(channel), f"i32.add local.set:{added}")
            code.add(get(count), get(channel), i32(0), f"i32.ne i32.add local.set:{count}")
    twice = 2 if span.has_white else 1
    for ua, added, count in zip(span.ua, sums, lit, strict=True):
        for local, found, factor in ((total, added, ua), (slack, count, ua * twice)):
            code.add(get(local), get(found), "i64.extend_i32_u", i64(factor))
            code.add(f"i64.mul i64.add local.set:{local}")


def _follow(code: Code, draft: Draft, state: int, gain: int, highest: int) -> None:
    """The gain falls at once to the highest that the budget allows, rests, and comes back."""
    rest, dt = code.keep(i32(0) + instruction(f"i32.load:{state + 4}")), code.local()
    code.add(i32(0), f"i32.load:{draft.dt_ms} local.set:{dt}")
    code.add(get(highest), get(gain), "i32.le_u if", get(highest), f"local.set:{gain}")
    code.add(i32(REST_MS), f"local.set:{rest} else")
    code.add(
        get(dt), get(rest), "i32.lt_u if", get(rest), get(dt), f"i32.sub local.set:{rest} else"
    )
    code.add(get(dt), get(rest), f"i32.sub local.tee:{dt}", i32(RELEASE), "i32.mul", i32(FULL))
    code.add(get(dt), i32(RELEASE_MS), "i32.lt_u select", get(gain), f"i32.add local.tee:{gain}")
    code.add(get(highest), get(gain), get(highest), f"i32.lt_u select local.set:{gain}")
    code.add(i32(0), f"local.set:{rest} end end")
    code.add(i32(0), get(gain), f"i32.store:{state}", i32(0), get(rest), f"i32.store:{state + 4}")


def _scale(code: Code, span: Span, gain: int) -> None:
    """All channels alike, so that hues stay."""
    at = code.keep(get(0) + i32(3 * span.first) + instruction("i32.add"))
    with code.counting(at, get(0) + i32(3 * span.end) + instruction("i32.add")):
        code.add(get(at), get(at), "i32.load8_u:0", get(gain), "i32.mul", i32(FULL // 2))
        code.add("i32.add", i32(16), "i32.shr_u i32.store8:0")
