"""The packets between the controllers of a design: signals, the clock, and their memory."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from fendra.core.engines.c99 import emit
from fendra.core.engines.c99.lines_alone import lines_alone
from fendra.core.signals.inputs import heard_by_peers
from fendra.outputs.packets import mark_of

if TYPE_CHECKING:
    from fendra.core.composition.plan import Plan

HEAD = 10
"""Bytes of a packet before its mask: kind, sender, design, number, clock."""
PART = 64
"""Bytes of the memory in each packet."""
SIZES = {"float": 4, "uint32_t": 4, "bool": 1}


@dataclass(frozen=True)
class Peers:
    """One of several controllers that tell each other.

    place: its own, from 0, who leads. count: how many there are. baud: of the wire. cells: fields
    of the memory that all of them have, and their bytes. hash: 16 bits that differ where signals or
    memory do. most: bytes of the longest packet. turn_ms: how long an answer takes.
    """

    place: int
    count: int
    baud: int
    cells: tuple[tuple[str, int], ...]
    hash: int
    most: int
    turn_ms: int
    part: int = PART


def _values(plan: Plan, baud: int) -> Peers:
    """A controller that receives signals from a computer: it leads, and sends nothing."""
    most = HEAD + (len(plan.fed) + 7) // 8 + 4 * len(plan.fed) + 2
    return Peers(0, 1, baud, (), mark_of(plan.fed), most, 0)


def peers_of(plan: Plan, controller: str | None) -> Peers | None:
    """The values that a controller shares with the others on its wire; None without any."""
    design = plan.design
    talking = [name for name, each in design.controllers.items() if each.peers]
    names = [name for name in talking if design.lines_of(name)]
    given = design.controllers[controller].peers if controller else None
    values = design.controllers[controller].values if controller else None
    if given is None and values is not None:
        return _values(plan, values.baud)
    if given is None or controller not in names or len(names) < 2:
        return None
    emitted = {name: emit(lines_alone(plan, design.lines_of(name))) for name in names}
    shared = set.intersection(*({*each.cells.values()} for each in emitted.values()))
    cells = sorted((field, SIZES[kind]) for field, kind in shared)
    fields = [*emitted[controller].fields]
    mask = (len(fields) + 7) // 8
    most = HEAD + mask + 4 * len(fields) + 3 + PART + 2
    heard = sum(len(parts) for parts in heard_by_peers(design).values())
    answer = HEAD + mask + 4 * heard + 2
    return Peers(
        names.index(controller), len(names), given.baud, tuple(cells),
        mark_of([*names, *fields, *map(str, cells)]), most, -(-answer * 11000 // given.baud) + 1,
    )  # fmt: skip
