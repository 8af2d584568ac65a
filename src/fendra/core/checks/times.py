"""Times: are they whole frames?"""

from __future__ import annotations

import math

from fendra.core.checks import Subject, check
from fendra.core.composition.settings import written
from fendra.core.document.design import Design
from fendra.core.effects import EFFECTS, Effect
from fendra.core.findings import KeyPath, Report
from fendra.core.light.dither import SLOWEST_HZ, dither_frames
from fendra.core.names import listed

NEARLY = 1e-6
"""Times this close to a whole number of frames count as whole."""
SHORTEST_MS, LONGEST_MS = 4, 1000
"""Of a frame: 250 a second, and one."""


@check(stops=False)
def times_in_frames(subject: Subject, report: Report) -> None:
    """Times after which something jumps, and that are no whole number of frames."""
    design, effects = subject.design, {**EFFECTS, **subject.media.effects}
    for number, layer in enumerate(design.layer):
        effect = effects.get(design.effect_of(layer))
        times = {} if effect is None else times_of(design, number, effect)
        for_all = rate_for(design.rate, [time_s for time_s, _ in times.values()])
        for name, (time_s, path) in times.items():
            frames = time_s * design.rate
            few, many = math.floor(frames + NEARLY), math.ceil(frames - NEARLY)
            if few == many:
                continue
            message = f"`{name}` is {frames:.4g} frames at {design.rate:g} a second, "
            message += f"so some last {few} and some {many}." if few else "shorter than one."
            ways = [f"{count / design.rate:.6g}" for count in (few, many) if count]
            remedy = f"Write {listed(ways, 'or')}"
            better_hz = for_all or rate_for(design.rate, [time_s])
            remedy += f", or rate = {better_hz:.10g} for the design." if better_hz else "."
            report.note(path, "uneven-time", message, remedy)


@check(stops=False)
def dither_in_time(subject: Subject, report: Report) -> None:
    """Frames so slow that dither would flicker."""
    design = subject.design
    if design.dither and dither_frames(design.rate) == 1:
        message = (
            f"at {design.rate:g} frames a second dither would flicker, so the light is rounded."
        )
        remedy = f"Set rate = {2 * SLOWEST_HZ:g} or more, or remove `dither`."
        report.warning(("dither",), "no-effect", message, remedy)


def times_of(design: Design, number: int, effect: Effect) -> dict[str, tuple[float, KeyPath]]:
    """The times of a layer that should be whole frames, as far as plain numbers say them."""
    names = [name for name, item in effect.parameters.items() if item.in_frames]
    return {
        name: (float(setting), path)
        for name, (setting, path) in written(design, number, names).items()
        if isinstance(setting, (int, float)) and not isinstance(setting, bool) and setting > 0
    }


def rate_for(rate_hz: float, times_s: list[float]) -> float | None:
    """The rate nearest to `rate_hz` at which all of some times are whole frames, each of whole
    milliseconds; None if there is none.

    >>> rate_for(50, [0.025]), rate_for(50, [0.03, 0.5]), rate_for(50, [0.0333])
    (40.0, 100.0, None)
    """
    times_ms = [time_s * 1000 for time_s in times_s]
    if not times_ms or any(abs(time - round(time)) > NEARLY * time for time in times_ms):
        return None
    common = math.gcd(*(round(time) for time in times_ms))
    frames = [ms for ms in range(SHORTEST_MS, min(common, LONGEST_MS) + 1) if common % ms == 0]
    if not frames:
        return None
    return 1000.0 / min(frames, key=lambda ms: abs(math.log(ms * rate_hz / 1000)))
