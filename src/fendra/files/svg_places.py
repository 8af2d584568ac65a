"""Positions in SVG drawings: shapes that stand for LEDs, or a path that they follow."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from typing import Any
from xml.etree.ElementTree import ParseError

import numpy as np
import svgelements

from fendra.core.errors import LayoutError
from fendra.core.names import did_you_mean
from fendra.files.placement import Placement

_PX_MM = 25.4 / 96
"""A unit of a drawing that says no other (CSS Values 4, section 6.2)."""

_DIGITS = 3
"""Places are true to a thousandth of a mm."""

_SAMPLES = 2000
"""Points on a path by which the nearest place along it is found."""


class Drawing:
    """An SVG drawing in mm, y upward from its lower edge; transforms are applied.

    text: the file's. unit_mm: a length that the drawing gives without a unit, in mm. Raises
    LayoutError where it is no SVG.
    """

    def __init__(self, text: str, unit_mm: float | None = None) -> None:
        self._mm = unit_mm or _PX_MM
        try:
            svg = svgelements.SVG.parse(io.StringIO(text), ppi=25.4 / self._mm, reify=True)
        except (ParseError, ValueError, TypeError, AttributeError) as exc:
            raise LayoutError(f"this is no SVG: {exc}.") from exc
        if not isinstance(svg, svgelements.SVG):
            raise LayoutError("this is no SVG: it has no `svg` element.")
        self._elements = list(_walk(svg, ()))
        self._top = float(svg.height) if svg.height else 0.0

    def marks(self) -> list[Placement]:
        """The middle of every circle, ellipse and rectangle, in the order of the document."""
        kinds = (svgelements.Circle, svgelements.Ellipse, svgelements.Rect)
        found = []
        for name, groups, element in self._elements:
            box = element.bbox() if isinstance(element, kinds) else None
            if box is not None:
                middle = complex((box[0] + box[2]) / 2, (box[1] + box[3]) / 2)
                found.append(Placement(name, self._place(middle), groups=groups))
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
        """LEDs along a path from its start: so many evenly, or so many as fit at a pitch, or both.

        path: the id of it; not needed where there is but one.
        """
        way = self._path(path)
        length = way.length() * self._mm
        is_closed = abs(way.point(0.0) - way.point(1.0)) * self._mm < 1e-3 * length
        if pitch_mm is None:
            assert count is not None
            places = np.linspace(0.0, length, count, endpoint=not is_closed)
        else:
            fitting = int(length / pitch_mm + 1e-6) + (not is_closed)
            if count is not None and count > fitting:
                raise LayoutError(
                    f"{count} LEDs, {pitch_mm:g} mm from one to the next, do not fit on a path of "
                    f"{length:.1f} mm; {fitting} do."
                )
            places = np.arange(count or fitting) * pitch_mm
        shares, lengths = self._measured(way)
        found = [way.point(float(np.interp(place, lengths, shares))) for place in places]
        return [Placement("", self._place(point)) for point in found]

    def sorted_along(self, placements: Sequence[Placement], path: str | None) -> list[Placement]:
        """In the order in which a path from its start on comes nearest to each."""
        way = self._path(path)
        points = np.array([self._place(way.point(i / _SAMPLES)) for i in range(_SAMPLES + 1)])
        return sorted(
            placements,
            key=lambda p: int(np.linalg.norm(points - np.array(p.position), axis=1).argmin()),
        )

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
        return svgelements.Path(next(iter(paths.values())) if name is None else paths[name])

    def _measured(self, way: Any) -> tuple[Any, Any]:
        """Shares of a path, and how far along it each is, in mm."""
        shares = np.linspace(0.0, 1.0, _SAMPLES + 1)
        points = np.array([_complex(way.point(float(share))) for share in shares])
        lengths = np.concatenate([[0.0], np.cumsum(np.abs(np.diff(points)))])
        return shares, lengths * (way.length() * self._mm / lengths[-1] if lengths[-1] else 1.0)

    def _place(self, point: Any) -> tuple[float, float, float]:
        """Rounded, since the library's units are off by half a millionth."""
        point = _complex(point)
        x, y = point.real * self._mm, (self._top - point.imag) * self._mm
        x, y = round(x, _DIGITS), round(y, _DIGITS)
        return x + 0.0, y + 0.0, 0.0


def _complex(point: Any) -> complex:
    return complex(float(point.real), float(point.imag))


def _walk(
    group: Any, groups: tuple[str, ...], name: str = ""
) -> Iterator[tuple[str, tuple[str, ...], Any]]:
    """Every element that is drawn, with its id and those of the groups that hold it."""
    for element in group:
        own = name or str(element.id or "")
        if isinstance(element, svgelements.Use):
            yield from _walk(element, groups, own)
        elif isinstance(element, (svgelements.Group, list)):
            yield from _walk(element, (*groups, own) if own else groups)
        else:
            yield own, groups, element
