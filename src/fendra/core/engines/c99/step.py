"""The numbers of a frame: signals, conditions, levels, memory; all that is one for all LEDs."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping

from fendra.core.engines.c99.block import Block
from fendra.core.engines.c99.draft import Draft
from fendra.core.engines.c99.names import Names
from fendra.core.engines.c99.tables import Tables
from fendra.core.engines.c99.text import Piece, comment, words
from fendra.core.engines.lower import Painted
from fendra.core.engines.sorting import in_turn
from fendra.core.findings import KeyPath
from fendra.core.graph.node import NEWS, VALUE, Node
from fendra.core.graph.ops import Binds


def step(draft: Draft, tables: Tables) -> str:
    """The function that computes them, in the order of the design."""
    return _Step(draft, tables).run()


class _Step:
    def __init__(self, draft: Draft, tables: Tables) -> None:
        self._draft = draft
        self._tables = tables
        self._names = Names()
        self._fields = {place: f"now->{field}" for place, field in draft.fields.items()}
        self._cells_of = {draft.following(cell): field for cell, field in draft.cells.items()}
        self._block = Block(draft.graph, self._names, tables, self._leaf, {}, "    ")
        self._said: set[KeyPath] = set()
        sorting = draft.sorting
        self._uses = Counter(
            arg
            for place in [*sorting.common, *(place for own in sorting.of_layer for place in own)]
            for arg in draft.graph.nodes[place].args
        )

    def run(self) -> str:
        draft = self._draft
        for due, paint, own in in_turn(draft.lowered, draft.sorting):
            self._write(due)
            if paint is not None:
                self._write_while_on(paint, own)
        body = [*self._block.lines, *self._memory()]
        text = "\n".join(body)
        used = words(text)
        head = [
            *comment("Computes the numbers of a frame that are the same for all LEDs."),
            f"static ON_ITS_OWN void advance(struct {draft.name} *state, "
            f"const struct {draft.name}_signals *signals,",
            "    uint32_t now_ms)",
            "{",
            f"    struct {draft.name}_now *const now = &state->now;",
        ]
        if used & {"first", "dt_ms"}:
            head.append("    const bool first = !state->has_begun;")
        if "dt_ms" in used:
            head.append("    const uint32_t dt_ms = first ? 0u : now_ms - state->last_ms;")
        if "signals" not in used:
            head.append("    (void)signals;")
        return "\n".join([*head, text, "}"])

    def _write(self, places: list[int]) -> None:
        self._block.write(
            places,
            self._uses,
            kept={*self._cells_of},
            fields={place: self._fields[place] for place in places if place in self._fields},
            comment=lambda node: self._say(node.origin),
            stem=self._stem,
        )

    def _write_while_on(self, paint: Painted, own: tuple[int, ...]) -> None:
        """Numbers that only one layer needs, while it is on."""
        inner = Block(
            self._draft.graph,
            self._names.inner(),
            self._tables,
            self._leaf,
            self._block.pieces,
            " " * 8,
        )
        inner.write(
            own,
            self._uses,
            fields={place: self._fields[place] for place in own if place in self._fields},
        )
        lines = self._block.lines
        lines += self._say(paint.path)
        is_always = self._draft.graph.nodes[paint.on].op == "const"
        head = "" if is_always else f"if ({self._fields[paint.on]}) "
        lines += [f"    {head}{{", *inner.lines, "    }"]

    def _memory(self) -> list[str]:
        draft = self._draft
        return [
            "",
            f"    now->master = {self._block.piece(draft.lowered.master).text};",
            *self._turn(),
            "",
            *comment("Kept for the next frame", "    "),
            *(
                f"    state->{field} = {self._block.piece(draft.following(cell)).text};"
                for cell, field in draft.cells.items()
            ),
            "    state->last_ms = now_ms;",
            "    state->has_begun = true;",
        ]

    def _turn(self) -> list[str]:
        turn = self._draft.lowered.turn
        return [] if turn is None else [f"    now->turn = {self._block.piece(turn).text};"]

    def _stem(self, place: int, node: Node) -> str:
        """The name of a number of the whole frame."""
        if node.label and node.origin[:1] == ("signals",):
            return node.label
        if place in self._cells_of:
            return self._cells_of[place]
        if not node.label:
            return "v"
        return f"{self._draft.slug(node)}_{node.label}" if node.origin else node.label

    def _say(self, origin: KeyPath) -> list[str]:
        """Where what follows comes from, once."""
        if origin in self._said:
            return []
        self._said.add(origin)
        return ["", *comment(self._draft.about(origin), "    ")]

    def _leaf(self, node: Node) -> Piece:
        return Piece(_leaf_text(node, self._draft.cells, self._draft.signals), Binds.ATOM)


def _leaf_text(node: Node, cells: Mapping[str, str], signals: Mapping[str, str]) -> str:
    payload = str(node.payload)
    if node.op == "state":
        return f"state->{cells[payload]}"
    if payload.startswith(VALUE):
        return f"taken(signals->{signals[payload.removeprefix(VALUE)]}.value)"
    if payload.startswith(NEWS):
        field = signals[payload.removeprefix(NEWS)]
        return f"is_news(signals->{field}.is_new, signals->{field}.value)"
    return payload  # now_ms, dt_ms, first
