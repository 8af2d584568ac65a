"""Which engine runs a design."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from fendra.core.composition.plan import Plan
from fendra.core.engines.engine import Engine
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.errors import EngineError
from fendra.core.names import did_you_mean
from fendra.native.names import ENGINES

PAYS_FROM = 10_000
"""LEDs painted in a frame, each once for every layer on it, from which on `auto` compiles: what
compiling takes is then won back within about a minute of frames (docs/performance.md)."""


@dataclass(frozen=True)
class Takes:
    """Seconds that an engine takes: to be made, for a frame, and for each LED painted in it."""

    making: float
    frame: float
    led: float

    def film(self, frames: int, leds: int) -> float:
        """Seconds to make the engine, and to make this many frames."""
        return self.making + frames * (self.frame + leds * self.led)


TAKES: Mapping[str, Takes] = {
    "numpy": Takes(0.0, 2e-4, 1.1e-8),
    "wasm": Takes(0.1, 4e-6, 3e-9),
    "native": Takes(1.2, 1e-6, 6e-10),
}
"""As docs/performance.md measures them with its scene."""


def choose_engine(plan: Plan, wanted: str = "auto", frames: int = 0) -> tuple[Engine, str]:
    """The engine, and a note if it is not the one that was asked for; else an empty text.

    frames: of a film, if it is for one. Raises EngineError for an unknown name.
    """
    if wanted not in ENGINES:
        remedy = did_you_mean(wanted, ENGINES, "engines")
        raise EngineError(f"there is no engine '{wanted}'. {remedy}")
    leds, failure = plan.painted, ""
    for name in (wanted,) if wanted != "auto" else quickest(leds, frames):
        if name == "numpy":
            break
        try:
            return _MAKERS[name](plan), ""
        except EngineError as exc:
            failure = failure or str(exc)
    if not failure or (wanted == "auto" and leds < PAYS_FROM):
        return NumpyEngine(plan), ""
    return NumpyEngine(plan), f"{failure} NumPy runs the design instead: same light, slower."


def quickest(leds: int, frames: int = 0) -> tuple[str, ...]:
    """The engines as `auto` tries them. leds: painted in a frame. frames: of a film; 0 for a run.

    >>> quickest(300), quickest(300, 2_000), quickest(400_000, 20_000)[0]
    (('numpy',), ('wasm', 'numpy', 'native'), 'native')
    """
    if frames == 0:
        return ("native", "wasm", "numpy") if leds >= PAYS_FROM else ("numpy",)
    return tuple(sorted(TAKES, key=lambda name: TAKES[name].film(frames, leds)))


def _native(plan: Plan) -> Engine:
    from fendra.native.engine import NativeEngine

    return NativeEngine(plan)


def _wasm(plan: Plan) -> Engine:
    from fendra.native.wasm import WasmEngine

    return WasmEngine(plan)


_MAKERS: Mapping[str, Callable[[Plan], Engine]] = {"native": _native, "wasm": _wasm}
