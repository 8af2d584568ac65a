"""The chain: the parts of each line in wire order, sub-assemblies unfolded, each with its pose."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from fendra.core.document.design import Design
from fendra.core.findings import KeyPath, Report
from fendra.core.layout.pose import Pose
from fendra.core.limits import PARTS
from fendra.core.names import did_you_mean
from fendra.core.shapes import Part
from fendra.core.shapes.assembly import Assembled

ORIGIN = Pose(np.eye(3), np.zeros(3))


@dataclass(frozen=True)
class ChainPart:
    """A part in the chain.

    name: the part's, after those of the copies that it belongs to. path: where it is written. pose:
    from its own axes to those of the thing. order: sorts the parts as they are written, which
    `reverse` does not change. parallel_to: the full name of the part whose data it shows too.
    """

    name: str
    part: Part
    path: KeyPath
    line: int
    pose: Pose
    is_reversed: bool
    order: tuple[int, ...]
    parallel_to: str | None = None


@dataclass(frozen=True)
class _Node:
    """A part or a copy of an assembly before poses are known.

    scope: the copies it is in. order: see `ChainPart`.
    """

    name: str
    part: Part
    path: KeyPath
    line: int
    scope: str
    is_reversed: bool
    is_assembly: bool
    order: tuple[int, ...]


@dataclass(frozen=True)
class Chain:
    """Every part in wire order, line after line; and the copies of assemblies that hold them.

    assemblies: the name of each placed assembly, and where it is written.
    """

    links: tuple[ChainPart, ...] = ()
    assemblies: tuple[tuple[str, KeyPath], ...] = ()


def unfold(design: Design, report: Report) -> Chain:
    """Every part of a design in wire order, line after line. Mistakes are reported.

    A part on an unknown part is placed by its own keys alone.
    """
    nodes: list[_Node] = []
    for i, line in enumerate(design.line):
        for j, part in enumerate(line.part):
            nodes += _unfold(design, part, ("line", i, "part", j), i, report, (i, j))
            if len(nodes) > PARTS.most:
                message = "with this part, and those of its assemblies, there are too many."
                remedy = f"The limit is {PARTS.in_words}."
                report.error(("line", i, "part", j), "limit", message, remedy)
                return Chain()
    by_name = {node.name: node for node in nodes}
    poses: dict[str, Pose] = {}
    links = tuple(
        ChainPart(
            node.name,
            node.part,
            node.path,
            node.line,
            _pose(node, by_name, poses, report),
            node.is_reversed,
            node.order,
            node.part.parallel_to and node.scope + node.part.parallel_to,
        )
        for node in nodes
        if not node.is_assembly
    )
    return Chain(links, tuple((node.name, node.path) for node in nodes if node.is_assembly))


def _unfold(
    design: Design, part: Part, path: KeyPath, line: int, report: Report, order: tuple[int, ...],
    scope: str = "", is_reversed: bool = False, inside: tuple[str, ...] = (),
) -> list[_Node]:  # fmt: skip
    """A part, or a copy of an assembly followed by all that it holds."""
    turned = is_reversed != part.reverse
    node = _Node(
        scope + part.name, part, path, line, scope, turned, isinstance(part, Assembled), order
    )
    if not isinstance(part, Assembled):
        return [node]
    assembly = design.assemblies.get(part.use)
    if assembly is None:
        message = f"there is no assembly '{part.use}'."
        remedy = did_you_mean(part.use, design.assemblies, "assemblies")
        report.error((*path, "use"), "unknown-name", message, remedy)
        return [node]
    if part.use in inside:
        way = " -> ".join([*inside[inside.index(part.use) :], part.use])
        message = f"assembly '{part.use}' contains itself: {way}."
        report.error((*path, "use"), "circle", message, "Remove one of them.")
        return [node]
    parts = assembly.part
    known = [child.name for child in parts]
    for name in part.only:
        if name not in known:
            message = f"assembly '{part.use}' has no part '{name}'."
            report.error(
                (*path, "only"), "unknown-name", message, did_you_mean(name, known, "parts")
            )
    wired = [
        (j, child) for j, child in enumerate(parts) if not part.only or child.name in part.only
    ]
    nodes = [node]
    for j, child in reversed(wired) if turned else wired:
        nodes += _unfold(
            design, child, ("assemblies", part.use, "part", j), line, report, (*order, j),
            f"{scope}{part.name}.", turned, (*inside, part.use),
        )  # fmt: skip
        if len(nodes) > PARTS.most:
            break
    return nodes


def _pose(
    node: _Node,
    by_name: Mapping[str, _Node],
    poses: dict[str, Pose],
    report: Report,
    inside: tuple[str, ...] = (),
) -> Pose:
    """Where a node's own axes lie; the axes that it is placed in come first."""
    if node.name in poses:
        return poses[node.name]
    pose = Pose.of(node.part)
    base = node.scope.removesuffix(".")
    if node.part.on is not None:
        base = node.scope + node.part.on
        path = (*node.path, "on")
        if base not in by_name:
            known = [
                name.removeprefix(node.scope) for name in by_name if name.startswith(node.scope)
            ]
            message = f"there is no part '{node.part.on}' to place it on."
            remedy = did_you_mean(node.part.on, known, "parts")
            report.error(path, "unknown-name", message, remedy)
            base = ""
        elif base in (*inside, node.name):
            way = " -> ".join([*inside, node.name, base])
            message = f"parts are placed on each other in a circle: {way}."
            report.error(path, "circle", message, "Place one of them by itself.")
            base = ""
    if base:
        outer = _pose(by_name[base], by_name, poses, report, (*inside, node.name))
        pose = pose.within(outer)
    poses[node.name] = pose
    return pose


def with_pose(link: ChainPart, part: Part) -> ChainPart:
    """The link with another part in its place, in the axes that it is placed in."""
    own, theirs = Pose.of(link.part), Pose.of(part)
    inverse = Pose(own.matrix.T, -own.matrix.T @ own.move)
    outer = inverse.within(link.pose)
    turned = link.is_reversed != (link.part.reverse != part.reverse)
    return replace(link, part=part, pose=theirs.within(outer), is_reversed=turned)
