"""Positions in SVG drawings: shapes for LEDs, or a path that they follow."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
import svgelements

from fendra.core.arrays import Floats
from fendra.core.errors import LayoutError
from fendra.core.layout.table import INCH_MM
from fendra.core.limits import LAYOUT_PLACES
from fendra.core.names import did_you_mean
from fendra.files.placement import Placement
from fendra.files.svg_guard import check_svg

_PX_MM = INCH_MM / 96
"""A unit of a drawing that says no other (CSS Values 4, section 6.2)."""

_DIGITS = 3
"""Places are true to a thousandth of a mm."""

_SAMPLES = 2000
"""Points on a path or curve by which places along it are found."""
MOST_POINTS = 1_000_000
"""Of all curves of a path together; of more curves each has fewer."""
MOST_MM = 1e6
"""The largest distance of a place from the origin."""


class Drawing:
    """An SVG drawing in mm, y upward from its lower edge; transforms are applied.

    text: the file's. unit_mm: the length of a unit of the drawing, in mm. Raises LayoutError if it
    is not SVG.
    """

    def __init__(self, text: str, unit_mm: float | None = None) -> None:
        self._mm = unit_mm or _PX_MM
        check_svg(text)
        try:
            svg = svgelements.SVG.parse(io.StringIO(text), ppi=INCH_MM / self._mm, reify=True)
            if not isinstance(svg, svgelements.SVG):
                raise LayoutError("this is not SVG: it has no `svg` element.")
            self._elements = list(_walk(svg, ()))
            self._top = float(svg.height) if svg.height else 0.0
        except LayoutError:
            raise
        except Exception as exc:  # the library raises anything for unexpected files
            problem = str(exc)[:100] or type(exc).__name__
            raise LayoutError(f"this is not SVG: {problem}.") from exc

    def marks(self) -> list[Placement]:
        """The middle of every circle, ellipse and rectangle, in the order of the document."""
        kinds = (svgelements.Circle, svgelements.Ellipse, svgelements.Rect)
        found: list[Placement] = []
        for name, groups, element in self._elements:
            if isinstance(element, kinds):
                try:
                    middle = _middle(element)
                except (TypeError, ValueError, AttributeError) as exc:
                    raise LayoutError(f"'{name or len(found)}' has no middle: {exc}.") from exc
                found.append(Placement(name, self._place(*middle), groups=groups))
        if not found:
            raise LayoutError(
                "there are no circles, ellipses or rectangles. For LEDs along a path give a pitch, "
                "LEDs a metre, or a count."
            )
        return found

    def along(
        self,
        path: str | None,
        *,
        pitch_mm: float | None = None,
        count: int | None = None,
    ) -> list[Placement]:
        """LEDs along a path from its start: this many evenly, or as many as fit at a pitch, or
        both.

        path: its id; not needed if there is only one.
        """
        points, along = self._way(path)
        length = along[-1]
        is_closed = np.linalg.norm(points[-1] - points[0]) < 1e-3 * length
        if pitch_mm is None:
            assert count is not None
            places = np.linspace(0.0, length, count, endpoint=not is_closed)
        else:
            fitting = int(min(length / pitch_mm + 1e-6, 1e9)) + (not is_closed)
            if count is not None and count > fitting:
                raise LayoutError(
                    f"{count} LEDs with a spacing of {pitch_mm:g} mm do not fit on "
                    f"a path of {length:.1f} mm; {fitting} do."
                )
            if (count or fitting) > LAYOUT_PLACES.most:
                raise LayoutError(f"too many would fit; the limit is {LAYOUT_PLACES.in_words}.")
            places = np.arange(count or fitting) * pitch_mm
        # Where the path jumps, two points are equally far along it: the one before the jump counts.
        last = np.clip(np.searchsorted(along, places - 1e-9), 1, len(along) - 1)
        step = along[last] - along[last - 1]
        share = np.clip((places - along[last - 1]) / np.where(step > 0, step, 1.0), 0.0, 1.0)
        found = points[last - 1] + share[:, None] * (points[last] - points[last - 1])
        return [Placement("", _rounded(x, y)) for x, y in found.tolist()]

    def sorted_along(self, placements: Sequence[Placement], path: str | None) -> list[Placement]:
        """In the order in which a path from its start on comes nearest to each."""
        points, along = self._way(path)
        even = np.linspace(0.0, along[-1], _SAMPLES)
        points = np.stack([np.interp(even, along, points[:, axis]) for axis in (0, 1)], axis=1)
        return sorted(
            placements,
            key=lambda p: int(np.linalg.norm(points - (p.position or ())[:2], axis=1).argmin()),
        )

    def _way(self, name: str | None) -> tuple[Floats, Floats]:
        """A path as points (n, 2) in mm so close that curves are smooth, and how far along each is.

        The library could say lengths of curves itself, within seconds a curve.
        """
        element = self._path(name)
        drawn_by = [p for p in svgelements.Path(element) if not isinstance(p, svgelements.Move)]
        samples = max(min(_SAMPLES, MOST_POINTS // max(len(drawn_by), 1)), 4)
        try:
            pieces = [np.asarray(each.npoint(_steps(each, samples)), float) for each in drawn_by]
        except Exception as exc:  # the library raises anything for unexpected files
            raise LayoutError(f"the path cannot be followed: {str(exc)[:100]}.") from exc
        drawn = np.concatenate([np.zeros((0, 2)), *pieces]) * self._mm
        steps = [
            np.linalg.norm(np.diff(piece, axis=0, prepend=piece[:1]), axis=1) for piece in pieces
        ]
        along = np.cumsum(np.concatenate([np.zeros(0), *steps])) * self._mm
        if len(along) == 0 or along[-1] == 0:
            raise LayoutError("the path has no length.")
        if not np.isfinite(drawn).all() or np.abs(drawn).max() > MOST_MM:
            raise LayoutError(f"the path leaves the drawing: places must be within {MOST_MM:g} mm.")
        drawn[:, 1] = self._top * self._mm - drawn[:, 1]
        return drawn, along

    def _path(self, name: str | None) -> Any:
        """The path of an id, as one; the only one where none is named."""
        kinds = (
            svgelements.Path,
            svgelements.Polyline,
            svgelements.Polygon,
            svgelements.SimpleLine,
        )
        paths = {
            n or str(i): e for i, (n, _, e) in enumerate(self._elements) if isinstance(e, kinds)
        }
        if not paths:
            raise LayoutError("there is no path, polyline or line.")
        if name is None and len(paths) > 1:
            raise LayoutError(f"there are several paths; name one: {', '.join(paths)}.")
        if name is not None and name not in paths:
            raise LayoutError(f"there is no path '{name}'. {did_you_mean(name, paths, 'paths')}")
        return paths[name] if name is not None else next(iter(paths.values()))

    def _place(self, x: float, y: float) -> tuple[float, float, float]:
        return _rounded(x * self._mm, (self._top - y) * self._mm)


def _middle(element: Any) -> tuple[float, float]:
    """The middle of a circle, an ellipse or a rectangle, after its transforms.

    The library's own box of a turned shape is NaN.
    """
    if isinstance(element, svgelements.Rect):
        x, y = element.x + element.width / 2, element.y + element.height / 2
    else:
        x, y = element.cx, element.cy
    point = svgelements.Matrix(element.transform).point_in_matrix_space((x, y))
    return float(point.x), float(point.y)


def _steps(piece: Any, samples: int) -> Floats:
    """The places on a line, an arc or a curve that are sampled, 0 to 1."""
    is_straight = isinstance(piece, (svgelements.Line, svgelements.Close))
    return np.linspace(0.0, 1.0, 2 if is_straight else samples + 1)


def _rounded(x: float, y: float) -> tuple[float, float, float]:
    """Rounded, since the library's units are off by half a millionth. Raises LayoutError."""
    if not (abs(x) <= MOST_MM and abs(y) <= MOST_MM):  # NaN is not within anything
        raise LayoutError(f"a place at {x:g}, {y:g} mm is out of range; the limit is {MOST_MM:g}.")
    return round(x, _DIGITS) + 0.0, round(y, _DIGITS) + 0.0, 0.0


def _walk(
    group: Any, groups: tuple[str, ...], name: str = ""
) -> Iterator[tuple[str, tuple[str, ...], Any]]:
    """Every element that is drawn, with its id and the ids of its groups."""
    for element in group:
        own = name or str(element.id or "")
        if isinstance(element, svgelements.Use):
            yield from _walk(element, groups, own)
        elif isinstance(element, (svgelements.Group, list)):
            yield from _walk(element, (*groups, own) if own else groups)
        else:
            yield own, groups, element
