"""The table beside the map: lines and parts in wire order, and the meaning of the marks."""

from __future__ import annotations

from typing import TYPE_CHECKING

from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.core.names import counted
from fendra.draw import style
from fendra.draw.map_labels import addresses

if TYPE_CHECKING:
    from matplotlib.axes import Axes

_ROWS = 32
_MARKS = (
    ("o", "LED; first of its part"),
    ("h", "faces away from you"),
    ("|", "faces that way"),
    ("x", "skipped"),
    ("-", "jump to the next part"),
    (".", "wired in parallel"),
)


def draw_table(design: Design, layout: Layout, ax: Axes) -> None:
    """Lines and parts as text, from the top down; the marks at the foot."""
    rows: list[tuple[str, str, str, bool]] = []
    room = max((_ROWS - 3 * len(design.line)) // len(design.line), 1)
    for number, line in enumerate(design.line):
        facts = [line.controller or "", line.pin and f"pin {line.pin}", line.led, line.wire_order]
        facts += [f"supply {line.supply}" if line.supply else ""]
        colour = style.line_colour(number)
        head = f"{line.name}: {counted(layout.line_sizes[number], 'address')}"
        rows.append((head, "", colour, True))
        rows.append(("  " + " · ".join(filter(None, facts)), "", style.ink().faint, False))
        parts = [part for part in layout.parts if part.line == number]
        shown = room if len(parts) > room + 1 else len(parts)
        for part in parts[:shown]:
            note = {"copy": " (copy)", "hidden": " (hidden)"}.get(part.kind, "")
            rows.append((f"  {part.name}{note}", addresses(part), style.ink().text, False))
        if len(parts) > shown:
            more = counted(len(parts) - shown, "part")
            rows.append((f"  and {more} more", "", style.ink().faint, False))
        rows.append(("", "", style.ink().text, False))
    foot = 0.2
    step = min(0.03, (0.93 - foot) / max(len(rows), 1))
    ax.set_xlim(0, 1)
    ax.set_ylim(0, 1)
    ax.text(0, 0.985, "Lines, in wire order", color=style.ink().text, fontsize=11, va="baseline")
    ax.text(1, 0.985, "address", color=style.ink().faint, fontsize=8.5, va="baseline", ha="right")
    for place, (left, right, colour, is_head) in enumerate(rows, start=2):
        y = 0.985 - place * step
        font_pt = min(10.0 if is_head else 9.0, step * 290)
        ax.text(0, y, left, color=colour, fontsize=font_pt, va="baseline")
        ax.text(1, y, right, color=style.ink().faint, fontsize=font_pt, va="baseline", ha="right")
    _draw_marks(ax)


def _draw_marks(ax: Axes) -> None:
    for place, (mark, words) in enumerate(_MARKS):
        y = 0.14 - place * 0.026
        colour = style.ink().lines[0]
        match mark:
            case "o":
                ax.scatter([0.02, 0.06], [y, y], s=9, c=colour)
                ax.scatter([0.06], [y], s=42, facecolors="none", edgecolors=colour)
            case "h":
                ax.scatter(
                    [0.04], [y], s=12, c=style.ink().night, edgecolors=colour, linewidths=0.7
                )
            case "|":
                ax.scatter([0.03], [y], s=9, c=colour)
                ax.plot([0.03, 0.06], [y, y], color=colour, linewidth=0.7, alpha=0.6)
            case "x":
                ax.scatter([0.04], [y], s=18, c=style.ink().faint, marker="x", linewidths=0.9)
            case "-":
                ax.plot([0.005, 0.08], [y, y], color=colour, linewidth=0.9, dashes=(4, 3))
            case _:
                ax.plot([0.005, 0.08], [y, y], color=colour, linewidth=0.9, dashes=(1, 2))
        ax.text(0.11, y, words, color=style.ink().faint, fontsize=8, va="center")
