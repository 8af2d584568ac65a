"""The layers: a function each, which goes through its own spots and no others."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import partial

from fendra.core.arrays import Array
from fendra.core.engines.c99.block import Block
from fendra.core.engines.c99.draft import Draft
from fendra.core.engines.c99.flash import read
from fendra.core.engines.c99.names import Names
from fendra.core.engines.c99.tables import PLACE, Table, Tables, list_of_spots
from fendra.core.engines.c99.text import C_TYPES, Piece, comment, operation, statement, words
from fendra.core.engines.lower import Painted
from fendra.core.engines.runs import Run, are_scattered, runs_of
from fendra.core.engines.sorting import PerSpot
from fendra.core.graph.node import Node
from fendra.core.graph.ops import CHANNELS, Binds
from fendra.core.graph.schedule import needed
from fendra.core.names import counted

SIMPLE = frozenset({"add", "sub", "mul", "neg", "abs", "min", "max"})
FEW_STEPS = 2
"""So many simple operations are computed for each spot rather than kept in a larger table."""


@dataclass(frozen=True)
class SpotLoop:
    """How the code goes through the spots of a layer between `first` and `end`.

    opening, closing: around the body. places: what gives `k` and `at`, if the body reads them.
    """

    opening: tuple[str, ...]
    places: Mapping[str, str]
    closing: tuple[str, ...]
    indent: str


@dataclass
class Layers:
    """Writes the layers, and gathers the tables that they read."""

    draft: Draft
    names: Names
    tables: Tables = field(init=False)
    lists: dict[str, Table] = field(default_factory=dict)
    runs: dict[tuple[Run, ...], str] = field(default_factory=dict)
    run_tables: list[str] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.tables = Tables(self.names)
        self._fixed = PerSpot(self.draft.lowered, self.draft.plan)

    def function(self, number: int, paint: Painted) -> str:
        """One layer."""
        draft = self.draft
        spots = draft.plan.spots[paint.space]
        about = f"{draft.about(paint.path)}: {draft.what(paint.path)}on {paint.space}, "
        loop = self._loop(paint.space, spots)
        fixed = self._fixed_pieces(number, spots)
        names = self.names.inner()  # all tables have their names by now
        loads, known = self._loads(number, names)
        reads = self._read_once(number, fixed, names, loop.indent)
        pictures, shown = self._pictures(number, names)
        loads += shown
        leaf = partial(_leaf, pictures)
        block = Block(draft.graph, names, self.tables, leaf, {**known, **fixed}, loop.indent)
        opening, moving = [], draft.sorting.moving[number]
        if paint.share in known:
            opening = [f"    if ({known[paint.share].text} == 0.0f) {{", "        return;", "    }"]
        if paint.share in moving:
            first = needed(draft.graph, [paint.share]) & {*moving}
            block.write(first, self._uses(number), kept=[paint.share])
            share = block.piece(paint.share).text
            block.lines.append(f"{loop.indent}SKIP_WHERE({share} == 0.0f);")
            moving = tuple(place for place in moving if place not in first)
        kept = paint.results.values() if self._crosses(paint) else ()
        block.write(moving, self._uses(number), kept=kept)
        body = [*reads, *block.lines]
        for channel, place in paint.results.items():
            body += statement(f"light->{channel}[at] = {block.piece(place).text};", loop.indent)
        used = words("\n".join(body))
        return "\n".join(
            [
                *comment(f"{about}{counted(len(spots), 'LED')}."),
                f"static ON_ITS_OWN void paint_{draft.slugs[paint.path]}("
                f"const struct {draft.name}_now *now, {draft.place} first,",
                f"    {draft.place} end, struct light *light)",
                "{",
                *(loads or ["    (void)now;"]),
                *opening,
                *loop.opening,
                *(loop.indent + text for name, text in loop.places.items() if name in used),
                *body,
                *loop.closing,
                "}",
            ]
        )

    def _crosses(self, paint: Painted) -> bool:
        """Whether a channel's light depends on another channel's, which must not be new by then."""
        graph = self.draft.graph
        return any(
            graph.nodes[read].op == "beneath"
            and graph.nodes[read].payload != (paint.number, channel)
            for channel, place in paint.results.items()
            for read in needed(graph, [place])
        )

    @property
    def run_count(self) -> int:
        """Rows in all tables of rows."""
        return sum(len(runs) for runs in self.runs)

    def rows(self, spots: Array) -> int:
        """Rows that a layer goes through; LEDs that are listed one by one are as one row."""
        return 1 if are_scattered(spots) else len(runs_of(spots))

    def _uses(self, number: int) -> Counter[int]:
        nodes = self.draft.graph.nodes
        return Counter(
            arg for place in self.draft.sorting.moving[number] for arg in nodes[place].args
        )

    def _loads(self, number: int, names: Names) -> tuple[list[str], dict[int, Piece]]:
        """The numbers of the frame that a layer reads, taken before its loop."""
        nodes = self.draft.graph.nodes
        loads, known = [], {}
        for place in self.draft.sorting.read[number]:
            field, node = self.draft.fields[place], nodes[place]
            name = names.take(node.label or "v")
            loads.append(f"    const {C_TYPES[node.kind]} {name} = now->{field};")
            known[place] = Piece(name, Binds.ATOM)
        return loads, known

    def _pictures(self, number: int, names: Names) -> tuple[dict[str, str], list[str]]:
        """The live pictures that a layer shows, by name, and how they are taken."""
        draft = self.draft
        nodes = [draft.graph.nodes[place] for place in draft.sorting.moving[number]]
        shown = {str(n.payload[0]) for n in nodes if n.op == "pixels"}  # type: ignore[index]
        found = {name: names.take(name) for name in sorted(shown)}
        return found, [
            f"    const float (*const {local})[3] = now->{draft.pictures[name]};"
            for name, local in found.items()
        ]

    def _fixed_pieces(self, number: int, spots: Array) -> dict[int, Piece]:
        """The per-spot values that a layer reads."""
        paint = self.draft.lowered.painted[number]
        pieces = {}
        for place in self.draft.sorting.fixed[number]:
            piece = self._computed(place, paint, len(spots), FEW_STEPS)
            if piece is None:
                kind = self.draft.graph.nodes[place].kind
                values = self._fixed.values(place, len(spots))
                piece = self.tables.read(values, kind, self._table_name(place, paint))
            pieces[place] = piece
        return pieces

    def _computed(self, place: int, paint: Painted, count: int, steps: int) -> Piece | None:
        """A per-spot value by a rule or a table of small integers, or in some steps from one, or
        from a column, whose table others may read as well.
        """
        node = self.draft.graph.nodes[place]
        values, name = self._fixed.values(place, count), self._table_name(place, paint)
        if node.op == "column":
            return self.tables.read(values, node.kind, name)
        piece = self.tables.small(values, node.kind, name)
        if piece is not None or steps == 0 or node.op not in SIMPLE:
            return piece
        nodes = self.draft.graph.nodes
        if sum(nodes[arg].op != "const" for arg in node.args) != 1:
            return None
        args = [self._computed(arg, paint, count, steps - 1) for arg in node.args]
        found = [arg for arg in args if arg is not None]
        return operation(node.op, found) if len(found) == len(args) else None

    def _table_name(self, place: int, paint: Painted) -> str:
        node = self.draft.graph.nodes[place]
        if node.op == "column":
            return f"{paint.space}_{node.payload}"
        return f"{self.draft.slugs[paint.path]}_{node.label or 'table'}"

    def _read_once(
        self, number: int, pieces: dict[int, Piece], names: Names, indent: str
    ) -> list[str]:
        """Take those that are read often, and are more than a word, once for each spot."""
        uses, reads = self._uses(number), []
        for place, piece in pieces.items():
            if uses[place] > 1 and piece.binds is not Binds.ATOM:
                node = self.draft.graph.nodes[place]
                name = names.take(str(node.payload) if node.op == "column" else node.label or "v")
                text = f"const {C_TYPES[node.kind]} {name} = {piece.text};"
                reads += statement(text, indent)
                pieces[place] = Piece(name, Binds.ATOM)
        return reads

    def _loop(self, space: str, spots: Array) -> SpotLoop:
        place = self.draft.place
        if are_scattered(spots):
            return self._through_list(space, spots)
        runs = runs_of(spots)
        if len(runs) > 1:
            return self._through_runs(space, spots)
        (run,) = runs
        is_all = run.first == 0 and run.end == self.draft.plan.spot_count
        start = "first" if run.first == 0 else f"later(first, {run.first})"
        end = "end" if is_all else f"earlier(end, {run.end})"
        minus = f" - {run.first}" if run.first else ""
        return SpotLoop(
            (
                f"    const {place} from = {start}, to = {end};",
                f"    for ({place} i = from; i < to; i++) {{",
            ),
            {PLACE: f"const {place} k = i{minus};", "at": f"const {place} at = i - first;"},
            ("    }",),
            " " * 8,
        )

    def _through_runs(self, space: str, spots: Array) -> SpotLoop:
        place, runs = self.draft.place, runs_of(spots)
        if runs not in self.runs:
            self.runs[runs] = self.names.take(f"{space}_runs")
            rows = [f"    {{{run.first}, {run.end}, {run.place}}}," for run in runs]
            head = f"static const struct run {self.runs[runs]}[{len(runs)}] IN_FLASH = {{"
            self.run_tables.append("\n".join([head, *rows, "};"]))
        return SpotLoop(
            (
                f"    for ({place} r = 0; r < {len(runs)}; r++) {{",
                f"        const struct run run = run_of({self.runs[runs]}, r);",
                f"        const {place} from = later(first, run.first);",
                f"        const {place} to = earlier(end, run.end);",
                f"        for ({place} i = from; i < to; i++) {{",
            ),
            {
                PLACE: f"const {place} k = i - run.first + run.place;",
                "at": f"const {place} at = i - first;",
            },
            ("        }", "    }"),
            " " * 12,
        )

    def _through_list(self, space: str, spots: Array) -> SpotLoop:
        place, count = self.draft.place, len(spots)
        if space not in self.lists:
            self.lists[space] = list_of_spots(self.names.take(f"{space}_leds"), spots)
        table = self.lists[space]
        at = read(table.c_type, f"{table.name}[k]")
        return SpotLoop(
            (
                f"    {place} k = from_{table.c_type}({table.name}, {count}, first);",
                f"    for (; k < {count} && {at} < end; k++) {{",
            ),
            {"at": f"const {place} at = {at} - first;"},
            ("    }",),
            " " * 8,
        )


def _leaf(pictures: Mapping[str, str], node: Node) -> Piece:
    """The light beneath, (layer, channel), or of a live picture, (name, channel).

    pictures: their names here.
    """
    assert isinstance(node.payload, tuple)
    name, channel = node.payload
    if node.op == "pixels":
        place = CHANNELS.index(str(channel))
        return Piece(f"of_picture({pictures[str(name)]}, first + at, {place})", Binds.ATOM)
    return Piece(f"light->{channel}[at]", Binds.ATOM)
