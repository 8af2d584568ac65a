"""From linear light to bytes: the master level, dither, rounding."""

from __future__ import annotations

from fendra.core.engines.wasm.binary import F32, I32, V128, Function
from fendra.core.engines.wasm.code import SPREADS, Code, const, get, i32
from fendra.core.engines.wasm.draft import Draft
from fendra.core.engines.wasm.instructions import instruction, shuffle
from fendra.core.engines.wasm.memory import LANES
from fendra.core.engines.wasm.mix import share_of
from fendra.core.graph.ops import CHANNELS, Kind
from fendra.core.light.dither import BLUE_TAKES

_STEPS = (0.25, 0.125, 0.0625, 0.03125)
"""The amount that each bit of a place in a pattern moves the light: see `light.dither.offsets`."""


def to_bytes(draft: Draft) -> Function:
    """A function that turns the canvas into red, green and blue at the address that it takes.

    Each is `light * (master * 255) + 0.5`, held within 0 and 255, without its fraction. Behind the
    last LED up to `memory.BEHIND` bytes are written over.
    """
    code = Code(I32)
    full = code.keep(share_of(draft, draft.lowered.master) + _float(255.0)
                     + instruction("f32.mul"), F32)  # fmt: skip
    at, first = code.keep(i32(0)), code.keep(get(0))
    writer = _Wide(code, draft) if draft.lanes > 1 else _Single(code, draft)
    with code.apart() as body:
        kind = V128 if draft.lanes > 1 else F32
        light = []
        for number in range(3):
            plane = draft.canvas + number * draft.plane
            pushed = writer.times(get(at) + instruction(f"{writer.load}:{plane}"), get(full))
            light.append(code.keep(pushed, kind))
        if draft.plan.dither is not None:
            writer.dither(light, draft.plan.dither.frames, at)
        writer.store([writer.rounded(get(each)) for each in light], first)
        code.add(get(first), i32(3 * draft.lanes), f"i32.add local.set:{first}")
    code.start()
    with code.counting(at, i32(4 * draft.plan.spot_count), 4 * draft.lanes):
        code.add(bytes(body))
    return code.done()


def _float(value: float) -> bytes:
    return const(Kind.FLOAT, value)


class _Single:
    """One LED after the other."""

    load, form, integer, words = "f32.load", "f32", "i32", I32
    both, either = "i32.and", "i32.or"

    def __init__(self, code: Code, draft: Draft) -> None:
        self._code, self._draft = code, draft
        self._known: dict[bytes, bytes] = {}

    def number(self, pushed: bytes, kind: Kind = Kind.FLOAT) -> bytes:  # noqa: ARG002
        """A number that is the same for all spots, in the form that the code calculates with."""
        return pushed

    def times(self, light: bytes, full: bytes) -> bytes:
        return light + self.number(full) + instruction(f"{self.form}.mul")

    def spot(self, at: int) -> bytes:
        """The places of the LEDs."""
        return get(at) + i32(2) + instruction("i32.shr_u")

    def choice(self, yes: bytes, no: bytes, condition: bytes) -> bytes:
        return yes + no + condition + instruction("select")

    def is_set(self, place: bytes, bit: int) -> bytes:
        """Whether a bit of a place is set."""
        masked = place + self.number(i32(1 << bit), Kind.UINT) + instruction(self.both)
        return masked + self.number(i32(0), Kind.UINT) + instruction(f"{self.integer}.ne")

    def dither(self, light: list[int], frames: int, at: int) -> None:
        """Add what each frame of a pattern adds, to LEDs with a channel of one byte or more."""
        code, draft = self._code, self._draft
        turn = draft.lowered.turn
        assert turn is not None
        one, zero = self.number(_float(1.0)), self.number(_float(0.0))
        ge, either = instruction(f"{self.form}.ge"), instruction(self.either)
        lit = [get(each) + one + ge for each in light]
        is_lit = get(code.keep(lit[0] + lit[1] + either + lit[2] + either, self.words))
        loaded = i32(0) + instruction(f"i32.load:{draft.fields[turn]}")
        turned = self.number(loaded, Kind.UINT)
        add = instruction(f"{self.integer}.add")
        place = self.spot(at) + turned + add
        for number, channel in enumerate(CHANNELS):
            length = frames * (BLUE_TAKES if channel == "blue" else 1)
            here = code.keep(place + self.number(i32(number), Kind.UINT) + add, self.words)
            total = b""
            for bit, step in enumerate(_STEPS):
                if 1 << bit < length:
                    up, down = self.number(_float(step)), self.number(_float(-step))
                    total += self.choice(up, down, self.is_set(get(here), bit))
                    total += instruction(f"{self.form}.add") if bit else b""
            total = self.choice(total, zero, is_lit)
            code.add(get(light[number]), total, f"{self.form}.add local.set:{light[number]}")

    def rounded(self, light: bytes) -> bytes:
        """As whole numbers from 0 to 255; NaN is 0."""
        code = self._code
        value = get(code.keep(light + _float(0.5) + instruction("f32.add"), F32))
        code.add(value, _float(0.0), value, _float(0.0), "f32.gt select")
        value = get(code.keep(b"", F32))
        code.add(value, _float(255.0), value, _float(255.0), "f32.lt select i32.trunc_f32_u")
        return get(code.keep(b""))

    def store(self, channels: list[bytes], first: int) -> None:
        for number, channel in enumerate(channels):
            self._code.add(get(first), channel, f"i32.store8:{number}")


class _Wide(_Single):
    """Four LEDs at once."""

    load, form, integer, words = "v128.load", "f32x4", "i32x4", V128
    both, either = "v128.and", "v128.or"

    def number(self, pushed: bytes, kind: Kind = Kind.FLOAT) -> bytes:
        """Spread over four lanes, before the loop."""
        if pushed not in self._known:
            self._known[pushed] = self._code.early(pushed + instruction(SPREADS[kind]))
        return self._known[pushed]

    def spot(self, at: int) -> bytes:
        lanes = i32(0) + instruction("i32x4.splat")
        for lane in range(1, LANES):
            lanes += i32(lane) + instruction(f"i32x4.replace_lane:{lane}")
        spread = super().spot(at) + instruction("i32x4.splat")
        return spread + self._code.early(lanes) + instruction("i32x4.add")

    def choice(self, yes: bytes, no: bytes, condition: bytes) -> bytes:
        return yes + no + condition + instruction("v128.bitselect")

    def rounded(self, light: bytes) -> bytes:
        """The larger and the smaller as they are chosen: see the operations `max` and `min`."""
        half, zero, most = (self.number(_float(value)) for value in (0.5, 0.0, 255.0))
        raised = zero + light + half + instruction("f32x4.add") + instruction("f32x4.pmax")
        held = most + raised + instruction("f32x4.pmin")
        return held + instruction("i32x4.trunc_sat_f32x4_u")

    def store(self, channels: list[bytes], first: int) -> None:
        """Three words of four as twelve bytes, red, green and blue in turn."""
        red, green, blue = channels
        pair = [16 * c + 4 * lane for lane in range(4) for c in range(2)]
        joined = [at for lane in range(4) for at in (2 * lane, 2 * lane + 1, 16 + 4 * lane)]
        both = red + green + shuffle(*pair, *[0] * 8)
        self._code.add(get(first), both, blue, shuffle(*joined, *[0] * 4), "v128.store")
