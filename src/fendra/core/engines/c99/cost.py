"""The cost of firmware on a controller: flash, memory, stack, and the work of a frame.

The figures of each processor (catalogue/cores.toml) were fitted on 152 programs: each effect plain
and bound, with 12 and 40 LEDs, and three dozen with several effects. Sizes are from the compilers
of Debian 12 with -Os, cycles of the 8-bit part from simavr, instructions of the Cortex-M from qemu,
at one and a half cycles each. No estimated size is too small; on average they are 4 to 7 % too
large. Cycles depend on the numbers: one program in fourteen needs more than estimated, by at most a
tenth on the 8-bit part.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from fendra.core.catalogue.controllers import ControllerType
from fendra.core.catalogue.data_files import read_catalogue
from fendra.core.engines.c99.count import Count, LayerCount
from fendra.core.engines.c99.emit import MOST_AT_ONCE, MOST_AT_ONCE_8_BIT

KINDS = {
    "sum": ("add", "sub"),
    "mul": ("mul",),
    "div": ("div",),
    "compare": ("min", "max", "less", "less_equal", "equal"),
    "select": (
        "select",
        "uint_select",
        "and",
        "or",
        "not",
        "uint_less",
        "uint_equal",
        "neg",
        "abs",
    ),
    "floor": ("floor",),
    "sqrt": ("sqrt",),
    "convert": ("to_float", "to_uint"),
    "uint": ("uint_add", "uint_sub", "uint_xor"),
    "shift": ("uint_shift",),
    "uint_mul": ("uint_mul",),
    "uint_mul_high": ("uint_mul_high",),
    "uint_div": ("uint_div", "uint_mod"),
    "take": ("take", "uint_take"),
    "read": ("read",),
    "light": ("light",),
}
"""Operations that cost alike."""
FLOATS = frozenset({"sum", "mul", "div", "floor", "sqrt", "convert"})
"""Kinds that need floats, which a processor without a unit for them makes in software."""
_KIND_OF = {name: kind for kind, names in KINDS.items() for name in names}


@dataclass(frozen=True)
class Core:
    """The costs of one processor.

    code: bytes of flash; work: cycles; both for each kind of operation and for the code around
    them. once: bytes of flash that are linked when a kind of operation is used at all. The
    catalogue explains the other keys.
    """

    code: Mapping[str, float]
    once: Mapping[str, float]
    work: Mapping[str, float]
    signal: int
    stack: Sequence[float]
    memory: Sequence[float]
    sends: float
    receiver: Sequence[int]
    receives: float


@dataclass(frozen=True)
class Cost:
    """The cost of a design on a controller. Bytes and cycles are estimates.

    flash, memory, stack: bytes; memory is without the stack. operations: of a frame with
    everything on, each counted for every LED that it is done for. work: cycles of such a frame.
    layers: of each layer its place in the design, and its cycles while it is on. rest: cycles of a
    frame without any layer. mix: cycles for each scene while one takes over from another. hz: of
    the processor. line_s: what all lines take. waits: whether nothing else is done while lines are
    sent.
    """

    flash: int
    memory: int
    stack: int
    operations: int
    work: int
    layers: tuple[tuple[int, int], ...]
    rest: int
    mix: int
    hz: float
    line_s: float
    waits: bool

    @property
    def ram(self) -> int:
        """Bytes of memory and stack."""
        return self.memory + self.stack

    @property
    def rate_hz(self) -> float:
        """Frames a second with everything on."""
        return self.rate_of(self.work)

    def rate_of(self, work: float) -> float:
        """Frames a second at this many cycles for each."""
        made_s = work / self.hz
        return 1.0 / (made_s + self.line_s if self.waits else max(made_s, self.line_s))

    def work_of(self, on: Iterable[int], scenes: int = 1) -> int:
        """Cycles of a frame in which these layers (by their places) and this many scenes are on."""
        costs = dict(self.layers)
        mixing = self.mix * scenes if scenes > 1 else 0
        return self.rest + mixing + sum(costs.get(layer, 0) for layer in on)


def cost_of(
    count: Count, kind: ControllerType, *, is_receiver: bool = False,
    beside: tuple[int, int] = (0, 0),
) -> Cost | None:  # fmt: skip
    """The cost of a program on a controller type; None if its processor is unknown.

    beside: bytes of flash and of memory for everything but the light.
    """
    core = CORES.get(kind.core)
    if core is None or kind.mhz is None:
        return None
    operations = [count.frame, *(part for each in count.layers for part in (each.frame, each.led))]
    code = sum(_sum(core.code, each) for each in operations) + core.code["base"] + count.tables
    code += core.code["field"] * count.fields + core.code["limit"] * count.limits
    code += core.code["layer"] * len(count.layers)
    is_mixed = any(each.scenes is not None for each in count.layers)
    code += core.code["scenes"] * is_mixed + core.code["dither"] * count.dither
    kinds = {_KIND_OF[name] for each in operations for name, number in each.items() if number}
    kinds |= {"float"} if kinds & FLOATS else set()
    code += sum(core.once.get(kind, 0.0) for kind in kinds)
    work = core.work
    rest = _sum(work, count.frame) + work["frame"] + work["led"] * count.leds
    rest += work["field"] * count.fields
    rest += count.limits * (work["limit"] + work["limited"] * count.leds)
    at_once = MOST_AT_ONCE_8_BIT if kind.bits == 8 else MOST_AT_ONCE
    layers = [(each, _layer(core, each, -(-count.leds // at_once))) for each in count.layers]
    rest += sum(cycles for each, cycles in layers if each.layer < 0)  # finishes are always there
    layers = [(each, cycles) for each, cycles in layers if each.layer >= 0]
    mix = count.leds * (3 * (work["sum"] + work["mul"]) + 9 * work["light"]) * is_mixed
    light = 12 * min(at_once, count.leds) * (3 if is_mixed else 1)
    frame_operations = sum(count.frame.values())
    frame_operations += sum(sum(each.frame.values()) for each in count.layers)
    longest = max(count.line_bytes, default=0)
    memory: float = count.state + sum(count.line_bytes) + core.signal * count.signals
    memory += core.memory[0] + core.memory[1] * longest + core.memory[2] * sum(count.line_bytes)
    flash = round(code) + kind.start_code + core.receiver[0] * is_receiver + beside[0]
    memory += beside[1]
    if kind.code_in_ram:
        memory += flash
    return Cost(
        flash=flash,
        memory=round(memory) + core.receiver[1] * is_receiver,
        stack=round(
            light
            + core.stack[0]
            + core.stack[1] * frame_operations
            + core.stack[2] * max((sum(each.led.values()) for each in count.layers), default=0)
        ),
        operations=_operations(count),
        work=round(rest + 2 * mix + _all_on(layers, count)),
        layers=tuple((each.layer, round(cycles)) for each, cycles in layers),
        rest=round(rest),
        mix=round(mix),
        hz=kind.mhz * 1e6,
        line_s=8 * sum(count.line_bytes) * (core.sends / (kind.mhz * 1e6) or 1.25e-6),
        waits=core.sends > 0,
    )


def most_baud(kind: ControllerType) -> float | None:
    """The most that a receiver takes over a serial link; None if nobody knows."""
    core = CORES.get(kind.core)
    if core is None or kind.mhz is None:
        return None
    return 10 * kind.mhz * 1e6 / core.receives


def made_baud(kind: ControllerType, baud: int) -> float:
    """The rate that an 8-bit part really has: an eighth of its clock, divided by a whole number.

    >>> from fendra.core.catalogue.controllers import CONTROLLERS
    >>> made_baud(CONTROLLERS["atmega328p"], 500_000)
    500000.0
    """
    eighth = (kind.mhz or 16) * 1e6 / 8
    return eighth / max(round(eighth / baud), 1)


def _sum(costs: Mapping[str, float], operations: Mapping[str, int]) -> float:
    return sum(number * costs[_KIND_OF[name]] for name, number in operations.items())


def _layer(core: Core, layer: LayerCount, calls: int) -> float:
    """Cycles of a layer while it is on. calls: how often it is called in a frame."""
    each_led = _sum(core.work, layer.led) + core.work["turn"]
    rows = core.work["row"] * layer.rows * calls
    return _sum(core.work, layer.frame) + each_led * layer.leds + rows


def _all_on(layers: Sequence[tuple[LayerCount, float]], count: Count) -> float:
    """Cycles, or operations, of all layers that can be there at a time: two scenes, the dearest."""
    shared = sum(cycles for each, cycles in layers if each.scenes is None)
    scenes = sorted(
        sum(cycles for each, cycles in layers if each.scenes is not None and scene in each.scenes)
        for scene in range(count.scenes)
    )
    return shared + sum(scenes[-2:])


def _operations(count: Count) -> int:
    """All operations of a frame with everything on that can be on at a time; making bytes is three
    for each channel.
    """
    layers = [
        (each, sum(each.frame.values()) + sum(each.led.values()) * each.leds)
        for each in count.layers
    ]
    return round(sum(count.frame.values()) + _all_on(layers, count)) + 9 * count.leds


CORES: Mapping[str, Core] = {name: Core(**keys) for name, keys in read_catalogue("cores").items()}
"""By the name that a controller type has for its processor."""
