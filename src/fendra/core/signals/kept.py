"""The memory of a controller while it is off: knobs, and scenes that a button steps through."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from fendra.core.signals.inputs import pin_of

if TYPE_CHECKING:
    from fendra.core.document.design import Design


def kept_knobs(design: Design) -> list[str]:
    """The signals whose knobs are kept."""
    pins = {name: pin_of(signal) for name, signal in design.signals.items() if signal.keep}
    return [name for name, pin in pins.items() if pin is not None and pin.kind == "knob"]


def kept_scenes(design: Design) -> list[int]:
    """The places of the scenes whose button is kept: which one of them is chosen."""
    kept = [name for name, signal in design.signals.items() if signal.keep]
    return [
        i
        for i, scene in enumerate(design.scene)
        if any(re.search(rf"\b{name}\b", scene.button) for name in kept)
    ]
