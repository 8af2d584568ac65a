"""Steering: what hands do to a run: signals, master level, on and off, the scene, presets.

Level, on and off, and the scene are signals as any other: they are put into the design before it is
compiled, so every engine shows them, faded and limited as all else is.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from threading import RLock
from typing import Any, TypeAlias

from fendra.core.checks.examine import Examined, examine
from fendra.core.document.design import Design
from fendra.core.document.layer import Layer
from fendra.core.document.signal import Signal
from fendra.core.errors import DesignError, SignalError
from fendra.core.findings import Finding, Severity
from fendra.core.names import did_you_mean
from fendra.core.program import Program
from fendra.core.signals.kinds import kind_of
from fendra.live.inbox import Inbox

LEVEL, ON, SCENE = "hand_level", "hand_on", "hand_scene"
"""Signals that a design gets which is steered."""
STEERED = frozenset({LEVEL, ON, SCENE})
NO_SCENE = -1.0

Held: TypeAlias = "dict[str, Any]"
"""The values held by hand, as plain values: `signals`, `level`, `on`, `scene` and `presets`."""


def steered(read: Examined, presets: Mapping[str, str] | None = None) -> Examined:
    """A design with the signals for steering, placed and recorded.

    presets: by the names of layers, in place of the design's own. The layer's own keys that its new
    preset gives are left out.

    Raises DesignError if the design has a signal with one of these names.
    """
    subject = read.subject
    design = subject.design
    own: dict[str, Signal] = {
        LEVEL: Signal(kind="number", range=(0.0, 1.0), fallback=1.0),
        ON: Signal(kind="switch", fallback=True),
        SCENE: Signal(kind="number", range=(NO_SCENE, 1000.0), fallback=NO_SCENE),
    }
    taken = own.keys() & design.signals.keys()
    if taken:
        name = min(taken)
        message = f"signal '{name}' has a name that steering needs."
        raise DesignError(
            [
                Finding(
                    "reserved-name",
                    Severity.ERROR,
                    message,
                    "Rename the signal.",
                    ("signals", name),
                )
            ]
        )
    changed = design.model_copy(
        update={
            "signals": {**design.signals, **own},
            "level": f"({design.level}) * {LEVEL} if {ON} else 0",
            "layer": [_with_preset(design, layer, presets or {}) for layer in design.layer],
        }
    )
    return examine(
        changed, media=subject.media, origin=subject.recorded.origin,
        scene_by=SCENE if design.scene else "",
    )  # fmt: skip


def _with_preset(design: Design, layer: Layer, presets: Mapping[str, str]) -> Layer:
    name = presets.get(layer.name)
    if name is None or name not in presets_of(design, layer):
        return layer
    given = {*design.presets[name].parameters}
    values = layer.model_dump(exclude_unset=True, exclude=given)
    return Layer.model_validate({**values, "preset": name}, strict=False)


def presets_of(design: Design, layer: Layer) -> list[str]:
    """The presets that a layer may have: the presets of its effect."""
    effect = design.effect_of(layer)
    return [name for name, preset in design.presets.items() if preset.effect == effect]


class Steering:
    """Takes the user's changes; safe from any thread.

    read: the design as it was read. compiled: makes a program of a design. changed: called after
    each change, from the thread that made it.
    """

    def __init__(
        self,
        read: Examined,
        compiled: Callable[[Examined], Program],
    ) -> None:
        self._read, self._compile = read, compiled
        self._running: Examined | None = None
        self._use: Callable[[Program], object] = lambda _: None
        self._lock = RLock()
        self._inbox: Inbox | None = None
        self._presets: dict[str, str] = {}
        self.changed: list[Callable[[], object]] = []

    @property
    def design(self) -> Design:
        """The design as it was read."""
        return self._read.subject.design

    @property
    def read(self) -> Examined:
        """The same, with what was made of it."""
        return self._read

    @property
    def inbox(self) -> Inbox:
        assert self._inbox is not None
        return self._inbox

    @property
    def running(self) -> Examined:
        """The running design, with the changes by hand."""
        if self._running is None:
            self._running = steered(self._read, self._presets)
        return self._running

    def program(self) -> Program:
        """The program that a run begins with."""
        return self._compile(self.running)

    def steer(self, inbox: Inbox, use: Callable[[Program], object]) -> None:
        """Begin: everything is as in the design. use: continues with another program."""
        self._inbox, self._use = inbox, use
        for name, value in ((LEVEL, 1.0), (ON, 1.0), (SCENE, NO_SCENE)):
            inbox.hold(name, value)

    def prepare(self, read: Examined) -> Examined:
        """Turn a reloaded design into the one to run; values held by hand stay."""
        with self._lock:
            found = steered(read, self._presets)
            self._read, self._running = read, found
            return found

    def set(self, name: str, value: Any) -> None:
        """Take a signal over. Raises SignalError."""
        self._check(name)
        if value is None:
            raise SignalError(f"signal '{name}' needs a value; to hold back its news, use \"lose\"")
        self.inbox.hold(name, value)
        self._tell()

    def lose(self, name: str) -> None:
        """Hold back all news of a signal. Raises SignalError."""
        self._check(name)
        signal = self.design.signals[name]
        if kind_of(signal).is_moment:
            raise SignalError(f"signal '{name}' happens in one moment, so it cannot be lost")
        self.inbox.hold(name, None)
        self._tell()

    def free(self, name: str) -> None:
        """Let go of a signal. Raises SignalError."""
        self._check(name)
        self.inbox.release(name)
        self._tell()

    def level(self, value: Any) -> None:
        """The master level by hand, 0 to 1, times the design's own. Raises SignalError."""
        if isinstance(value, bool) or not isinstance(value, (int, float)) or not 0 <= value <= 1:
            raise SignalError(f"the level must be a number from 0 to 1, not {value!r:.40}")
        self.inbox.hold(LEVEL, float(value))
        self._tell()

    def on(self, value: Any) -> None:
        """Whether there is light at all. Raises SignalError."""
        if not isinstance(value, bool):
            raise SignalError(f"on must be true or false, not {value!r:.40}")
        self.inbox.hold(ON, value)
        self._tell()

    def scene(self, name: Any) -> None:
        """A scene, whatever its condition says; None: as conditions say. Raises SignalError."""
        names = [scene.name for scene in self.design.scene]
        if name is None:
            place = NO_SCENE
        elif name in names:
            place = float(names.index(name))
        else:
            remedy = did_you_mean(str(name), names, "scenes") if names else "It has none."
            raise SignalError(f"the design has no scene '{name!s:.60}'. {remedy}")
        self.inbox.hold(SCENE, place)
        self._tell()

    def preset(self, layer: str, name: Any) -> None:
        """A layer's preset; None: as the design says. Takes as long as to compile the design.

        Raises SignalError.
        """
        with self._lock:
            layers = {each.name: each for each in self.design.layer}
            if layer not in layers:
                remedy = did_you_mean(layer, layers, "layers")
                raise SignalError(f"the design has no layer '{layer:.60}'. {remedy}")
            known = presets_of(self.design, layers[layer])
            if name is not None and name not in known:
                remedy = did_you_mean(str(name), known, "presets") if known else "It has none."
                raise SignalError(f"layer '{layer}' has no preset '{name!s:.60}'. {remedy}")
            wanted = {**self._presets, layer: name}
            self._choose({each: preset for each, preset in wanted.items() if preset is not None})
        self._tell()

    def _choose(self, presets: dict[str, str]) -> None:
        if presets == self._presets:
            return
        try:
            changed = steered(self._read, presets)
            program = self._compile(changed)
        except DesignError as exc:
            raise SignalError(f"the preset does not fit this layer: {exc.findings[0]}") from exc
        self._presets, self._running = presets, changed
        self._use(program)

    def held(self) -> Held:
        """The values held by hand."""
        held = self.inbox.held
        names = [scene.name for scene in self.design.scene]
        place = int(held.get(SCENE, {}).get(SCENE, NO_SCENE))
        return {
            "signals": {
                name: [*numbers.values()] or None
                for name, numbers in held.items()
                if name not in STEERED
            },
            "level": held.get(LEVEL, {}).get(LEVEL, 1.0),
            "on": bool(held.get(ON, {}).get(ON, 1.0)),
            "scene": names[place] if 0 <= place < len(names) else None,
            "presets": dict(self._presets),
        }

    def recall(self, wanted: Mapping[str, Any]) -> None:
        """Hold only these, and release everything else; names that the design does not have are
        left out.

        wanted: as `held` gives it. Raises SignalError.
        """
        signals = wanted.get("signals", {})
        for name in [*self.inbox.held]:
            if name not in STEERED and name not in signals:
                self.inbox.release(name)
        for name, numbers in signals.items():
            if name in self.design.signals:
                self.inbox.hold(name, _raw(numbers))
        self.level(wanted.get("level", 1.0))
        self.on(wanted.get("on", True))
        scene = wanted.get("scene")
        self.scene(scene if scene in [each.name for each in self.design.scene] else None)
        with self._lock:
            presets = wanted.get("presets", {})
            self._choose(
                {
                    layer.name: presets[layer.name]
                    for layer in self.design.layer
                    if presets.get(layer.name) in presets_of(self.design, layer)
                }
            )
        self._tell()

    def _check(self, name: str) -> None:
        if name not in self.design.signals:
            remedy = did_you_mean(name, [*self.design.signals], "signals")
            raise SignalError(f"the design has no signal '{name:.60}'. {remedy}")

    def _tell(self) -> None:
        for tell in self.changed:
            tell()


def _raw(numbers: Any) -> Any:
    """Numbers that were held, as a raw value."""
    if not isinstance(numbers, list):
        return numbers
    return numbers[0] if len(numbers) == 1 else numbers
