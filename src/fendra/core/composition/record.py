"""Recording: a design with its layout becomes one graph."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any, TypeVar

from fendra.core.arrays import Array
from fendra.core.composition.blends import BLENDS, Stroke
from fendra.core.composition.finishes import counted, finishes
from fendra.core.composition.media import Media
from fendra.core.composition.own import Drawn, drawn_of, line_in
from fendra.core.composition.plan import Dither, Finish, Master, Mix, Paint, Plan, Step
from fendra.core.composition.rhythms import Rhythm, record_rhythms
from fendra.core.composition.scenes import record_scenes
from fendra.core.composition.settings import Settings, written
from fendra.core.document.design import Design
from fendra.core.document.layer import Layer
from fendra.core.document.origin import Origin
from fendra.core.effects import EFFECTS, Effect
from fendra.core.effects.led import Led
from fendra.core.electric.limiter import Limit, make_limits
from fendra.core.electric.loads import make_loads
from fendra.core.errors import GraphError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.clock import Clock
from fendra.core.graph.functions import lightness_to_linear
from fendra.core.graph.node import Graph
from fendra.core.graph.ops import Kind
from fendra.core.graph.passes import is_const, simplify
from fendra.core.graph.trace import Tracer, Value
from fendra.core.layout.canvas import on_canvas
from fendra.core.layout.choice import ALL, Choice, Choices
from fendra.core.layout.space import Space
from fendra.core.layout.table import Layout
from fendra.core.layout.wire import wires_of
from fendra.core.light.dither import BLUE_TAKES, dither_frames
from fendra.core.names import cannot_stand, did_you_mean, listed, nearest, the_known
from fendra.core.signals.inputs import fed
from fendra.core.signals.record import Signals

T = TypeVar("T")


def record(
    design: Design,
    layout: Layout,
    choices: Choices,
    report: Report,
    dropped: frozenset[str] = frozenset(),
    *,
    media: Media | None = None,
    origin: Origin | None = None,
    scene_by: str = "",
) -> Recorded:
    """Record a whole design. Mistakes are reported, and left out.

    dropped: names of the file that were left out of the design before. media: the contents of the
    files that it names. origin: the file it came from. scene_by: see `record_scenes`.
    """
    recorder = _Recorder(design, layout, choices, report, dropped, media or Media())
    recorder.signals.record_all()
    for name, (value, is_lost) in recorder.signals.recorded.items():
        recorder.reason(f"signal:{name}", value)
        recorder.reason(f"lost:{name}", is_lost)
    recorder.scenes(scene_by)
    recorder.rhythms()
    layers = {}
    for i, layer in enumerate(design.layer):
        with recorder.tracer.within(("layer", i)):
            space = recorder.layer(i, layer)
        if space is not None:
            layers[i] = space, recorder.scenes_of(layer)
    recorder.finish()
    spots = {name: choice.spots for name, choice in choices.items()}
    spots |= {name: space.choice.spots for name, space in recorder.spaces.items()}
    return Recorded(
        design, layout, origin or Origin(), recorder.tracer.graph(), recorder.spaces, spots,
        layers, tuple(recorder.finishes), recorder.images, make_limits(make_loads(design, layout)),
    )  # fmt: skip


MOST_UNKNOWN = 20
"""How many unknown keys of a layer are reported at a time."""


@dataclass(frozen=True)
class Recorded:
    """The whole recording of a design.

    traced: the graph with every value, also those that only explain the light. layers: by their
    places in the design: the space of each, and its scenes as in `Paint`. finishes: the number,
    path and space of each, as in `Finish`. images: the number of scenes, with no scene counted as
    one.
    """

    design: Design
    layout: Layout
    origin: Origin
    traced: Graph
    spaces: Mapping[str, Space]
    spots: Mapping[str, Array]
    layers: Mapping[int, tuple[str, frozenset[int] | None]]
    finishes: tuple[tuple[int, KeyPath, str], ...]
    images: int
    limits: tuple[Limit, ...]

    @cached_property
    def plan(self) -> Plan:
        """The plan that engines run and emitters write."""
        return self._plan(lambda name: not name.startswith(WHY))

    @cached_property
    def reasons(self) -> Plan:
        """The same with what explains the light: the roots that begin with `WHY`."""
        return self._plan(lambda _: True)

    def _plan(self, is_wanted: Callable[[str], bool]) -> Plan:
        roots = {name: place for name, place in self.traced.roots.items() if is_wanted(name)}
        graph = simplify(Graph(self.traced.nodes, roots, self.traced.start))
        columns = {
            (str(node.space), str(node.payload)): self.spaces[str(node.space)].values(
                str(node.payload)
            )
            for node in graph.nodes
            if node.op == "column"
        }
        return Plan(
            self.design, self.layout, graph, self._steps(graph), columns, self.spots,
            len(self.layout), tuple(fed(self.design)), self.origin,
        )  # fmt: skip

    def _steps(self, graph: Graph) -> tuple[Step, ...]:
        roots = graph.roots
        paints = [
            Paint(
                i, self.layers[i][0], roots[f"layer:{i}:on"],
                uncovered(graph, roots[f"layer:{i}:light"]), self.layers[i][1],
            )
            for i in self.design.painted
            if i in self.layers
        ]  # fmt: skip
        own = [
            place
            for place, paint in enumerate(paints)
            if paint.scenes is not None and self._can_show(graph, paint)
        ]
        first, end = (own[0], own[-1] + 1) if own else (len(paints), len(paints))
        steps: list[Step] = [*paints[:first]]
        if self.images:
            shares = tuple(roots[f"scene:{i}:there"] for i in range(self.images))
            steps.append(Mix(shares, tuple(paints[first:end])))
        steps += paints[end:]
        for number, path, space in self.finishes:
            light = roots[f"finish:{number}:light"]
            steps.append(Finish(number, path, space, roots["always"], light))
        steps.append(Master(roots["master"]))
        if "dither" in roots:
            steps.append(Dither(roots["dither"], dither_frames(self.design.rate)))
        return (*steps, *self.limits, *wires_of(self.layout, self.design))

    def _can_show(self, graph: Graph, paint: Paint) -> bool:
        """Whether a layer may ever be on, and has LEDs; of others no scene is mixed."""
        return len(self.spots[paint.space]) > 0 and not is_const(graph.nodes[paint.on], False)


WHY = "why:"
"""Prefix of the roots that only explain the light."""


def uncovered(graph: Graph, light: int) -> int:
    """The light after a layer; only its paint if nothing of the light below is ever left.

    A product with 0 would do the same, except for NaN.
    """
    node = graph.nodes[light]
    if node.op == "add":
        left = graph.nodes[node.args[0]]
        is_all_hidden = (
            left.op == "mul"
            and graph.nodes[left.args[0]].op == "beneath"
            and graph.nodes[left.args[1]].payload == (0.0,)
        )
        if is_all_hidden:
            return node.args[1]
    return light


class _Recorder:
    def __init__(
        self,
        design: Design,
        layout: Layout,
        choices: Choices,
        report: Report,
        dropped: frozenset[str],
        media: Media,
    ) -> None:
        self.tracer = Tracer()
        self._media = media
        self._clock = Clock(self.tracer)
        self._design, self._layout, self._choices = design, layout, choices
        self.signals = Signals(design, self.tracer, self._clock, report, dropped)
        self._report, self._dropped = report, self.signals.dropped
        self.settings = Settings(
            layout, self.tracer, self._clock, self.signals, report, choices, media
        )
        self.spaces: dict[str, Space] = {}
        self._scene_numbers = {scene.name: i for i, scene in enumerate(design.scene)}
        self._shares: list[Value] = []
        self._rhythms: dict[str, Rhythm] = {}
        self.finishes: list[tuple[int, KeyPath, str]] = []

    @property
    def images(self) -> int:
        """The number of scenes, with no scene counted as one; 0 if a design has none."""
        return len(self._shares)

    def root(self, name: str, value: Value) -> None:
        self.tracer.roots[name] = value.place

    def reason(self, name: str, value: Value) -> None:
        """A value that only explains the light."""
        self.root(f"{WHY}{name}", value)

    def scenes(self, by_hand: str) -> None:
        """Record which scene is chosen."""
        self._shares = record_scenes(
            self._design.scene, self.tracer, self._clock, self.settings, by_hand
        )
        for number, share in enumerate(self._shares):
            self.root(f"scene:{number}:there", share)

    def rhythms(self) -> None:
        """Record the beats that layers share."""
        self._rhythms = record_rhythms(
            self._design.rhythms, self.tracer, self._clock, self.settings
        )

    def _rhythm(
        self, layer: Layer, effect: Effect, settings: dict[str, Any], path: KeyPath
    ) -> Rhythm | None:
        """The rhythm of a layer, which gives its effect the rate, where both have one."""
        if not layer.rhythm:
            return None
        found = self._rhythms.get(layer.rhythm)
        if found is None and layer.rhythm not in self._dropped:
            message = f"there is no rhythm '{layer.rhythm}'."
            remedy = did_you_mean(layer.rhythm, self._rhythms, "rhythms")
            self._report.error((*path, "rhythm"), "unknown-name", message, remedy)
        parameter = effect.parameters.get("rate")
        if found is not None and found.rate is not None and parameter is not None:
            settings["rate"] = found.rate_within(parameter.low, parameter.high)
            if "rate" in layer.parameters:
                message = f"rhythm '{layer.rhythm}' sets the rate; `rate` has no effect."
                remedy = "Remove it, or remove the rhythm's."
                self._report.warning((*path, "rate"), "no-effect", message, remedy)
        return found

    def finish(self) -> None:
        """Record the changes of the light of all layers together."""
        design, tracer = self._design, self.tracer
        with tracer.within(("level",)):
            master = lightness_to_linear(self.settings.number(design.level, ("level",)))
            self.root("master", master)
            self.root("always", tracer.const(True))
        found = finishes(design, self._layout, self._choices, self.settings, master)
        for number, (path, choice, draw) in enumerate(found, start=1):
            with tracer.within(path):
                new = Space(choice.name, self._layout, choice)
                space = self.spaces.setdefault(choice.name, new)
                light = draw(tracer.beneath(-number, space.name), space)
                self.root(f"finish:{-number}:light", light)
            self.finishes.append((-number, path, space.name))
        frames = dither_frames(design.rate)
        if design.dither and frames > 1:
            with tracer.within(("dither",)):
                self.root("dither", counted(tracer, BLUE_TAKES * frames))

    def scenes_of(self, layer: Layer) -> frozenset[int] | None:
        """The places of the scenes that a layer belongs to; None for every one, and for none."""
        if not layer.scenes:
            return None
        return frozenset(self._scene_numbers[s] for s in layer.scenes if s in self._scene_numbers)

    def layer(self, number: int, layer: Layer) -> str | None:
        """Record one layer; gives its space, None if it is wrong."""
        path: KeyPath = ("layer", number)
        choice = self._choices.written.get((*path, "on"))
        on = self._condition(layer, path)
        space = self._space(layer, choice, path)
        level = self.settings.number(layer.level, (*path, "level"), space)
        self.tracer.label(level, "level")
        covering = self.settings.number(layer.cover, (*path, "cover"), space)
        effect = self._effect(layer, path)
        if effect is None:
            return None
        self._tell_unknown(effect, number)
        given = written(self._design, number, [*effect.parameters])
        settings = self.settings.of_effect(effect.parameters, given, space)
        rhythm = self._rhythm(layer, effect, settings, path)
        if choice is None:
            return None
        led = Led(self.tracer, self._clock, space, on, None if rhythm is None else rhythm.beat)
        look = self._look(effect, led, settings, path)
        if look is None:
            return None
        try:
            if not self._paint(number, layer, space, on, level, covering, look):
                return None
            self._explain(number, level, look, settings)
        except GraphError as exc:
            self._report.error(path, "effect", f"effect '{effect.name}': {exc}.")
            return None
        return space.name

    def _effect(self, layer: Layer, path: KeyPath) -> Effect | None:
        preset = self._design.presets.get(layer.preset)
        if layer.preset and preset is None and layer.preset not in self._dropped:
            message = f"there is no preset '{layer.preset}'."
            remedy = did_you_mean(layer.preset, self._design.presets, "presets of this design")
            self._report.error((*path, "preset"), "unknown-name", message, remedy)
        if preset is not None and layer.effect not in ("", preset.effect):
            message = f"preset '{layer.preset}' is of effect '{preset.effect}'."
            self._report.error((*path, "effect"), "wrong-value", message, "Remove one of them.")
        name = self._design.effect_of(layer)
        if not name:
            written = nearest("effect", layer.parameters, alike=0.8)
            if written is not None:
                message = f"there is no key '{written}' here."
                remedy = "Did you mean 'effect'?"
                self._report.error((*path, written), "unknown-key", message, remedy)
            elif not layer.preset:
                message, remedy = "'effect' is missing.", 'Add it, as in: effect = "solid"'
                self._report.error((*path, "effect"), "missing-key", message, remedy)
            return None
        own = self._media.effects.get(name)
        if own is None and name not in EFFECTS:
            where = (*path, "effect") if layer.effect else ("presets", layer.preset, "effect")
            if self._media.held:
                files = listed([*self._media.held], "or")
                self._report.warning(
                    where, "not-allowed", (
f"effect '{name}' is left out, and so is this layer. It may be in "
f"{files}, which may not run yet."
),
                )  # fmt: skip
                return None
            known = [*EFFECTS, *self._media.effects]
            remedy = did_you_mean(name, known, "effects")
            self._report.error(where, "unknown-effect", f"there is no effect '{name}'.", remedy)
            return None
        return own or EFFECTS[name]

    def _tell_unknown(self, effect: Effect, number: int) -> None:
        """Keys that the effect does not have."""
        layer = self._design.layer[number]
        wrong: list[KeyPath] = [
            ("layer", number, name) for name in layer.parameters if name not in effect.parameters
        ]
        preset = self._design.presets.get(layer.preset)
        if preset is not None:
            wrong += [
                ("presets", layer.preset, name)
                for name in preset.parameters
                if name not in effect.parameters
            ]
        if len(wrong) > MOST_UNKNOWN:
            message = f"there are {len(wrong):,} such keys; these are the first."
            self._report.error(("layer", number), "unknown-parameter", message)
        for path in wrong[:MOST_UNKNOWN]:
            message = f"effect '{effect.name}' has no parameter '{path[-1]}'."
            near = nearest(str(path[-1]), [*effect.parameters, *Layer.model_fields], alike=0.7)
            remedy = f"Did you mean '{near}'?"
            if near is None:
                remedy = the_known(effect.parameters, "parameters")
            self._report.error(path, "unknown-parameter", message, remedy)

    def _space(self, layer: Layer, choice: Choice | None, path: KeyPath) -> Space:
        choice = choice or self._choices[ALL]
        canvas = self._design.canvases.get(layer.canvas)
        name = choice.name
        if layer.canvas and canvas is None:
            message = f"there is no canvas '{layer.canvas}'."
            remedy = did_you_mean(layer.canvas, self._design.canvases, "canvases")
            self._report.error((*path, "canvas"), "unknown-name", message, remedy)
        elif canvas is not None:
            name = f"{choice.name} on {layer.canvas}"
        if name not in self.spaces:
            layout = self._layout
            if canvas is not None:
                layout = on_canvas(layout, canvas, self._choices.on_canvas(layer.canvas))
            self.spaces[name] = Space(name, layout, choice)
        return self.spaces[name]

    def _look(
        self, effect: Effect, led: Led, settings: Mapping[str, Any], path: KeyPath
    ) -> Drawn | None:
        """The result of an effect; None if it fails."""

        def draw() -> Drawn:
            return drawn_of(effect.draw(led, **settings), self.tracer)

        return self._tried(f"effect '{effect.name}'", effect.draw, draw, path, "effect")

    def _light(self, number: int, layer: Layer, beneath: Value, stroke: Stroke) -> Value | None:
        """The light after a layer, as its blend makes it; None if the blend fails."""
        path: KeyPath = ("layer", number, "blend")
        if layer.blend not in BLENDS:
            self._report.error(path, "wrong-value", *cannot_stand(layer.blend, BLENDS))
        blend = BLENDS.get(layer.blend, BLENDS["add"])  # that hides nothing, so nothing follows

        def draw() -> Value:
            light = blend.draw(beneath, stroke)
            if not isinstance(light, Value) or light.kind is not Kind.FLOAT:
                raise GraphError("it gives no light, and that is its only purpose")
            return light

        return self._tried(f"blend '{blend.name}'", blend.draw, draw, path, "wrong-value")

    def _tried(
        self, what: str, own: Callable[..., object], draw: Callable[[], T], path: KeyPath, code: str
    ) -> T | None:
        """The result of an effect or blend; None if it fails, which becomes a finding."""
        try:
            return draw()
        except GraphError as exc:
            message = f"{what}{line_in(own, exc)}: {exc.problem.rstrip('.')}."
            self._report.error(path, code, message, exc.remedy)
        except Exception as exc:  # it may do anything
            message = f"{what}{line_in(own, exc)}: {type(exc).__name__}: {exc}."
            self._report.error(path, code, message)
        return None

    def _paint(
        self, number: int, layer: Layer, space: Space, on: Value, level: Value, covering: Value,
        look: Drawn,
    ) -> bool:  # fmt: skip
        """Record a layer's effect on the light; False if its blend fails."""
        self.tracer.label(look.cover, "cover")
        cover, is_there, presence = look.cover * covering, on, self.tracer.const(1.0)
        if layer.fade_in > 0 or layer.fade_out > 0:  # a layer runs only while it is there
            presence = self._clock.presence(on, layer.fade_in, layer.fade_out)
            self.tracer.label(presence, "presence")
            cover = cover * presence
            is_there = on if layer.fade_out <= 0 else on | (presence > 0.0)
        is_there = is_there & self._scenes_there(layer)
        light = lightness_to_linear(level)
        hidden = presence * covering if layer.hides_below else cover
        strength, rest = cover * light, 1.0 - hidden
        paint = look.colour * strength
        named = {"on": is_there, "share": cover, "strength": strength, "paint": paint, "rest": rest}
        for name, value in named.items():
            self.tracer.label(value, name)
        beneath = self.tracer.beneath(number, space.name)
        stroke = Stroke(look.colour, cover, light, paint, rest)
        after = self._light(number, layer, beneath, stroke)
        if after is None:
            return False
        self.root(f"layer:{number}:on", is_there)
        self.root(f"layer:{number}:light", after)
        self.reason(f"layer:{number}:share", cover)
        self.reason(f"layer:{number}:hidden", hidden)
        return True

    def _explain(
        self, number: int, level: Value, look: Drawn, settings: Mapping[str, Any]
    ) -> None:  # fmt: skip
        """Note the values that explain the light of a layer."""
        self.reason(f"layer:{number}:level", level)
        self.reason(f"layer:{number}:colour", look.colour)
        for name, value in settings.items():
            if isinstance(value, Value):
                self.reason(f"layer:{number}:parameter:{name}", value)

    def _condition(self, layer: Layer, path: KeyPath) -> Value:
        """Whether a layer is on, and the scenes that it belongs to are there."""
        on = self.settings.condition(layer.when, (*path, "when"))
        if layer.least_on > 0:
            on = self._clock.at_least(on, layer.least_on)
        wrong = [name for name in layer.scenes if name not in self._scene_numbers]
        for name in wrong:
            if name not in self._dropped:
                message = f"there is no scene '{name}'."
                remedy = did_you_mean(name, self._scene_numbers, "scenes")
                self._report.error((*path, "scene"), "unknown-name", message, remedy)
        return on & self._scenes_there(layer)

    def _scenes_there(self, layer: Layer) -> Value:
        """Whether anything of the scenes that a layer belongs to is there."""
        scenes = self.scenes_of(layer)
        found = self.tracer.const(scenes is None)
        for scene in sorted(scenes or ()):
            found = found | (self._shares[scene] > 0.0)
        return found
