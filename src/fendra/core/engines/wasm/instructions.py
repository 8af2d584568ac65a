"""The instructions of WebAssembly that are used here, by the names of the standard's text format.

Source: WebAssembly Core Specification, "Binary Format", Instructions; numbers in hex. Those that
begin with v128, f32x4 or i32x4 are of its vector instructions, for four spots at once.
"""

from __future__ import annotations

from functools import cache

from fendra.core.engines.wasm.binary import signed, unsigned

_PLAIN = {
    "nop": 0x01, "else": 0x05, "end": 0x0B, "return": 0x0F,
    "select": 0x1B,
    "i32.eqz": 0x45, "i32.eq": 0x46, "i32.ne": 0x47, "i32.lt_u": 0x49, "i32.gt_u": 0x4B,
    "i32.le_u": 0x4D, "i32.ge_u": 0x4F,
    "i64.gt_u": 0x56,
    "f32.eq": 0x5B, "f32.ne": 0x5C, "f32.lt": 0x5D, "f32.gt": 0x5E, "f32.le": 0x5F, "f32.ge": 0x60,
    "i32.add": 0x6A, "i32.sub": 0x6B, "i32.mul": 0x6C, "i32.div_u": 0x6E, "i32.rem_u": 0x70,
    "i32.and": 0x71, "i32.or": 0x72, "i32.xor": 0x73, "i32.shl": 0x74, "i32.shr_u": 0x76,
    "i64.add": 0x7C, "i64.sub": 0x7D, "i64.mul": 0x7E, "i64.div_u": 0x80, "i64.shl": 0x86,
    "i64.shr_u": 0x88,
    "f32.abs": 0x8B, "f32.neg": 0x8C, "f32.floor": 0x8E,
    "f32.nearest": 0x90, "f32.sqrt": 0x91, "f32.add": 0x92,
    "f32.sub": 0x93, "f32.mul": 0x94, "f32.div": 0x95,
    "i32.wrap_i64": 0xA7, "i32.trunc_f32_u": 0xA9, "i64.extend_i32_u": 0xAD,
    "f32.convert_i32_u": 0xB3, "f64.convert_i64_u": 0xBA,
}  # fmt: skip

_LANES = {
    "i32x4.splat": 0x11, "f32x4.splat": 0x13,
    "i32x4.eq": 0x37, "i32x4.ne": 0x38, "i32x4.lt_u": 0x3A,
    "f32x4.eq": 0x41, "f32x4.ne": 0x42, "f32x4.lt": 0x43, "f32x4.le": 0x45,
    "f32x4.ge": 0x46,
    "v128.not": 0x4D, "v128.and": 0x4E, "v128.or": 0x50, "v128.xor": 0x51, "v128.bitselect": 0x52,
    "v128.any_true": 0x53,
    "f32x4.floor": 0x68,
    "i32x4.shr_u": 0xAD, "i32x4.add": 0xAE, "i32x4.sub": 0xB1, "i32x4.mul": 0xB5,
    "f32x4.abs": 0xE0, "f32x4.neg": 0xE1, "f32x4.sqrt": 0xE3, "f32x4.add": 0xE4, "f32x4.sub": 0xE5,
    "f32x4.mul": 0xE6, "f32x4.div": 0xE7, "f32x4.pmin": 0xEA, "f32x4.pmax": 0xEB,
    "i32x4.trunc_sat_f32x4_u": 0xF9, "f32x4.convert_i32x4_u": 0xFB,
}  # fmt: skip

_BLOCKS = {"block": 0x02, "loop": 0x03, "if": 0x04}
_WITH_PLACE = {
    "br": 0x0C, "br_if": 0x0D, "call": 0x10, "local.get": 0x20, "local.set": 0x21,
    "local.tee": 0x22,
}  # fmt: skip
_MEMORY = {
    "i32.load": (0x28, 2), "i64.load": (0x29, 3), "f32.load": (0x2A, 2), "i32.load8_u": (0x2D, 0),
    "i32.store": (0x36, 2), "i64.store": (0x37, 3), "f32.store": (0x38, 2), "f64.store": (0x39, 3),
    "i32.store8": (0x3A, 0),
}  # fmt: skip
_MEMORY_LANES = {"v128.load": 0x00, "v128.store": 0x0B}
_OF_LANE = {
    "i32x4.extract_lane": 0x1B, "i32x4.replace_lane": 0x1C, "f32x4.extract_lane": 0x1F,
    "f32x4.replace_lane": 0x20,
}  # fmt: skip


@cache
def instruction(text: str) -> bytes:
    """An instruction of the text format, a colon before its number: `f32.add`, `local.get:3`.

    Blocks give nothing. Raises KeyError for one that is not known here.

    >>> instruction("local.get:3").hex(" "), instruction("i64.const:-1").hex(" ")
    ('20 03', '42 7f')
    """
    name, _, number = text.partition(":")
    if name in _PLAIN:
        return bytes([_PLAIN[name]])
    if name in _LANES:
        return b"\xfd" + unsigned(_LANES[name])
    if name in _BLOCKS:
        return bytes([_BLOCKS[name], 0x40])
    if name in _WITH_PLACE:
        return bytes([_WITH_PLACE[name]]) + unsigned(int(number))
    if name in _OF_LANE:
        return b"\xfd" + unsigned(_OF_LANE[name]) + bytes([int(number)])
    if name in ("i32.const", "i64.const"):
        return bytes([0x41 if name == "i32.const" else 0x42]) + signed(int(number))
    if name in _MEMORY:
        code, align = _MEMORY[name]
        return bytes([code, align]) + unsigned(int(number or 0))
    return b"\xfd" + unsigned(_MEMORY_LANES[name]) + b"\x02" + unsigned(int(number or 0))


def store_lane(lane: int, offset: int) -> bytes:
    """Store one of four 32-bit lanes."""
    return b"\xfd\x5a\x02" + unsigned(offset) + bytes([lane])


def shuffle(*lanes: int) -> bytes:
    """Sixteen bytes of two vectors, each by its place."""
    return b"\xfd\x0d" + bytes(lanes)
