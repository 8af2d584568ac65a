"""Which engine runs a design."""

from __future__ import annotations

from fendra.core.composition.plan import Plan
from fendra.core.engines.engine import Engine
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.errors import EngineError
from fendra.core.names import did_you_mean
from fendra.native.names import ENGINES

PAYS_FROM = 10_000
"""LEDs painted in a frame, each once for every layer on it, from which on `auto` compiles: what
compiling takes is then won back within about a minute of frames (docs/performance.md)."""


def choose_engine(plan: Plan, wanted: str = "auto") -> tuple[Engine, str]:
    """The engine, and a note where it is not the one that was wanted; else an empty text.

    Raises EngineError for a name that is none of `ENGINES`.
    """
    if wanted not in ENGINES:
        remedy = did_you_mean(wanted, ENGINES, "engines")
        raise EngineError(f"there is no engine '{wanted}'. {remedy}")
    if wanted == "numpy" or (wanted == "auto" and painted(plan) < PAYS_FROM):
        return NumpyEngine(plan), ""
    if any(node.op == "pixels" for node in plan.graph.nodes):
        note = "The design shows a live picture, which native code cannot."
        return NumpyEngine(plan), f"{note} NumPy runs it." * (wanted == "native")
    from fendra.native.engine import NativeEngine

    try:
        return NativeEngine(plan), ""
    except EngineError as exc:
        return NumpyEngine(plan), f"{exc} NumPy runs the design instead: same light, slower."


def painted(plan: Plan) -> int:
    """How many LEDs are painted in a frame, each once for every layer on it."""
    return sum(len(plan.spots[paint.space]) for paint in plan.paints)
