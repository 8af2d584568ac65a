"""Electrical plots: current over time against the limit, and the voltage along lines."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.electric.budget import Budget
from fendra.core.electric.line_budget import LineBudget
from fendra.core.electric.supply_budget import SupplyBudget
from fendra.core.errors import LayoutError
from fendra.core.names import did_you_mean
from fendra.draw import style

if TYPE_CHECKING:
    from matplotlib.axes import Axes

_COLUMNS = 1200
"""Points of a curve at most; of each stretch between them the lowest and highest are drawn."""


@style.plain_text()
def draw_current(budget: Budget, ax: Axes, supply: str | None = None) -> Axes:
    """Draw the current of a supply over a film: limiter, rating, peak and mean, and where the
    limiter acted; return the axes.

    supply: its name; the first by default. Raises LayoutError for an unknown name, or without a
    film.
    """
    each = _supply(budget, supply)
    if budget.amps is None or budget.times is None or each.draw is None:
        raise LayoutError("a current over time needs a film: give the budget a tape")
    amps = budget.amps[:, budget.supplies.index(each)]
    colours, feeding, draw = style.ink_for(ax), each.feeding, each.draw
    curve = colours.lines[0]
    times, low, high = _pooled(budget.times, amps)
    ax.fill_between(times, 0, high, color=curve, alpha=0.14, linewidth=0)
    ax.fill_between(times, low, high, color=curve, linewidth=0.8, edgecolor=curve)
    top = max(draw.peak_a * 1.25, *(a for a in (feeding.budget_a, feeding.amps) if a), 0.0)
    for limit, words in (
        (feeding.budget_a, "the limiter's budget"),
        (feeding.amps, "rated"),
    ):
        if limit:
            ax.axhline(limit, color=colours.warn, linewidth=1.0, dashes=(6, 3))
            _words(ax, 0.995, limit, f"{words} {limit:.3g} A", colours.warn, "right")
    ax.axhline(draw.mean_a, color=colours.faint, linewidth=0.9, dashes=(2, 2))
    _words(ax, 0.995, draw.mean_a, f"mean {draw.mean_a:.3g} A", colours.faint, "right")
    ax.plot([draw.at_s], [draw.peak_a], "o", color=colours.text, markersize=4)
    is_late = draw.at_s > (budget.times[0] + budget.times[-1]) / 2
    ax.annotate(
        f"{draw.peak_a:.3g} A at {draw.at_s:.4g} s", (draw.at_s, draw.peak_a),
        (-6 if is_late else 6, 5), textcoords="offset points", ha="right" if is_late else "left",
        color=colours.text, fontsize=8.5,
    )  # fmt: skip
    _draw_held(budget, feeding.name, ax, colours)
    ax.set_xlim(float(budget.times[0]), float(budget.times[-1]))
    ax.set_ylim(0, top * 1.1)
    ax.set_xlabel("time, s")
    ax.set_ylabel(f"A from {feeding.in_words}")
    return ax


def _draw_held(budget: Budget, supply: str, ax: Axes, colours: style.Ink) -> None:
    """Stretches in which the limiter held a supply's lines back, shaded."""
    share = budget.let_through.get(supply)
    if share is None or budget.times is None or share.min() >= 1:
        return
    ax.fill_between(
        budget.times, 0, 1, where=share < 1, transform=ax.get_xaxis_transform(),
        color=colours.warn, alpha=0.12, linewidth=0, step="post",
    )  # fmt: skip
    words = f"shaded: the limiter passes as little as {share.min():.0%} of the light"
    ax.annotate(
        words, (0.005, 0.985), xycoords="axes fraction", color=colours.warn, fontsize=8, va="top"
    )


def _supply(budget: Budget, name: str | None) -> SupplyBudget:
    known = [each.feeding.name for each in budget.supplies]
    if name is None:
        return budget.supplies[0]
    if name not in known:
        remedy = did_you_mean(name, known, "supplies")
        raise LayoutError(f"no line uses supply '{name}'. {remedy}")
    return budget.supplies[known.index(name)]


def _pooled(times: Floats, values: Floats) -> tuple[Floats, Floats, Floats]:
    """Times, lowest and highest values of equal stretches."""
    edges = np.unique(np.linspace(0, len(times), min(len(times), _COLUMNS) + 1).astype(int))[:-1]
    return times[edges], np.minimum.reduceat(values, edges), np.maximum.reduceat(values, edges)


@style.plain_text()
def draw_voltage(budget: Budget, ax: Axes, lines: Sequence[str] | None = None) -> Axes:
    """Draw the voltage along lines at most that the limiter allows, dotted in the film's worst
    frame; feeds are triangles, the LEDs' minimum is dashed. Return the axes.

    lines: their names; all by default. Raises LayoutError for an unknown name.
    """
    known = {each.line.name: each for each in budget.lines}
    for name in lines or ():
        if name not in known:
            remedy = did_you_mean(name, known, "lines")
            raise LayoutError(f"there is no line '{name}'. {remedy}")
    chosen = [known[name] for name in lines] if lines else [*budget.lines]
    colours = style.ink_for(ax)
    lowest = min(each.sag.lowest_v for each in chosen)
    needs = sorted({each.led.least_volts for each in chosen})
    for each in chosen:
        _curve(each, ax, colours.lines[each.number % len(colours.lines)])
    last = max(each.addresses for each in chosen) - 1
    for volts in needs:
        ax.axhline(volts, color=colours.warn, linewidth=1.0, dashes=(6, 3))
        _words(ax, 0.005, volts, f"the LEDs need {volts:g} V", colours.warn, "left")
    highest = max(each.feeding.volts for each in chosen)
    foot = max(min(lowest, needs[0]), 0.0)
    room = max(highest - foot, 0.2)
    ax.set_xlim(-0.02 * max(last, 1), 1.02 * max(last, 1))
    ax.set_ylim(max(foot - 0.1 * room, 0), highest + 0.1 * room)
    ax.set_xlabel("address on the line")
    ax.set_ylabel("V at the LED")
    ax.legend(
        loc="lower left", bbox_to_anchor=(0, 1.0), ncols=min(len(chosen), 5), frameon=False,
        fontsize=8, labelcolor=colours.text, borderaxespad=0.2,
    )  # fmt: skip
    return ax


def _curve(each: LineBudget, ax: Axes, colour: str) -> None:
    at = np.arange(each.addresses)
    label = f"{each.line.name}: lowest {max(each.sag.lowest_v, 0):.2f} V"
    ax.plot(at, np.maximum(each.sag.volts, 0), color=colour, linewidth=1.6, label=label)
    if each.worst is not None:
        ax.plot(at, each.worst.volts, color=colour, linewidth=1.1, dashes=(1, 1.5))
    fed = sorted({tap.at for tap in each.ladder.taps})
    ax.plot(fed, np.maximum(each.sag.volts[fed], 0), "^", color=colour, markersize=6)
    ax.plot([each.sag.at], [max(each.sag.lowest_v, 0)], "o", color=colour, markersize=4)


def _words(ax: Axes, x: float, y: float, words: str, colour: str, side: str) -> None:
    """Words just above a level, at one side."""
    ax.annotate(
        words, (x, y), (0, 2), xycoords=("axes fraction", "data"), textcoords="offset points",
        color=colour, fontsize=8, ha=side, va="bottom",
    )  # fmt: skip
