"""Choices of spots: parts, groups and trails by name, with an order along each."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.errors import ExpressionError
from fendra.core.findings import Path, Report
from fendra.core.graph.expr import Scope, compile_expression, tame
from fendra.core.graph.fixed import compute_fixed
from fendra.core.graph.ops import Kind
from fendra.core.graph.passes import simplify
from fendra.core.graph.trace import Tracer
from fendra.core.layout.columns import COLUMNS, TEXT_COLUMNS, column_values, look_up_in, words
from fendra.core.layout.table import Layout
from fendra.core.names import NAME, did_you_mean

if TYPE_CHECKING:
    from fendra.core.design import Design

Floats = np.ndarray[Any, np.dtype[np.float64]]
Ints = np.ndarray[Any, np.dtype[np.int64]]

EVEN = 1e-6
"""Places on a trail that are off an even spacing by less are evenly spaced: float32, in which
`by` is computed, is not finer."""

ALL = "all"
"""The name of the choice of every spot."""


@dataclass(frozen=True)
class Choice:
    """Some spots, and their order.

    spots: rows of the layout, ascending.
    along: each spot's place on the way from start to end, 0 to 1.
    rank: each spot's place in the order, from 0; spots with an equal place share one.
    ranks: how many different ranks there are.
    """

    name: str
    spots: Ints
    along: Floats
    rank: Floats
    ranks: int


def in_wire_order(name: str, spots: Ints) -> Choice:
    """A choice whose order is the order of the wire."""
    rank = np.arange(len(spots), dtype=np.float64)
    return Choice(name, spots, rank / max(len(spots) - 1, 1), rank, len(spots))


def ordered_by(name: str, spots: Ints, by: Floats) -> Choice:
    """A choice whose order, and distances along it, follow the numbers in `by`."""
    if len(spots) == 0:
        return in_wire_order(name, spots)
    span = float(by.max() - by.min())
    along = (by - by.min()) / span if span > 0 else np.zeros(len(spots))
    order = np.argsort(along, kind="stable")
    is_new = np.diff(along[order], prepend=-1.0) > 1e-5
    rank = np.empty(len(spots))
    rank[order] = np.cumsum(is_new) - 1
    ranks = int(is_new.sum())
    even = rank / max(ranks - 1, 1)
    if np.abs(along - even).max() < EVEN:
        along = even
    return Choice(name, spots, along, rank, ranks)


def evaluate(layout: Layout, text: str, want: Kind) -> np.ndarray[Any, np.dtype[Any]]:
    """An expression over the layout's columns, for every spot.

    Raises ExpressionError.
    """
    tracer = Tracer()
    names = (*COLUMNS, *TEXT_COLUMNS)
    scope = Scope(tracer, look_up_in(tracer, ALL), names, words(layout))
    value = compile_expression(text, scope, want)
    value = tame(value) if want is Kind.FLOAT else value
    tracer.roots["result"] = value.place
    graph = simplify(tracer.graph())
    columns = {
        (ALL, str(node.payload)): column_values(layout, str(node.payload))
        for node in graph.nodes
        if node.op == "column"
    }
    fixed = compute_fixed(graph, columns, lambda _: (len(layout),))
    return np.broadcast_to(fixed[graph.roots["result"]], (len(layout),))


def choose(layout: Layout, text: str, known: Mapping[str, Choice]) -> Ints:
    """The spots that a name of a part or group, or an expression over columns, chooses.

    known: the choices that stand above this one in the file. Raises ExpressionError.
    """
    if text in known:
        return known[text].spots
    try:
        return np.flatnonzero(evaluate(layout, text, Kind.TRUTH))
    except ExpressionError as exc:
        if NAME.fullmatch(text) and exc.problem.startswith("nothing is called"):
            remedy = did_you_mean(text, known, "parts, groups and trails above")
            raise ExpressionError(f"there is no '{text}' above.", remedy=remedy) from exc
        raise


def choose_all(
    design: Design, layout: Layout, report: Report, dropped: Iterable[str] = ()
) -> dict[str, Choice]:
    """Every choice of a design by name: `all`, the parts, the groups, the trails.

    dropped: names that are in the file, but not in the design since they were wrong;
    nothing is reported about those. A group or trail that is wrong is reported once,
    and stands for all spots.
    """
    choices = {ALL: in_wire_order(ALL, np.arange(len(layout)))}
    for name in layout.part_names:
        rows = layout.spots_of_part(name)
        choices[name] = in_wire_order(name, np.arange(rows.start, rows.stop))
    for name, text in design.groups.items():
        path: Path = ("groups", name)
        spots = _try_choosing(layout, text, choices, path, report, dropped)
        if _is_free(name, choices, path, report):
            choices[name] = in_wire_order(name, spots)
    for name, trail in design.trails.items():
        path = ("trails", name)
        spots = _try_choosing(layout, trail.of, choices, (*path, "of"), report, dropped)
        if not _is_free(name, choices, path, report):
            continue
        if trail.by is None:
            choices[name] = in_wire_order(name, spots)
            continue
        try:
            by = evaluate(layout, trail.by, Kind.FLOAT).astype(np.float64)[spots]
        except ExpressionError as exc:
            report_expression(exc, (*path, "by"), report, dropped)
            by = np.arange(len(spots), dtype=np.float64)
        choices[name] = ordered_by(name, spots, by)
    return choices


def _try_choosing(
    layout: Layout,
    text: str,
    known: Mapping[str, Choice],
    path: Path,
    report: Report,
    dropped: Iterable[str],
) -> Ints:
    try:
        spots = choose(layout, text, known)
    except ExpressionError as exc:
        report_expression(exc, path, report, dropped)
        return known[ALL].spots
    if len(spots) == 0 and not dropped:
        report.warning(path, "empty", "no LED is chosen.", "Compare with `fendra map`.")
    return spots


def _is_free(name: str, taken: Mapping[str, Choice], path: Path, report: Report) -> bool:
    if name not in taken:
        return True
    report.error(
        path,
        "duplicate-name",
        f"'{name}' is already the name of a part, group or trail.",
        "Give it a name of its own.",
    )
    return False


def report_expression(
    exc: ExpressionError, path: Path, report: Report, dropped: Iterable[str]
) -> None:
    """An expression's error as a finding, unless it names what was dropped before."""
    if any(f"'{name}'" in exc.problem for name in dropped):
        return
    problem = exc.problem if exc.problem.endswith(".") else f"{exc.problem}."
    report.error(path, "expression", problem, exc.remedy, exc.excerpt)
