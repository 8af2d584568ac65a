"""A HID report descriptor: which bits of which report are which value (HID 1.11, section 6.2.2)."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

MAIN, GLOBAL, LOCAL = 0, 1, 2
INPUT, OUTPUT, COLLECTION, FEATURE, END = 0x8, 0x9, 0xA, 0xB, 0xC
KINDS = {INPUT: "input", OUTPUT: "output", FEATURE: "feature"}
LONG = 0xFE
SIZES = (0, 1, 2, 4)
CONSTANT, VARIABLE = 0x1, 0x2
MOST_FIELDS = 20_000
"""No device has more; one that says so is broken."""


@dataclass(frozen=True)
class Field:
    """One value of a report.

    Attributes:
        report: the report's number; 0 if the device has only one
        kind: `input`, `output` or `feature`
        usage: page * 65536 + usage; 0 for padding
        inside: the usages of the collections around it, the outermost first
        bit: its first bit, behind the report's number
        size: its bits
        low: the least value that it can have
        high: the most
    """

    report: int
    kind: str
    usage: int
    inside: tuple[int, ...]
    bit: int
    size: int
    low: int
    high: int


@dataclass(frozen=True)
class _Globals:
    page: int = 0
    low: int = 0
    high: int = 0
    high_unsigned: int = 0
    size: int = 0
    report: int = 0
    count: int = 0


@dataclass
class _State:
    now: _Globals = field(default_factory=_Globals)
    stack: list[_Globals] = field(default_factory=list)
    usages: list[int] = field(default_factory=list)
    first: int | None = None
    last: int | None = None
    alternatives: int | None = None
    inside: list[int] = field(default_factory=list)
    bits: dict[tuple[str, int], int] = field(default_factory=dict)
    fields: list[Field] = field(default_factory=list)


def read_descriptor(data: bytes) -> list[Field]:
    """All values of a device's reports, in their order. Raises ValueError for bytes that are no
    descriptor.

    >>> mouse = bytes.fromhex("05010902a1010901a100050919012903150025019503750181029501750581"
    ...                       "01050109300931158125 7f750895028106c0c0".replace(" ", ""))
    >>> [(each.kind, hex(each.usage), each.bit, each.size) for each in read_descriptor(mouse)][2:5]
    [('input', '0x90003', 2, 1), ('input', '0x0', 3, 5), ('input', '0x10030', 8, 8)]
    """
    state, at = _State(), 0
    while at < len(data):
        head = data[at]
        if head == LONG:
            at += 3 + (data[at + 1] if at + 1 < len(data) else 0)
            continue
        size = SIZES[head & 3]
        body = data[at + 1 : at + 1 + size]
        if len(body) < size:
            raise ValueError(f"the descriptor ends within the item at byte {at}")
        _take(state, head >> 2 & 3, head >> 4, body)
        at += 1 + size
    if state.inside:
        raise ValueError(f"{len(state.inside)} collections of the descriptor do not end")
    return state.fields


def _take(state: _State, kind: int, tag: int, body: bytes) -> None:
    whole = int.from_bytes(body, "little")
    signed = int.from_bytes(body, "little", signed=True)
    if kind == GLOBAL:
        _take_global(state, tag, whole, signed)
    elif kind == LOCAL:
        _take_local(state, tag, whole)
    elif kind == MAIN:
        if tag == COLLECTION:
            state.inside.append(_with_page(state, state.usages[0]) if state.usages else 0)
        elif tag == END:
            if not state.inside:
                raise ValueError("a collection of the descriptor ends that did not begin")
            state.inside.pop()
        elif tag in KINDS:
            _add(state, KINDS[tag], whole)
        state.usages, state.first, state.last, state.alternatives = [], None, None, None


def _take_local(state: _State, tag: int, whole: int) -> None:
    match tag:
        case 0x0:
            state.usages.append(whole)
        case 0x1:
            state.first = whole
        case 0x2:
            state.last = whole
        case 0xA if whole:
            state.alternatives = len(state.usages)
        case 0xA if state.alternatives is not None:  # of several usages for one value, the first
            del state.usages[state.alternatives + 1 :]
            state.alternatives = None
    if state.first is not None and state.last is not None:
        if state.last - state.first > MOST_FIELDS:
            raise ValueError(f"a range of {state.last - state.first} usages")
        state.usages += range(state.first, state.last + 1)
        state.first = state.last = None


def _with_page(state: _State, usage: int) -> int:
    """A usage without a page is of the one that was named last before the main item."""
    return usage if usage >> 16 else state.now.page << 16 | usage


def _take_global(state: _State, tag: int, whole: int, signed: int) -> None:
    match tag:
        case 0x0:
            state.now = replace(state.now, page=whole)
        case 0x1:
            state.now = replace(state.now, low=signed)
        case 0x2:
            state.now = replace(state.now, high=signed, high_unsigned=whole)
        case 0x7:
            state.now = replace(state.now, size=whole)
        case 0x8:
            state.now = replace(state.now, report=whole)
        case 0x9:
            state.now = replace(state.now, count=whole)
        case 0xA:
            state.stack.append(state.now)
        case 0xB:
            if not state.stack:
                raise ValueError("the descriptor takes back globals that it did not keep")
            state.now = state.stack.pop()


def _add(state: _State, kind: str, flags: int) -> None:
    now = state.now
    if len(state.fields) + now.count > MOST_FIELDS or now.size > 4096:
        raise ValueError(f"{now.count} fields of {now.size} bits in one report")
    # A most that looks negative, with a least that is not, has lost its sign (65535 in two bytes).
    high = now.high_unsigned if now.high < 0 <= now.low else now.high
    place = (kind, now.report)
    for number in range(now.count):
        usage = 0
        if state.usages and not (flags & CONSTANT and not flags & VARIABLE):
            usage = _with_page(state, state.usages[min(number, len(state.usages) - 1)])
        bit = state.bits.get(place, 0)
        state.fields.append(
            Field(now.report, kind, usage, tuple(state.inside), bit, now.size, now.low, high)
        )
        state.bits[place] = bit + now.size
