"""The film strip: time across, LED along, a band a part, and the signals above."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.arrays import Array
from fendra.core.document.signal import Signal
from fendra.core.film import Film
from fendra.core.light.colours import linear_to_srgb
from fendra.core.signals.kinds import kind_of
from fendra.draw import style

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure
    from matplotlib.image import AxesImage


_COLUMNS = 1200
"""Columns of a band at most; more would not be seen."""

_LONG_GAP_S, _LONG_GAP_ROWS = 1.0, 5
"""A silence is long if it lasts this many seconds, and this many of the tape's usual steps."""


@style.plain_text()
def draw_strip(film: Film, *, title: str = "") -> Figure:
    """The whole figure: the signals of the tape above, a band a part below, one time axis."""
    signals = {
        name: signal
        for name, signal in film.design.signals.items()
        if signal.of is None and name in film.tape.signals
    }
    numbers = {n: signal for n, signal in signals.items() if kind_of(signal).plot == "line"}
    switches = [n for n, signal in signals.items() if kind_of(signal).plot in ("bars", "ticks")]
    parts = film.layout.part_names
    heights = [0.55] * len(numbers) + [0.24 * len(switches)] * bool(switches)
    heights += [float(np.clip((film.part(p).shape[1] / 30) ** 0.5, 0.4, 2.0)) for p in parts]
    tall = max(8.0, 0.45 * len(heights))
    figure = style.new_figure((12.8, tall))
    grid = figure.add_gridspec(
        len(heights), 1, height_ratios=heights, hspace=0.16, left=0.105, right=0.925, top=0.93,
        bottom=0.07,
    )  # fmt: skip
    axes: list[Axes] = []
    for row in range(len(heights)):
        ax = figure.add_subplot(grid[row], sharex=axes[0] if axes else None)
        style.dress(ax)
        ax.tick_params(labelbottom=row == len(heights) - 1, bottom=row == len(heights) - 1)
        axes.append(ax)
    for ax, (name, signal) in zip(axes, numbers.items(), strict=False):
        _draw_number(film, name, signal, ax)
    if switches:
        _draw_switches(film, switches, axes[len(numbers)])
    for ax, part in zip(axes[-len(parts) :], parts, strict=True):
        draw_band(film, part, ax)
        name_row(ax, part)
    for start, end in _gaps(film):
        for ax in axes[: len(heights) - len(parts)]:
            ax.axvspan(start, end, color="#ffffff", alpha=0.07, linewidth=0)
        axes[0].annotate(
            "no news", ((start + end) / 2, 1.05), xycoords=("data", "axes fraction"),
            color=style.ink().faint, fontsize=8, ha="center",
        )  # fmt: skip
    axes[-1].set_xlabel("time, s")
    axes[-1].set_xlim(float(film.times[0]), end_s(film))
    figure.text(0.105, 0.965, title or film.design.name, color=style.ink().text, fontsize=12)
    return figure


@style.plain_text()
def draw_band(film: Film, part: str, ax: Axes) -> AxesImage:
    """One part of a film on axes: time across, its first LED at the top; gives the image."""
    light = film.seen_part(part).astype(np.float32) / 255.0
    extent = (float(film.times[0]), end_s(film), light.shape[1] - 0.5, -0.5)
    colours = linear_to_srgb(pooled(light)).transpose(1, 0, 2)
    image = ax.imshow(colours, extent=extent, aspect="auto", interpolation="nearest")
    ax.set_facecolor("black")
    last = light.shape[1] - 1
    ax.set_yticks([0, last] if last else [0])
    if last:  # inside the band, so that they keep off those of the next
        first, end = ax.get_yticklabels()
        first.set_verticalalignment("top")
        end.set_verticalalignment("bottom")
    return image


def end_s(film: Film) -> float:
    """The film ends when its last frame does."""
    return float(film.times[-1]) + 1 / film.design.rate


def pooled(light: Array, by: Callable[..., Any] = np.mean) -> Array:
    """Frames (n, leds, 3) brought to `_COLUMNS` at most, by their mean or another way."""
    size = -(-len(light) // _COLUMNS)
    pieces = [by(light[start : start + size], axis=0) for start in range(0, len(light), size)]
    return np.asarray(pieces)


def name_row(ax: Axes, name: str, height: float = 0.5) -> None:
    """Write the name of a row at its left; height: 0 at its foot, 1 at its top."""
    ax.annotate(
        name, (-0.03, height), xycoords="axes fraction", color=style.ink().text, fontsize=9,
        ha="right", va="center", annotation_clip=False,
    )  # fmt: skip


def _draw_number(film: Film, name: str, signal: Signal, ax: Axes) -> None:
    values = film.tape.signals[name]
    known = ~np.isnan(values)
    ax.set_yticks([])
    name_row(ax, name)
    if not known.any():
        return
    # A value holds until the next; the line breaks if none came for long.
    times, shown = film.tape.times[known], values[known]
    breaks = _long_gaps(times) + 1
    ax.plot(
        np.insert(times, breaks, np.nan), np.insert(shown, breaks, np.nan),
        color=style.ink().lines[0], lw=1, drawstyle="steps-post",
    )  # fmt: skip
    low, high = float(shown.min()), float(shown.max())
    room = (high - low or 1.0) * 0.12
    ax.set_ylim(low - room, high + room)
    if kind_of(signal).has_words:
        _name_choices(times, shown, signal, ax)
        return
    for value, place, side in ((high, 1.0, "top"), (low, 0.0, "bottom")):
        ax.annotate(
            f"{value:g}" + (f" {signal.unit}" if signal.unit and side == "top" else ""),
            (1.006, place), xycoords="axes fraction", color=style.ink().faint, fontsize=7.5,
            va=side, annotation_clip=False,
        )  # fmt: skip


def _name_choices(times: Array, values: Array, signal: Signal, ax: Axes) -> None:
    """Write the word of a choice at the time when it begins."""
    changes = np.flatnonzero(np.diff(values, prepend=np.nan))
    for place in changes.tolist():
        value = float(values[place])
        is_high = value > (float(values.min()) + float(values.max())) / 2
        ax.annotate(
            kind_of(signal).word(signal, value) or "", (float(times[place]), value),
            xytext=(3, -3 if is_high else 3), textcoords="offset points",
            color=style.ink().faint, fontsize=7.5, va="top" if is_high else "bottom",
        )  # fmt: skip


def _draw_switches(film: Film, names: list[str], ax: Axes) -> None:
    ax.set_yticks([])
    ax.set_ylim(len(names), 0)
    for row, name in enumerate(names):
        values = film.tape.signals[name]
        known = ~np.isnan(values)
        on = values[known] > 0.5
        if kind_of(film.design.signals[name]).plot == "ticks":
            times = film.tape.times[known][values[known] > 0]
            ax.vlines(times, row + 0.15, row + 0.85, color=style.ink().lines[1], linewidth=1)
            continue
        ax.fill_between(
            film.tape.times[known], row + 0.85, np.where(on, row + 0.15, row + 0.85), step="post",
            color=style.ink().lines[1], linewidth=0,
        )  # fmt: skip
        name_row(ax, name, 1 - (row + 0.5) / len(names))


def _gaps(film: Film) -> list[tuple[float, float]]:
    """Where no signal at all had news for long."""
    heard = np.zeros(len(film.tape.times), bool)
    for values in film.tape.signals.values():
        heard |= ~np.isnan(values)
    times = film.tape.times[heard]
    return [(float(times[i]), float(times[i + 1])) for i in _long_gaps(times)]


def _long_gaps(times: Array) -> Array:
    """After which of the times a long silence begins."""
    steps = np.diff(times)
    usual = float(np.median(steps)) if len(steps) else 0.0
    return np.flatnonzero(steps > max(_LONG_GAP_S, _LONG_GAP_ROWS * usual))
