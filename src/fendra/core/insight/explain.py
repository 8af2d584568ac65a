"""Why an LED looks as it does: each layer that touched it at a moment, down to the bytes sent."""

from __future__ import annotations

from collections import deque
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.arrays import Array
from fendra.core.composition.plan import Dither, Finish, Master, Mix, Paint, Plan
from fendra.core.composition.record import WHY
from fendra.core.document.design import Design
from fendra.core.electric.limiter import Limit
from fendra.core.engines.engine import unknown
from fendra.core.film import Film
from fendra.core.findings import KeyPath
from fendra.core.graph.node import Rate
from fendra.core.graph.ops import op_of
from fendra.core.graph.passes import constant_array
from fendra.core.insight.replay import replay
from fendra.core.insight.timeline import why_of_layer, why_of_scene
from fendra.core.language.reader import names_in
from fendra.core.layout.spot import name_of
from fendra.core.layout.wire import Wire
from fendra.core.light.bytes import wire_order
from fendra.core.light.colours import linear_to_srgb
from fendra.core.shown import as_table, brief, few, in_digits
from fendra.core.signals.kinds import kind_of

Light = tuple[float, float, float]


@dataclass(frozen=True)
class Touch:
    """The change that one layer made to an LED at a moment.

    is_on: whether it did anything. why: its condition as it is written; scene: that for which it
    was painted, where scenes were mixed. read: the signals in its condition and parameters, and
    their values. parameters: those that the design sets, at this LED. colour: of its effect; cover:
    how much of it, 0 to 1; hidden: how much of the light beneath `hides_below` hides where that is
    more, else 0; level: how bright, as the eye sees it. before, after: the light of the LED. All
    light is linear.
    """

    layer: str
    effect: str
    is_on: bool
    why: str
    scene: str
    blend: str
    read: Mapping[str, str]
    parameters: Mapping[str, str]
    colour: Light
    cover: float
    hidden: float
    level: float
    before: Light
    after: Light


@dataclass(frozen=True)
class Explanation:
    """All that made an LED look as it did.

    at_s: of the frame, on the tape's clock. scenes: how much of each was there, and why. touches:
    in the order in which they were painted. finished: the ceilings and white balances that changed
    the light of them all: where they stand in the design, the light before and after. light: of all
    of them, scenes mixed and finished. master: the share of light that the master level lets
    through; let_through: the share that the limiter of its supply does. rgb: the bytes, red, green
    and blue; sent: as they go down the line, in its colour order.
    """

    at_s: float
    spot: str
    line: str
    address: int
    scenes: tuple[tuple[str, float, str], ...]
    touches: tuple[Touch, ...]
    finished: tuple[tuple[KeyPath, Light, Light], ...]
    light: Light
    master: float
    let_through: float
    rgb: tuple[int, int, int]
    order: str
    sent: bytes

    def __repr__(self) -> str:
        on = [touch.layer for touch in self.touches if touch.is_on]
        return brief(
            "Explanation", self.spot, f"at {self.at_s:g} s", hex_of(self.light),
            f"layers on: {few(on)}" if on else "no layer on",
        )  # fmt: skip

    def _repr_markdown_(self) -> str:
        """Its layers from the lowest on, in a notebook."""
        rows = [
            (touch.layer, touch.effect, "on" if touch.is_on else "off", touch.why,
             hex_of(touch.after))
            for touch in self.touches
        ]  # fmt: skip
        title = f"{self.spot} at {self.at_s:g} s: {hex_of(self.light)}"
        return as_table(title, ("layer", "effect", "", "why", "light above it"), rows)


def explain(plan: Plan, film: Film, spot: int, at_s: float) -> Explanation:
    """Why a spot, a row of the layout, looked as it did at a moment of a film.

    plan: of the film's design, with its reasons.
    """
    place = film.place(at_s)
    graph, rates = plan.graph, plan.graph.rates()
    per_frame = [i for i, rate in enumerate(rates) if not rate & Rate.SPOT
                 and graph.nodes[i].op != "const"]  # fmt: skip
    ((_, numbers),) = deque(replay(plan, film, per_frame, place + 1), maxlen=1)
    at_spot = _AtSpot(plan, spot, dict(zip(per_frame, numbers, strict=True)))
    telling = _Telling(plan, at_spot)
    telling.run()
    layout, design = film.layout, film.design
    line = design.line[int(layout.line[spot])]
    rgb = film.rgb[place, spot]
    scenes = tuple(
        (scene.name, float(at_spot.number(share)), why_of_scene(design, i))
        for i, (scene, share) in enumerate(zip(design.scene, plan.shares, strict=False))
    )
    let_through = film.let_through.get(line.supply)
    return Explanation(
        float(film.times[place]), name_of(layout, spot), line.name, int(layout.address[spot]),
        scenes, tuple(telling.touches), tuple(telling.finished), _light(telling.light),
        telling.master,
        1.0 if let_through is None else float(let_through[place]),
        (int(rgb[0]), int(rgb[1]), int(rgb[2])), line.wire_order,
        wire_order(rgb[None], line.wire_order).tobytes(),
    )  # fmt: skip


class _AtSpot:
    """The value of any place of a graph at one spot in one frame.

    beneath: the light beneath each layer, by its place in the design; none if it is not known.
    """

    def __init__(
        self, plan: Plan, spot: int, numbers: Mapping[int, Any],
        beneath: Mapping[int, Array] | None = None,
    ) -> None:  # fmt: skip
        self._plan, self._spot, self._numbers = plan, spot, numbers
        self._beneath = beneath or {}
        self._known: dict[int, Array] = {}

    def over(self, layer: int, light: Array) -> _AtSpot:
        """The same if that light is beneath a layer."""
        return _AtSpot(self._plan, self._spot, self._numbers, {layer: light})

    def number(self, place: int) -> Any:
        """A value of width 1."""
        return self.value(place).ravel()[0]

    def light(self, place: int) -> Array:
        """A colour, or a number three times: (3,) float32."""
        return np.broadcast_to(self.value(place).ravel(), (3,)).astype(np.float32)

    def value(self, place: int) -> Array:
        """A value as (1,) or (3, 1)."""
        if place not in self._known:
            self._known[place] = self._compute(place)
        return self._known[place]

    def row(self, space: str) -> int:
        """The place of the spot in a space; -1 if it is not in it."""
        found = np.flatnonzero(self._plan.spots[space] == self._spot)
        return int(found[0]) if len(found) else -1

    def _compute(self, place: int) -> Array:
        node = self._plan.graph.nodes[place]
        shape = (3, 1) if node.width == 3 else (1,)
        if place in self._numbers:
            return np.asarray(self._numbers[place], node.kind.dtype).reshape(shape)
        if node.op == "const":
            return constant_array(node).reshape(shape)
        if node.op == "column":
            values = self._plan.columns[str(node.space), str(node.payload)]
            row = self.row(str(node.space))
            return values[row : row + 1].astype(node.kind.dtype)
        if node.op == "beneath":
            assert isinstance(node.payload, int)
            return self._beneath[node.payload].reshape(shape)
        if node.op == "pixels":
            return np.zeros(shape, node.kind.dtype)  # a tape holds no pictures
        out = np.empty(shape, node.kind.dtype)
        with np.errstate(all="ignore"):
            args = [self.value(arg) for arg in node.args]
            op_of(node.op, node.payload).array(*args, out)
        return out


class _Telling:
    """Runs the steps of a plan for one spot, and notes what each layer does.

    touches: of every layer on the spot, in the order in which they are painted. finished: the
    ceilings and balances that changed its light: where they stand, the light before and after.
    light: in the end, before the master level.
    """

    def __init__(self, plan: Plan, at_spot: _AtSpot) -> None:
        self._plan, self._at_spot = plan, at_spot
        self.touches: list[Touch] = []
        self.finished: list[tuple[KeyPath, Light, Light]] = []
        self.light: Array = np.zeros(3, np.float32)
        self.master = 1.0

    def run(self) -> None:
        for step in self._plan.steps:
            match step:
                case Paint():
                    self.light = self._painted([step], self.light)
                case Mix():
                    self.light = self._mixed(step, self.light)
                case Finish():
                    self._finish(step)
                case Master():
                    self.master = float(self._at_spot.number(step.share))
                case Dither() | Limit() | Wire():
                    pass  # the film knows their result
                case _:
                    raise unknown(step, "explain")

    def _finish(self, finish: Finish) -> None:
        """Note the change that a ceiling or a white balance makes to the light."""
        if self._at_spot.row(finish.space) < 0:
            return
        after = self._at_spot.over(finish.number, self.light).light(finish.light)
        if (after != self.light).any():
            before = _light(self.light)
            self.finished.append((finish.path, before, _light(after)))
        self.light = after

    def _mixed(self, mix: Mix, light: Array) -> Array:
        """The light after the layers of scenes."""
        shares = [(i, self._at_spot.number(share)) for i, share in enumerate(mix.shares)]
        there = [(i, share) for i, share in shares if share > 0]
        if len(there) <= 1:
            return self._painted(mix.paints, light, there[0][0] if there else -1)
        total: Array = np.zeros(3, np.float32)
        for number, (scene, share) in enumerate(there):
            told = {i for i, _ in there} if number == 0 else None
            painted = self._painted(mix.paints, light, scene, told)
            total = total + painted * np.float32(share)
        return total

    def _painted(
        self, paints: Sequence[Paint], light: Array, scene: int = -1,
        told: Collection[int] | None = (),
    ) -> Array:  # fmt: skip
        """The light after some layers, if one scene is painted.

        told: the other scenes that are painted; layers of no scene are then noted once too. None if
        they have been noted.
        """
        for paint in paints:
            if self._at_spot.row(paint.space) < 0:
                continue
            is_in = paint.scenes is None or scene in paint.scenes
            if not is_in and (told is None or not paint.scenes.isdisjoint(told)):  # type: ignore[union-attr]
                continue
            name = _scene_name(self._plan.design, scene) if is_in and told != () else ""
            touch, light = self._touched(paint, light, name, is_in)
            self.touches.append(touch)
        return light

    def _touched(
        self, paint: Paint, light: Array, scene: str, is_in: bool
    ) -> tuple[Touch, Array]:  # fmt: skip
        """Work out the change that one layer makes to the light of the spot."""
        design, roots, at_spot = self._plan.design, self._plan.graph.roots, self._at_spot
        layer, head = design.layer[paint.layer], f"{WHY}layer:{paint.layer}:"
        is_on = is_in and bool(at_spot.number(paint.on))
        after = at_spot.over(paint.layer, light).light(paint.light) if is_on else light
        parameters = {
            name: shown(at_spot.value(roots[f"{head}parameter:{name}"]))
            for name in design.settings_of(layer)
            if f"{head}parameter:{name}" in roots
        }
        share, hidden = (float(at_spot.number(roots[f"{head}{k}"])) for k in ("share", "hidden"))
        return (
            Touch(
                layer.name, design.effect_of(layer), is_on, why_of_layer(design, paint.layer),
                scene, layer.blend, _read(self._plan, at_spot, paint.layer), parameters,
                _light(at_spot.light(roots[f"{head}colour"])),
                share, hidden if hidden > share else 0.0,
                float(at_spot.number(roots[f"{head}level"])), _light(light), _light(after),
            ),
            after,
        )  # fmt: skip


def _scene_name(design: Design, number: int) -> str:
    return design.scene[number].name if number < len(design.scene) else "no scene"


def _read(plan: Plan, at_spot: _AtSpot, number: int) -> dict[str, str]:
    """The signals that a layer's condition and parameters name, and their values."""
    design, roots = plan.design, plan.graph.roots
    layer = design.layer[number]
    texts = [layer.when, layer.level, layer.cover, *design.settings_of(layer).values()]
    if layer.rhythm in design.rhythms:
        rhythm = design.rhythms[layer.rhythm]
        texts += [rhythm.rate or 0.0, rhythm.when]
    texts += [scene.when for scene in design.scene if scene.name in layer.scenes]
    found: dict[str, str] = {}
    for name in (name for text in texts for name in names_in(text)):
        place = roots.get(f"{WHY}signal:{name}")
        if place is None:
            continue
        signal = design.signals[name]
        value = at_spot.value(place).ravel()[0]
        text = kind_of(signal).word(signal, float(value))
        if text is None and plan.graph.nodes[place].width == 3:
            text = shown(at_spot.light(place))
        elif text is None:
            text = shown(np.asarray([value])) + (f" {signal.unit}" if signal.unit else "")
        is_lost = bool(at_spot.number(roots[f"{WHY}lost:{name}"]))
        found[name] = f"{text}, lost" if is_lost else text
    return found


def shown(value: Array) -> str:
    """A value in words: a number, on or off, or a colour.

    >>> shown(np.array([0.25], np.float32)), shown(np.array([True])), shown(np.array([1.0, 0, 0]))
    ('0.25', 'on', '#ff0000')
    """
    flat = np.asarray(value).ravel()
    if flat.dtype == np.bool_:
        return "on" if flat[0] else "off"
    if len(flat) == 3:
        return hex_of(_light(flat))
    number = float(flat[0])
    return in_digits(number) if abs(number) >= 1e-6 else "0"


def hex_of(light: Light) -> str:
    """Linear light as a colour is written in a design."""
    levels = np.rint(linear_to_srgb(np.array(light)) * 255).astype(int).tolist()
    return "#" + "".join(f"{level:02x}" for level in levels)


def _light(values: Array) -> Light:
    red, green, blue = (float(value) for value in np.broadcast_to(values.ravel(), (3,)))
    return red, green, blue
