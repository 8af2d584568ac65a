"""The emitted code, and the names in it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cached_property

from fendra.core.composition.plan import Plan
from fendra.core.document.design import Design
from fendra.core.engines.c99.names import WORDS, Names, identifier
from fendra.core.engines.c99.tables import SMALLEST_INT
from fendra.core.engines.lower import Lowered, lower, pictures_of
from fendra.core.engines.sorting import Sorting, sort
from fendra.core.findings import KeyPath
from fendra.core.graph.node import STATE, Graph, Node
from fendra.core.graph.ops import Kind


@dataclass(frozen=True)
class Draft:
    """A plan made ready for C.

    name: the first part of all public names. place: the type of a spot's place.
    slugs: a short name for each place in the design that nodes come from.
    signals, cells: the field of each signal and of each memory cell.
    fields: of the numbers that the layers read, by place in the graph.
    limit_slugs: a short name for each supply with a limiter. limits: the field of its state.
    pictures: the field of each live picture.
    """

    plan: Plan
    lowered: Lowered
    sorting: Sorting
    name: str
    place: str
    slugs: Mapping[KeyPath, str]
    signals: Mapping[str, str]
    cells: Mapping[str, str]
    fields: Mapping[int, str]
    limit_slugs: Mapping[str, str]
    limits: Mapping[str, str]
    pictures: Mapping[str, str]

    @property
    def design(self) -> Design:
        return self.plan.design

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
        """The origin of a node, in a word."""
        return self.slugs.get(node.origin, "v")

    @cached_property
    def cell_kinds(self) -> dict[str, Kind]:
        """The kind of each memory cell."""
        return {str(node.payload): node.kind for node in self.graph.nodes if node.op == "state"}

    def following(self, cell: str) -> int:
        """The place of a memory cell's next value."""
        return self.graph.roots[f"{STATE}{cell}"]

    def about(self, origin: KeyPath) -> str:
        """A place in the design as comments name it, with its line in the file."""
        match origin:
            case ("signals", str(name)):
                text = f"Signal {name}"
            case ("layer", int(i)):
                text = f'Layer {i + 1}, "{self.design.layer[i].name}"'
            case ("scene", int(i)):
                text = f'Scene "{self.design.scene[i].name}"'
            case ("rhythms", str(name)):
                text = f'Rhythm "{name}"'
            case ("line", int(i)):
                text = f'Line "{self.design.line[i].name}", {self.design.line[i].wire_order}'
            case ("most",):
                text = "Ceiling of the design"
            case ("line", int(i), "most"):
                text = f'Ceiling of line "{self.design.line[i].name}"'
            case ("groups", str(name), "most"):
                text = f'Ceiling of group "{name}"'
            case ("leds", str(name), *_):
                text = f"White of {name}"
            case ("dither",):
                text = "Dither"
            case ("level",):
                text = "Master level"
            case ("supplies", str(name)):
                text = f'Supply "{name}"' if name else "The supply"
            case _:
                return "Time"
        line = self.plan.origin.lines.get(origin)
        return f"{text} ({self.plan.origin.file}:{line})" if line else text

    def what(self, origin: KeyPath) -> str:
        """The effect of a layer, to be followed by its LEDs; empty for anything else."""
        if origin[0] != "layer":
            return ""
        return f"{self.design.effect_of(self.design.layer[int(origin[1])])} "

    @property
    def made_from(self) -> str:
        """Where the code comes from, in words."""
        file = self.plan.origin.file
        return f"Made by Fendra from {file}." if file else "Made by Fendra."


def make_draft(plan: Plan) -> Draft:
    """Lower a plan, sort its numbers, and give everything its name."""
    lowered = lower(plan)
    sorting = sort(lowered)
    slugs = _slugs(plan)
    supply_names = Names([])
    limit_slugs = {limit.supply: supply_names.take(limit.supply) for limit in plan.limits}
    field_names, cell_names = Names(WORDS), Names([*WORDS, "last_ms", "has_begun", "now"])
    fields = _fields(lowered, sorting, slugs)
    shown = Names([*WORDS, "master", "turn", *fields.values()])
    return Draft(
        plan,
        lowered,
        sorting,
        Names().take(plan.design.name),
        "int" if plan.spot_count <= SMALLEST_INT else "int32_t",
        slugs,
        _signal_fields(plan.fed, field_names),
        {
            str(node.payload): cell_names.take(
                f"{slugs.get(node.origin, 'v')}_{str(node.payload).partition('.')[0]}"
            )
            for node in lowered.graph.nodes
            if node.op == "state"
        },
        fields,
        limit_slugs,
        {supply: cell_names.take(f"{slug}_limit") for supply, slug in limit_slugs.items()},
        {name: shown.take(name) for name in pictures_of(lowered.graph)},
    )


def _signal_fields(fed: Iterable[str], names: Names) -> dict[str, str]:
    """The field of each number that arrives; the numbers of a vector are one array."""
    arrays: dict[str, str] = {}
    fields = {}
    for name in fed:
        vector, bracket, place = name.partition("[")
        if bracket and vector not in arrays:
            arrays[vector] = names.take(vector)
        fields[name] = f"{arrays[vector]}[{place}" if bracket else names.take(name)
    return fields


def _slugs(plan: Plan) -> dict[KeyPath, str]:
    design, names = plan.design, Names()
    slugs: dict[KeyPath, str] = {("level",): "master"}
    slugs |= {("signals", name): identifier(name) for name in design.signals}
    slugs |= {("scene", i): names.take(scene.name) for i, scene in enumerate(design.scene)}
    slugs |= {("layer", i): names.take(layer.name) for i, layer in enumerate(design.layer)}
    for finish in plan.finishes:
        what = "white" if finish.path[0] == "leds" else "ceiling"
        slugs[finish.path] = names.take(f"{what} of {finish.space}")
    slugs[("dither",)] = names.take("dither")
    slugs |= {("rhythms", name): names.take(name) for name in design.rhythms}
    return slugs


def _scene_slug(number: int, lowered: Lowered, slugs: Mapping[KeyPath, str]) -> str:
    return "no_scene" if number == len(lowered.shares) - 1 else slugs["scene", number]


def _fields(lowered: Lowered, sorting: Sorting, slugs: Mapping[KeyPath, str]) -> dict[int, str]:
    """Numbers first, truth values after them: so no room is lost between."""
    names = Names([*WORDS, "master", "turn"])
    nodes = lowered.graph.nodes
    conditions = {paint.on: slugs[paint.path] for paint in reversed(lowered.painted)}
    wanted = {place for places in sorting.read for place in places} | {*conditions, *lowered.shares}
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
