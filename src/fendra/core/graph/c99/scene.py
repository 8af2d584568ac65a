"""What is emitted, and what everything in it is called."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING

from fendra.core.graph.c99.lower import Lowered, lower
from fendra.core.graph.c99.names import WORDS, Names, identifier
from fendra.core.graph.c99.plan import Plan, make_plan
from fendra.core.graph.c99.tables import SMALLEST_INT
from fendra.core.graph.node import STATE, Graph, Node
from fendra.core.graph.ops import Kind

if TYPE_CHECKING:
    from fendra.core.design import Design
    from fendra.core.findings import Path
    from fendra.core.mix import Recording


@dataclass(frozen=True)
class Scene:
    """A design made ready for C.

    name: the first part of all public names. place: the type of a spot's place.
    slugs: a short name for each place in the design that nodes come from.
    signals, cells: the field of each signal and of each memory cell.
    fields: of the numbers that the layers read, by place in the graph.
    limit_slugs: a short name for each supply with a limiter. limits: the field of its state.
    """

    design: Design
    recording: Recording
    lowered: Lowered
    plan: Plan
    name: str
    place: str
    slugs: Mapping[Path, str]
    signals: Mapping[str, str]
    cells: Mapping[str, str]
    fields: Mapping[int, str]
    limit_slugs: Mapping[str, str]
    limits: Mapping[str, str]

    @property
    def graph(self) -> Graph:
        return self.lowered.graph

    @property
    def leds(self) -> str:
        """The name of the number of LEDs."""
        return f"{self.name.upper()}_LEDS"

    @property
    def size(self) -> str:
        """The name of the number of bytes of a frame."""
        return f"{self.name.upper()}_BYTES"

    @property
    def rgb_at(self) -> str:
        """Where red, green and blue of the LEDs begin, before they are put into wire order."""
        return f"({self.size} - 3 * {self.leds})"

    def slug(self, node: Node) -> str:
        """What a node comes from, in a word."""
        return self.slugs.get(node.origin, "v")

    @cached_property
    def cell_kinds(self) -> dict[str, Kind]:
        """What each memory cell holds."""
        return {str(node.payload): node.kind for node in self.graph.nodes if node.op == "state"}

    def following(self, cell: str) -> int:
        """The place of what a memory cell holds next."""
        return self.graph.roots[f"{STATE}{cell}"]

    def about(self, origin: Path) -> str:
        """What a place in the design is called in comments, with its line in the file."""
        match origin:
            case ("signals", str(name)):
                text = f"Signal {name}"
            case ("layer", int(i)):
                text = f'Layer {i + 1}, "{self.design.layer[i].name}"'
            case ("scene", int(i)):
                text = f'Scene "{self.design.scene[i].name}"'
            case ("line", int(i)):
                text = f'Line "{self.design.line[i].name}", {self.design.line[i].wire_order}'
            case ("level",):
                text = "Master level"
            case ("supplies", str(name)):
                text = f'Supply "{name}"' if name else "The supply"
            case _:
                return "Time"
        line = self.design.lines.get(origin)
        return f"{text} ({self.design.file}:{line})" if line else text

    @property
    def made_from(self) -> str:
        """Where the code comes from, in words."""
        file = self.design.file
        return f"Made by Fendra from {file}." if file else "Made by Fendra."


def make_scene(design: Design, recording: Recording) -> Scene:
    """Lower a recording, plan it, and give everything its name."""
    lowered = lower(recording)
    plan = make_plan(lowered)
    slugs = _slugs(design)
    supply_names = Names([])
    limit_slugs = {limit.supply: supply_names.take(limit.supply) for limit in recording.limits}
    field_names, cell_names = Names(WORDS), Names([*WORDS, "last_ms", "has_begun", "now"])
    return Scene(
        design,
        recording,
        lowered,
        plan,
        Names().take(design.name),
        "int" if recording.spot_count <= SMALLEST_INT else "int32_t",
        slugs,
        {name: field_names.take(name) for name in recording.fed},
        {
            str(node.payload): cell_names.take(
                f"{slugs.get(node.origin, 'v')}_{str(node.payload).partition('.')[0]}"
            )
            for node in lowered.graph.nodes
            if node.op == "state"
        },
        _fields(lowered, plan, slugs),
        limit_slugs,
        {supply: cell_names.take(f"{slug}_limit") for supply, slug in limit_slugs.items()},
    )


def _slugs(design: Design) -> dict[Path, str]:
    names = Names()
    slugs: dict[Path, str] = {("level",): "master"}
    slugs |= {("signals", name): identifier(name) for name in design.signals}
    slugs |= {("scene", i): names.take(scene.name) for i, scene in enumerate(design.scene)}
    slugs |= {("layer", i): names.take(layer.name) for i, layer in enumerate(design.layer)}
    return slugs


def _scene_slug(number: int, lowered: Lowered, slugs: Mapping[Path, str]) -> str:
    return "no_scene" if number == len(lowered.shares) - 1 else slugs["scene", number]


def _fields(lowered: Lowered, plan: Plan, slugs: Mapping[Path, str]) -> dict[int, str]:
    """Numbers first, truth values after them: so no room is lost between."""
    names = Names([*WORDS, "master"])
    nodes = lowered.graph.nodes
    conditions = {paint.on: slugs["layer", paint.slot.layer] for paint in reversed(lowered.paints)}
    wanted = {place for places in plan.read for place in places} | {*conditions, *lowered.shares}
    fields = {}
    for place in sorted(wanted, key=lambda place: (nodes[place].kind is Kind.TRUTH, place)):
        node = nodes[place]
        if node.op == "const":
            continue
        is_signal = node.origin[:1] == ("signals",)
        if is_signal and node.label:
            stem = node.label
        elif place in lowered.shares:
            stem = f"{_scene_slug(lowered.shares.index(place), lowered, slugs)}_there"
        elif place in conditions:
            stem = f"{conditions[place]}_on"
        else:
            stem = f"{slugs.get(node.origin, 'v')}_{node.label or 'v'}"
        fields[place] = names.take(stem)
    return fields
