"""The desk: a design's file, edited from the page by the smallest edits; each can be undone."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from hashlib import sha256
from pathlib import Path
from threading import RLock
from typing import Any

from fendra.core.composition.blends import BLENDS
from fendra.core.document.design import Design
from fendra.core.effects import EFFECTS
from fendra.core.errors import FendraError
from fendra.core.findings import Finding, Severity
from fendra.core.layout.placing import moved, turned
from fendra.core.light.colours import is_colour, srgb_bytes
from fendra.core.limits import DESIGN_BYTES
from fendra.core.shapes import Part
from fendra.core.shapes.points import Points
from fendra.files.design_file import Checked, check_text
from fendra.files.edit import read_exact, with_layer, with_table, with_values, write_exact
from fendra.live.connect import check_connections
from fendra.page import data
from fendra.page.gather import placed_parts
from fendra.whole import stamp

MOST_UNDONE = 200


class EditError(FendraError, ValueError):
    """An edit that cannot be made."""

    code = "edit"


class StaleError(EditError):
    """An edit of a text that is no longer the file's."""

    code = "stale"


@dataclass(frozen=True)
class Step:
    """A text of the file, and the one that came after it."""

    before: str
    after: str


class Desk:
    """A design's file. model: what designs are read as. Calls are safe from any thread."""

    def __init__(self, path: Path, model: type[Design] = Design) -> None:
        self.path, self._model = path, model
        self._lock = RLock()
        self._done: list[Step] = []
        self._undone: list[Step] = []
        self._checked: tuple[str, Checked] | None = None

    def sheet(self) -> data.Sheet:
        """The file as it is now, with its findings. Raises FileError."""
        with self._lock:
            text = read_exact(self.path)
            checked = self._check(text)
            return data.Sheet(
                file=self.path.name,
                text=text,
                version=version_of(text),
                findings=[found_thing(each) for each in checked.findings],
                can_undo=bool(self._done) and self._done[-1].after == text,
                can_redo=bool(self._undone) and self._undone[-1].before == text,
                parts=_parts(checked),
                groups=_choices(checked),
                effects=sorted(EFFECTS),
                layers=_layers(checked),
            )

    def stamp(self) -> str:
        """A text that changes whenever the file does; empty if there is no file."""
        return stamp(self.path)

    def check(self, text: str) -> list[data.FoundThing]:
        """The findings of a text that is not in the file."""
        _check_size(text)
        return [found_thing(each) for each in self._check(text).findings]

    def write(self, text: str, version: str) -> data.Sheet:
        """Put a text into the file, as the user wrote it. Raises FileError and StaleError."""
        _check_size(text)
        with self._lock:
            before = self._text_of(version)
            if text != before:
                self._put(before, text)
            return self.sheet()

    def edit(self, edits: Sequence[Mapping[str, Any]], version: str | None) -> data.Sheet:
        """Make some edits, all or none. Raises FileError, StaleError, and EditError where one
        cannot be made, or would make a design wrong that was not.
        """
        with self._lock:
            before = text = self._text_of(version)
            known = {(each.code, each.path) for each in _errors(self._check(before))}
            for edit in edits:
                text = self._edited(text, edit)
            if text != before:
                wrong = _errors(self._check(text))
                new = [each for each in wrong if (each.code, each.path) not in known]
                if new:
                    raise EditError(f"that would make the design wrong: {new[0].message}")
                self._put(before, text)
            return self.sheet()

    def undo(self) -> data.Sheet:
        """Undo the last change. Raises FileError, and EditError if there is none."""
        return self._back(self._done, self._undone, "undo", lambda s: (s.after, s.before))

    def redo(self) -> data.Sheet:
        """Make the change again that was taken back last. Raises FileError and EditError."""
        return self._back(self._undone, self._done, "redo", lambda s: (s.before, s.after))

    def _back(
        self, row: list[Step], other: list[Step], what: str,
        ends: Callable[[Step], tuple[str, str]],
    ) -> data.Sheet:  # fmt: skip
        with self._lock:
            text = read_exact(self.path)
            if not row:
                raise EditError(f"there is nothing to {what}")
            wanted, text_after = ends(row[-1])
            if wanted != text:
                row.clear()
                raise EditError(f"the file changed elsewhere, so there is nothing to {what}")
            other.append(row.pop())
            write_exact(self.path, text_after)
            return self.sheet()

    def _put(self, before: str, text: str) -> None:
        write_exact(self.path, text)
        self._done.append(Step(before, text))
        del self._done[:-MOST_UNDONE]
        self._undone.clear()

    def _text_of(self, version: str | None) -> str:
        text = read_exact(self.path)
        if version not in {None, version_of(text)}:
            raise StaleError("the file changed meanwhile. Look at it, and change it again.")
        return text

    def _check(self, text: str) -> Checked:
        if self._checked is None or self._checked[0] != text:
            name, folder = str(self.path), self.path.parent
            found = check_text(
                text.replace("\r\n", "\n"), name, self._model, folder, more=check_connections
            )
            self._checked = text, found
        return self._checked[1]

    def _edited(self, text: str, edit: Mapping[str, Any]) -> str:
        """A text after one edit. Raises EditError and FileError."""
        try:
            return self._made(text, dict(edit))
        except (KeyError, TypeError, ValueError, IndexError) as exc:
            if isinstance(exc, FendraError):
                raise
            raise EditError(f"this edit cannot be read: {exc}"[:200]) from exc

    def _made(self, text: str, edit: dict[str, Any]) -> str:
        checked = self._check(text)
        design = checked.design
        match edit.pop("do"):
            case "move":
                part, path = _part(design, edit["part"])
                by = _numbers(edit["by"], 3)
                return with_values(text, path, moved(part, by))
            case "turn":
                part, path = _part(design, edit["part"])
                [degrees] = _numbers([edit["degrees"]], 1)
                (middle,) = (each.middle for each in _parts(checked) if each.name == part.name)
                changed = turned(part, degrees, middle)
                return with_values(text, path, changed)
            case "led":
                part, path = _part(design, edit["part"])
                if not isinstance(part, Points) or part.file:
                    raise EditError("only parts of shape 'points' have single LEDs to move")
                points = [[*point] for point in part.points]
                place, by = int(edit["index"]), _numbers(edit["by"], 3)
                points[place] = [a + b for a, b in zip(points[place], by, strict=True)]
                return with_values(text, path, {"points": points})
            case "set":
                path = tuple(edit["path"])
                if not all(isinstance(step, (str, int)) for step in path):
                    raise EditError("a path is made of names and numbers")
                return with_values(text, path, {str(edit["key"]): edit["value"]})
            case "group":
                return with_table(text, "groups", str(edit["name"]), edit["of"])
            case "trail":
                return with_table(text, "trails", str(edit["name"]), edit["of"])
            case "layer":
                values = dict(edit["values"])
                if values.get("blend", "over") not in BLENDS:
                    raise EditError(f"there is no blend '{values['blend']:.40}'")
                return with_layer(text, values)
            case other:
                raise EditError(f"there is no edit '{other!s:.40}'")


def version_of(text: str) -> str:
    """A text's version: another text has another one."""
    return sha256(text.encode()).hexdigest()[:16]


def found_thing(finding: Finding) -> data.FoundThing:
    """A finding as the page has it."""
    return data.FoundThing(
        severity=str(finding.severity),
        code=finding.code,
        message=finding.message,
        remedy=finding.remedy,
        line=finding.line,
        path=[*finding.path],
    )


def _check_size(text: str) -> None:
    if len(text.encode()) > DESIGN_BYTES.most:
        raise EditError(f"the text is too large: the limit is {DESIGN_BYTES.in_words}")


def _errors(checked: Checked) -> list[Finding]:
    return [each for each in checked.findings if each.severity is Severity.ERROR]


def _parts(checked: Checked) -> list[data.PlacedPart]:
    return placed_parts(checked.examined.subject) if checked.examined is not None else []


def _layers(checked: Checked) -> list[data.SheetLayer]:
    """The layers, with what of them can be changed by touch."""
    design = checked.design
    found = []
    for number, layer in enumerate(design.layer if design is not None else []):
        assert design is not None
        own = {**layer.parameters, **layer.model_dump(exclude_unset=True, include=LEVELS)}
        texts = {key: value for key, value in own.items() if isinstance(value, str)}
        found.append(
            data.SheetLayer(
                name=layer.name,
                path=["layer", number],
                effect=design.effect_of(layer),
                on=_on_in_words(layer.on),
                colours={key: hex_of(text) for key, text in texts.items() if is_colour(text)},
                numbers={
                    key: float(value)
                    for key, value in own.items()
                    if isinstance(value, (int, float)) and not isinstance(value, bool)
                },
            )
        )
    return found


def _on_in_words(on: object) -> str:
    """The LEDs of a layer, in a few words."""
    if isinstance(on, str):
        return on
    return ", ".join(map(str, on)) if isinstance(on, (list, tuple)) else "a choice of its own"


LEVELS = {"level", "cover"}


def hex_of(colour: str) -> str:
    """A colour of a design as #rrggbb."""
    red, green, blue = srgb_bytes(colour)
    return f"#{red:02x}{green:02x}{blue:02x}"


def _choices(checked: Checked) -> list[str]:
    """The names that a layer can be put on."""
    if checked.design is None:
        return []
    parts = [part.name for line in checked.design.line for part in line.part]
    return ["all", *checked.design.groups, *checked.design.trails, *parts]


def _part(design: Design | None, name: str) -> tuple[Part, tuple[str | int, ...]]:
    for number, line in enumerate(design.line if design is not None else []):
        for place, part in enumerate(line.part):
            if part.name == name:
                if part.on is not None:
                    raise EditError(f"part '{name}' stands on '{part.on}': move that one")
                return part, ("line", number, "part", place)
    raise EditError(f"there is no part '{name:.60}' to move")


def _numbers(values: Any, count: int) -> list[float]:
    found = [float(value) for value in values]
    if len(found) != count or not all(abs(value) <= 1e9 for value in found):
        raise EditError(f"an edit needs {count} numbers here")
    return found
