"""Which engine runs a design."""

from __future__ import annotations

from fendra.core.design import Design
from fendra.core.engine import Engine
from fendra.core.errors import EngineError
from fendra.core.graph.numpy_engine import NumpyEngine
from fendra.core.mix import Recording
from fendra.core.names import did_you_mean
from fendra.native.names import ENGINES

PAYS_FROM = 10_000
"""LEDs painted in a frame, each once for every layer on it, from which on `auto` compiles: what
compiling takes is then won back within about a minute of frames (docs/performance.md)."""


def choose_engine(design: Design, recording: Recording, wanted: str = "auto") -> tuple[Engine, str]:
    """The engine, and a note where it is not the one that was wanted; else an empty text.

    Raises EngineError for a name that is none of `ENGINES`.
    """
    if wanted not in ENGINES:
        remedy = did_you_mean(wanted, ENGINES, "engines")
        raise EngineError(f"there is no engine '{wanted}'. {remedy}")
    if wanted == "numpy" or (wanted == "auto" and painted(recording) < PAYS_FROM):
        return NumpyEngine(recording), ""
    if any(node.op == "pixels" for node in recording.graph.nodes):
        note = "The design shows a live picture, which native code cannot."
        return NumpyEngine(recording), f"{note} NumPy runs it." * (wanted == "native")
    from fendra.native.engine import NativeEngine

    try:
        return NativeEngine(design, recording), ""
    except EngineError as exc:
        return NumpyEngine(recording), f"{exc} NumPy runs the design instead: same light, slower."


def painted(recording: Recording) -> int:
    """How many LEDs are painted in a frame, each once for every layer on it."""
    return sum(len(recording.spots[slot.space]) for slot in recording.slots)
