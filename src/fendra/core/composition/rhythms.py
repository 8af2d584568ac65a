"""Rhythms: beats that several layers share, so that they stay in step."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from fendra.core.composition.settings import Settings
from fendra.core.document.layer import Rhythm as Written
from fendra.core.effects.led import Beat
from fendra.core.effects.parameters import Parameter
from fendra.core.findings import KeyPath
from fendra.core.graph.clock import MOST_HZ, Clock
from fendra.core.graph.functions import clamp
from fendra.core.graph.trace import Tracer, Value

RATE = Parameter("number", 0.0, "Hz", 0.0, MOST_HZ)


@dataclass(frozen=True)
class Rhythm:
    """A rhythm, recorded. rate: turns a second; None if each effect has its own."""

    beat: Beat
    rate: Value | None
    _held: dict[tuple[float, float], Value] = field(default_factory=dict)

    def rate_within(self, low: float, high: float) -> Value:
        """Its rate as an effect takes it: the same value for all that take the same."""
        assert self.rate is not None
        if (low, high) not in self._held:
            self._held[low, high] = clamp(self.rate, low, high)
        return self._held[low, high]


def record_rhythms(
    rhythms: Mapping[str, Written], tracer: Tracer, clock: Clock, settings: Settings
) -> dict[str, Rhythm]:
    """Every rhythm of a design, by name. Mistakes are reported."""
    found = {}
    for name, written in rhythms.items():
        path: KeyPath = ("rhythms", name)
        with tracer.within(path):
            rate = None
            if written.rate is not None:
                rate = settings.value(written.rate, RATE, (*path, "rate"))
            begins = None
            if written.when is not True:
                begins = clock.rises(settings.condition(written.when, (*path, "when")))
            found[name] = Rhythm(Beat(begins), rate)
    return found
