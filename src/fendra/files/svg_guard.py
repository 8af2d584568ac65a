"""A first check of an SVG, before anything is drawn: is it too deep, too large, or circular?

A few lines of `use` can stand for millions of shapes. So this counts them, and copies nothing.
"""

from __future__ import annotations

import io
from xml.etree.ElementTree import ParseError, iterparse  # nosec B405

from fendra.core.errors import LayoutError
from fendra.core.limits import LAYOUT_DEPTH, LAYOUT_PLACES

_HREF = ("href", "{http://www.w3.org/1999/xlink}href")


def check_svg(text: str) -> None:
    """Raises LayoutError for a text that is no SVG or too much of one."""
    depth, count = 0, 0
    inside: list[_Element] = []
    by_id: dict[str, _Element] = {}
    root: _Element | None = None
    try:
        # Expat fetches nothing, and ends where entities would make much of little.
        for event, node in iterparse(io.BytesIO(text.encode()), ("start", "end")):  # nosec B314
            if event == "end":
                depth -= 1
                inside.pop()
                node.clear()
                continue
            depth, count = depth + 1, count + 1
            if depth > LAYOUT_DEPTH.most:
                raise LayoutError(f"it is nested too deeply; the limit is {LAYOUT_DEPTH.in_words}.")
            if count > LAYOUT_PLACES.most:
                raise LayoutError(f"it holds too much; the limit is {LAYOUT_PLACES.in_words}.")
            made = _Element()
            root = root or made
            if inside:
                inside[-1].children.append(made)
            inside.append(made)
            name = node.get("id")
            if name:
                by_id.setdefault(name, made)
            if str(node.tag).rpartition("}")[2] == "use":
                made.uses = next((node.get(key) or "" for key in _HREF if node.get(key)), "")
    except LayoutError:
        raise
    except (ParseError, ValueError) as exc:
        raise LayoutError(f"this is not SVG: {exc}.") from exc
    if root is not None and _size(root, by_id) > LAYOUT_PLACES.most:
        raise LayoutError(
            f"its `use` elements stand for too much; the limit is {LAYOUT_PLACES.in_words}."
        )


class _Element:
    """The contents of an element, and the id that it uses. size: the number of elements in it."""

    __slots__ = ("children", "size", "uses")

    def __init__(self) -> None:
        self.children: list[_Element] = []
        self.uses = ""
        self.size: int | None = None


def _size(root: _Element, by_id: dict[str, _Element]) -> int:
    """How many elements an element expands to. Raises LayoutError if it contains itself."""

    def within(element: _Element) -> list[_Element]:
        used = by_id.get(element.uses.removeprefix("#")) if element.uses else None
        return element.children if used is None else [*element.children, used]

    way = [(root, iter(within(root)))]
    inside = {id(root)}
    while way:
        here, rest = way[-1]
        after = next((each for each in rest if each.size is None), None)
        if after is None:
            here.size = 1 + sum(each.size or 0 for each in within(here))
            inside.discard(id(here))
            way.pop()
        elif id(after) in inside:
            raise LayoutError(f"the `use` of '{here.uses or 'a group'}' contains itself.")
        else:
            inside.add(id(after))
            way.append((after, iter(within(after))))
    return root.size or 0
