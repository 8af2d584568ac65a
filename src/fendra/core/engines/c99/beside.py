"""The needs of firmware besides its light: the code and memory of its inputs and wires.

Bytes as the compilers of Debian 12 make them with -Os, the largest of an ATmega328P, an STM32F103
and an RP2040: one input of each kind against none, in a design that uses floats anyway.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from fendra.core.signals.inputs import fed, inputs_of
from fendra.core.signals.kept import kept_knobs, kept_scenes

if TYPE_CHECKING:
    from fendra.core.catalogue.controllers import ControllerType
    from fendra.core.document.design import Design

FLASH = {
    "switch": 50, "analogue": 140, "temperature": 140, "pulses": 690, "servo": 730, "knob": 480,
    "matrix": 470,
}  # fmt: skip
"""Of the first input of a kind."""
MORE = 90
"""Of each further one."""
MEMORY = {"pulses": 16, "servo": 16, "knob": 23, "matrix": 40}
"""Of each input of a kind that remembers something."""
WIRES = {"mavlink": (720, 270), "values": (750, 40), "peers": (2000, 200)}
"""Flash and memory of a wire, without the ring that bytes wait in."""
RINGS = {8: 132, 32: 1036}
"""The bytes of that ring buffer, by the bits of the processor."""
KEPT = (960, 290)


def beside(design: Design, controller: str, kind: ControllerType) -> tuple[int, int]:
    """Bytes of flash and of memory of all that a controller has beside the light."""
    needs = [pin.kind or "switch" for pin in inputs_of(design, controller).values()]
    flash = sum(FLASH[each] for each in {*needs}) + MORE * (len(needs) - len({*needs}))
    memory = sum(MEMORY.get(each, 1) for each in needs)
    for key, (code, room) in WIRES.items():
        if getattr(design.controllers[controller], key) is not None:
            flash += code
            memory += room + RINGS[8 if kind.bits == 8 else 32] + 8 * len(fed(design))
    if kept_knobs(design) or kept_scenes(design):
        flash += KEPT[0]
        memory += KEPT[1] if kind.bits > 8 else 40
    return flash, memory
