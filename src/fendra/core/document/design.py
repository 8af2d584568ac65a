"""The design: the whole document, as a TOML file holds it or Python builds it.

The keys, their types and ranges are in this room; what they mean together is checked by
`fendra.core.checks`.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import Field, PrivateAttr

from fendra.core.catalogue.leds import LedFigures, LedType, all_types
from fendra.core.catalogue.supplies import Supply
from fendra.core.document.choice import Group, OnCanvas, Trail
from fendra.core.document.connection import Connection
from fendra.core.document.layer import Layer, Preset, Rhythm, Scene
from fendra.core.document.line import Assembly, Controller, Line
from fendra.core.document.panel import PageKeys, PanelRow
from fendra.core.document.signal import Signal, SignalName
from fendra.core.names import counted
from fendra.core.shown import brief
from fendra.core.values import Model, Name, Number, Setting, Title


class Design(Model):
    """A design: lines with parts, groups, trails, signals and layers.

    Attributes:
        fendra: version of this format, 1
        name: for people
        about: for people
        rate: frames a second, 1 to 250
        level: master level, 0 to 1 as the eye sees it; may be an expression
        most: ceiling for all light, 0 to 1 as the eye sees it; may be an expression
        dither: alternates between neighbouring bytes, so that dim light keeps its hue
        leaving: what the outputs show when a run ends: `dark`, `standby` (the look with
            every signal lost), or `keep`
        units: `mm` or `in`: the unit of every length in the file, and of x, y and z in
            expressions
        outline: lists of points `[x, y]`: the shape of the thing, for pictures only
        controllers: what the lines are plugged into, and its limits
        leds: LED types of your own, and changes of known ones
        supplies: what feeds the lines
        assemblies: things of several parts, written once and placed often
        line: data lines, each with its parts in wire order
        groups: choices of LEDs under a name: a condition, a name, a list of them, or a
            table
        trails: ordered paths over LEDs, for motion and gauges
        canvases: places of parts, for effects that cross several things
        sources: what feeds signals
        outputs: what takes frames
        signals: live values
        effects: Python files with effects of your own
        presets: settings of an effect under a name
        rhythms: beats that layers share
        scene: sets of layers, one shown at a time: the first whose condition holds
        layer: what to paint, later layers over earlier ones
        served: the page of a run
        panel: what a phone shows, in this order
    """

    fendra: Literal[1] = 1
    name: Title = "unnamed"
    about: str = ""
    rate: Annotated[float, Field(ge=1, le=250)] = 50.0
    level: Setting = 1.0
    most: Setting | None = None
    dither: bool = False
    leaving: Literal["dark", "standby", "keep"] = "dark"
    units: Literal["mm", "in"] = "mm"
    outline: list[list[Annotated[tuple[Number, Number], Field(strict=False)]]] = []
    controllers: dict[Name, Controller] = {}
    leds: dict[Title, LedFigures] = {}
    supplies: dict[Name, Supply] = {}
    assemblies: dict[Name, Assembly] = {}
    line: Annotated[list[Line], Field(min_length=1)]
    groups: dict[Name, Group] = {}
    trails: dict[Name, Trail] = {}
    canvases: dict[Name, dict[str, OnCanvas]] = {}
    sources: dict[Name, Connection] = {}
    outputs: dict[Name, Connection] = {}
    signals: dict[SignalName, Signal] = {}
    effects: list[str] = []
    presets: dict[Name, Preset] = {}
    rhythms: dict[Name, Rhythm] = {}
    scene: list[Scene] = []
    layer: list[Layer] = []
    served: Annotated[PageKeys | None, Field(alias="page")] = None
    panel: list[PanelRow] = []

    _led_types: dict[str, LedType] = PrivateAttr(default_factory=dict)

    def model_post_init(self, context: Any, /) -> None:
        """Give each line its LED type, with the design's changes."""
        super().model_post_init(context)
        self._led_types = all_types(self.leds)
        for line in self.line:
            line.takes_type(self._led_types)

    def __repr__(self) -> str:
        parts = sum(len(line.part) for line in self.line)
        return brief(
            "Design", self.name, counted(len(self.line), "line"), counted(parts, "part"),
            counted(len(self.signals), "signal"), counted(len(self.scene), "scene"),
            counted(len(self.layer), "layer"), f"{self.rate:g} frames a second",
        )  # fmt: skip

    __str__ = __repr__

    def __dir__(self) -> list[str]:
        """The public names, without the names of the base class."""
        own = {
            name
            for kind in type(self).__mro__
            if kind.__module__.startswith("fendra.")
            for name in (*vars(kind), *getattr(kind, "__annotations__", {}))
        }
        own -= {"model_config", "model_copy", "model_post_init"}
        return sorted(own - {name for name in own if name.startswith("_")})

    def lines_of(self, controller: str) -> list[int]:
        """The places of the lines that are plugged into a controller; all, if it is alone."""
        is_only = len(self.controllers) == 1
        return [
            i
            for i, line in enumerate(self.line)
            if line.controller == controller or (is_only and line.controller is None)
        ]

    @property
    def led_types(self) -> Mapping[str, LedType]:
        """The LED types of the catalogue, and those that the design adds or changes."""
        return self._led_types

    @property
    def painted(self) -> list[int]:
        """The places of the layers in the order in which they are painted."""
        return sorted(range(len(self.layer)), key=lambda i: self.layer[i].priority)

    def effect_of(self, layer: Layer) -> str:
        """The name of a layer's effect, its own or its preset's; empty if it has none."""
        preset = self.presets.get(layer.preset)
        return layer.effect or (preset.effect if preset is not None else "")

    def settings_of(self, layer: Layer) -> dict[str, Setting]:
        """The written parameters of a layer's effect: its preset's, and its own."""
        preset = self.presets.get(layer.preset)
        return {**(preset.parameters if preset is not None else {}), **layer.parameters}
