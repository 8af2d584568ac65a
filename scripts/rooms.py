"""The rooms of the program and what they know of each other, read from its imports and drawn.

Every import counts, those for types alone as well. `make docs` puts both into docs/architecture.md.
"""

from __future__ import annotations

import ast
import tomllib
from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cache
from html import escape
from pathlib import Path
from typing import TypeAlias

ROOT = Path(__file__).parents[1]
SOURCE = ROOT / "src"
SHIPPED = SOURCE / "fendra" / "demo" / "files"

BOX_W, BOX_H, GAP_X, GAP_Y, MARGIN = 150, 34, 34, 34, 24
WIDTH = 780
Place: TypeAlias = tuple[float, float]
"""Of a box its top left corner; of an arrow where it passes."""

STYLE = """
  text { font-family: sans-serif; fill: #1c2430; }
  .name { font-size: 14px; font-weight: 600; }
  .title { font-size: 16px; font-weight: 600; }
  .box { stroke: #5b6675; stroke-width: 1; rx: 6; }
  .arrow { stroke: #5b6675; stroke-width: 1.2; fill: none; opacity: 0.75; }
"""


@dataclass(frozen=True)
class Room:
    """A room: a folder or a file. knows: the rooms that it imports."""

    name: str
    about: str
    knows: frozenset[str]


def contracts(name: str) -> list[list[str]]:
    """The layers of a contract, from the top down, each with its rooms."""
    made = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))
    for contract in made["tool"]["importlinter"]["contracts"]:
        if contract["name"].startswith(name):
            return [
                [room.strip().removeprefix("fendra.") for room in layer.split("|")]
                for layer in contract["layers"]
            ]
    raise SystemExit(f"pyproject.toml has no contract '{name}'")


@cache
def modules() -> dict[str, Path]:
    """Every module of the program, and its file."""
    return {
        ".".join(path.relative_to(SOURCE).with_suffix("").parts).removesuffix(".__init__"): path
        for path in sorted(SOURCE.rglob("*.py"))
        if not path.is_relative_to(SHIPPED)  # files to try, which are no part of the program
    }


@cache
def imports(module: str) -> list[str]:
    """The modules of the program that one of them imports, wherever in it."""
    known, found = modules(), []
    for node in ast.walk(ast.parse(known[module].read_text(encoding="utf-8"))):
        if isinstance(node, ast.ImportFrom) and node.module:
            whole = [f"{node.module}.{alias.name}" for alias in node.names]
            found += [name if name in known else node.module for name in whole]
        elif isinstance(node, ast.Import):
            found += [alias.name for alias in node.names]
    return [name for name in dict.fromkeys(found) if name in known]


def rooms(names: Iterable[str], prefix: str = "fendra.") -> dict[str, Room]:
    """The rooms of these names, in their order."""
    known = modules()
    names = [*names]

    def room_of(module: str) -> str | None:
        inside = module.removeprefix(prefix)
        return next((n for n in names if inside == n or inside.startswith(f"{n}.")), None)

    files = {name: [m for m in known if room_of(m) == name] for name in names}
    found = {}
    for name in names:
        inside = (other for module in files[name] for other in imports(module))
        there = {room_of(other) for other in inside if other.startswith(prefix)}
        first = known[f"{prefix}{name}"].read_text(encoding="utf-8")
        about = (ast.get_docstring(ast.parse(first)) or "").partition("\n")[0]
        found[name] = Room(name, about, frozenset(filter(None, there - {name})))
    return found


def nearest(all_of: Mapping[str, Room]) -> set[tuple[str, str]]:
    """The imports that no way over other rooms says as well: arrows enough for all of them."""
    reach: dict[str, set[str]] = {}

    def reached(name: str) -> set[str]:
        if name not in reach:
            reach[name] = set()
            for other in all_of[name].knows:
                reach[name] |= {other, *reached(other)}
        return reach[name]

    return {
        (name, other)
        for name, room in all_of.items()
        for other in room.knows
        if not any(other in reached(between) for between in room.knows if between != other)
    }


def drawing(
    title: str, layers: list[list[str]], all_of: Mapping[str, Room], top: int, leaves: int = 0
) -> list[str]:  # fmt: skip
    """Rooms in their layers, the top one first, with arrows down to what they know.

    leaves: so many layers at the foot are known by many, and no arrow is drawn to them.
    """
    at_the_foot = {name for layer in layers[len(layers) - leaves :] for name in layer}
    places: dict[str, tuple[float, float]] = {}
    body = [f'<text class="title" x="{MARGIN}" y="{top}">{escape(title)}</text>']
    for row, layer in enumerate(layers):
        width = len(layer) * BOX_W + (len(layer) - 1) * GAP_X
        for column, name in enumerate(layer):
            x = (WIDTH - width) / 2 + column * (BOX_W + GAP_X)
            places[name] = (x, top + 20 + row * (BOX_H + GAP_Y))
    rows = [[places[name] for name in layer] for layer in layers]
    taken: Counter[Place] = Counter()
    arrows, boxes = [], []
    for name, other in sorted(nearest(all_of)):
        if other not in at_the_foot:
            way = arrow(places[name], places[other], rows, taken)
            arrows.append(f'<path class="arrow" marker-end="url(#tip)" d="{way}"/>')
    for name, (x, y) in places.items():
        fill = "#f4f6f9" if name in at_the_foot else "#dbe6f3"
        boxes += [
            f'<g><title>{escape(all_of[name].about)}</title><rect class="box" x="{x:.0f}" '
            f'y="{y:.0f}" width="{BOX_W}" height="{BOX_H}" fill="{fill}"/>',
            f'<text class="name" x="{x + BOX_W / 2:.0f}" y="{y + BOX_H / 2 + 5:.0f}" '
            f'text-anchor="middle">{escape(name)}</text></g>',
        ]
    return [*body, *arrows, *boxes]


def arrow(start: Place, end: Place, rows: list[list[Place]], taken: Counter[Place]) -> str:
    """The way of an arrow down from one box to another, beside the boxes of the rows between.

    taken: how many arrows go through each gap already; the next one goes a little beside them.
    """
    (x1, y1), (x2, y2) = start, end
    lean = (x2 > x1) - (x2 < x1)
    x, y = x1 + BOX_W * (0.5 + 0.15 * lean), y1 + BOX_H
    last = x2 + BOX_W * (0.5 - 0.15 * lean)
    way = f"M{x:.0f} {y:.0f}"
    for row in rows:
        top = row[0][1]
        if not y1 < top < y2:
            continue
        straight = x + (last - x) * (top - y) / (y2 - y)
        gaps = [row[0][0] - GAP_X / 2, *(left + BOX_W + GAP_X / 2 for left, _ in row)]
        gap = min(gaps, key=lambda at: abs(at - straight))
        beside = gap + 7 * (taken[gap, top] - 1)
        taken[gap, top] += 1
        way += f"{curve(x, y, beside, top)}V{top + BOX_H:.0f}"
        x, y = beside, top + BOX_H
    return way + curve(x, y, last, y2 - 3)


def curve(x1: float, y1: float, x2: float, y2: float) -> str:
    """A curve that leaves downwards and arrives downwards."""
    middle = (y1 + y2) / 2
    return f"C{x1:.0f} {middle:.0f} {x2:.0f} {middle:.0f} {x2:.0f} {y2:.0f}"


def picture() -> str:
    """All rooms as one SVG: the program, and below it the core."""
    outer, inner = contracts("layers"), contracts("rooms of the core")
    whole = rooms([name for layer in outer for name in layer])
    core = rooms([name for layer in inner for name in layer], "fendra.core.")
    below = MARGIN + 40 + len(outer) * (BOX_H + GAP_Y) + 20
    height = below + 30 + len(inner) * (BOX_H + GAP_Y)
    tip = (
        '<marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" '
        'orient="auto"><path d="M0 0L8 4L0 8z" fill="#5b6675"/></marker>'
    )
    return "\n".join(
        [
            f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {height}" '
            f'width="{WIDTH}" height="{height}">',
            f"<style>{STYLE}</style><defs>{tip}</defs>",
            f'<rect width="{WIDTH}" height="{height}" fill="#ffffff"/>',
            *drawing("src/fendra", outer, whole, MARGIN + 10),
            *drawing("src/fendra/core", inner, core, below, leaves=2),
            "</svg>\n",
        ]
    )


def listing(prefix: str, names: Iterable[str]) -> str:
    """A table of rooms: what each is for, and the rooms that it knows."""
    rows = ["| room | what it is for | it knows |", "| --- | --- | --- |"]
    for room in rooms(names, prefix).values():
        knows = ", ".join(sorted(room.knows)) or "-"
        rows.append(f"| `{room.name}` | {room.about} | {knows} |")
    return "\n".join(rows) + "\n"
