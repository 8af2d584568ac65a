"""The page: tables and figures put into one HTML file that needs nothing else."""

from __future__ import annotations

import base64
import io
from collections.abc import Sequence
from importlib.metadata import version
from typing import TYPE_CHECKING

import numpy as np
from jinja2 import Environment, PackageLoader, StrictUndefined

from fendra.core.checks import Subject
from fendra.core.electric.budget import Budget
from fendra.core.electric.supply_budget import peak_in_words
from fendra.core.electric.words import in_amps
from fendra.core.findings import Finding
from fendra.core.layout.views import TOP, VIEWS, best_view
from fendra.core.names import ViewName
from fendra.draw import style
from fendra.draw.electric import draw_current, draw_voltage
from fendra.draw.map import draw_map
from fendra.draw.wiring import draw_wiring_figure
from fendra.sheet.steps import bench_steps
from fendra.sheet.tables import (
    data_table,
    feed_table,
    led_table,
    line_tables,
    materials,
    pin_table,
    supply_table,
)

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

MOST_DRAWN = 1500
"""LEDs up to which the map is lines; above it is a picture of dots, which is smaller."""


def make_page(subject: Subject, findings: Sequence[Finding], view: ViewName | None = None) -> str:
    """The build sheet of a design without errors, as HTML.

    findings: those of the checks, at the top. view: the side that the map shows; by default the one
    that shows most.
    """
    leds = subject.layout.leds
    view = view or best_view(leds.position, leds.facing)
    budget = subject.budget
    design = subject.design
    environment = Environment(
        loader=PackageLoader("fendra.sheet", "."),
        autoescape=True,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )
    with style.inked(style.PAPER):
        figures = _figures(subject, budget, view)
    return environment.get_template("page.html.j2").render(
        design=design,
        file=subject.plan.origin.file,
        made_with=f"Fendra {version('fendra')}",
        facts=_facts(subject, budget),
        findings=[str(finding) for finding in findings],
        figures=figures,
        seen=VIEWS[view].seen_from,
        slowest=budget.slowest,
        supplies=supply_table(budget),
        feeds=feed_table(budget),
        lines=line_tables(budget),
        leds=led_table(budget),
        data=data_table(budget),
        pins=pin_table(budget),
        materials=materials(budget),
        peaks=[peak_in_words(each) for each in budget.supplies if each.draw is not None],
        limited=[str(each) for each in (subject.film.limited() if subject.film else ())],
        tape=subject.film.tape.name if subject.film else "",
        extra=_extra(budget),
        steps=bench_steps(budget, subject.plan.origin.file or "DESIGN"),
    )


def _facts(subject: Subject, budget: Budget) -> list[tuple[str, str]]:
    peak = ("peak on the tape", in_amps(budget.draw.peak_a)) if budget.draw else None
    kept = ("as far as the limiter allows", in_amps(budget.most_a))
    facts = [
        ("LEDs", str(len(subject.layout.leds))),
        ("lines", str(len(subject.design.line))),
        ("frames a second", f"{subject.design.rate:g}"),
        ("dark", in_amps(budget.idle_a)),
        ("full white", in_amps(budget.white_a)),
        kept if budget.most_a < budget.full_a else None,
        peak,
        ("at the most", f"{budget.watts:.3g} W"),
    ]
    return [fact for fact in facts if fact is not None]


def _extra(budget: Budget) -> list[str]:
    """Where else a line needs power, at most and on the tape."""
    found = []
    for line in budget.lines:
        for when, extra in ((line.brightest, line.extra), ("this tape", line.extra_in_film)):
            volts = f"{line.led.least_volts:g} V"
            if extra is None:
                words = f"for {when} even a dozen more feeds do not keep {volts}; use thicker leads"
            elif extra:
                places = ", ".join(map(str, extra))
                words = f"for {when} feed it at LED {places} too, so that every LED gets {volts}"
            else:
                continue
            found.append(f"{line.line.name}: {words}")
    return found


def _figures(subject: Subject, budget: Budget, view: ViewName) -> dict[str, list[str]]:
    """Each kind of figure as pictures inside the page itself."""
    width, height = _map_size(subject, view)
    figure = style.new_figure((width, height))
    ax = figure.add_axes((0.9 / width, 0.55 / height, 1 - 1.0 / width, 1 - 0.9 / height))
    draw_map(subject.design, subject.layout, ax=ax, view=view)
    kind = "svg" if len(subject.layout.leds) <= MOST_DRAWN else "png"
    found = {
        "map": [_inline(figure, kind)],
        "wiring": [_inline(draw_wiring_figure(budget))],
        "voltage": [],
        "current": [],
    }
    volts = sorted({line.feeding.volts for line in budget.lines})
    for each in volts:
        names = [line.line.name for line in budget.lines if line.feeding.volts == each]
        figure, ax = _plot()
        draw_voltage(budget, ax, names)
        found["voltage"].append(_inline(figure))
    for supply in budget.supplies:
        if supply.draw is not None:
            figure, ax = _plot()
            draw_current(budget, ax, supply.feeding.name)
            found["current"].append(_inline(figure))
    return found


_MAP_WIDE, _MAP_HIGH = 10.0, 7.6


def _map_size(subject: Subject, view: ViewName) -> tuple[float, float]:
    """Width and height of the map in inches, as wide or high as the thing asks for."""
    is_outlined = VIEWS[view].depth == TOP
    outline = [point for run in subject.design.outline for point in run] if is_outlined else []
    places = VIEWS[view].flat(subject.layout.in_unit(subject.layout.leds.position))
    points = np.concatenate([places, np.array(outline, float).reshape(-1, 2)])
    width, height = np.ptp(points, axis=0) if len(points) else (1.0, 1.0)
    aspect = float(np.clip(1.1 * width / max(height, 1e-9), 0.95, 2.6))  # with room for words
    return min(_MAP_HIGH * aspect, _MAP_WIDE), min(_MAP_HIGH, _MAP_WIDE / aspect)


def _plot() -> tuple[Figure, Axes]:
    figure = style.new_figure((10.0, 3.3))
    ax = figure.add_axes((0.065, 0.14, 0.92, 0.74))
    style.dress(ax)
    return figure, ax


def _inline(figure: Figure, kind: str = "svg") -> str:
    """A figure as an address that holds it."""
    import matplotlib as mpl

    held = io.BytesIO()
    metadata = {"Date": None, "Creator": None} if kind == "svg" else {"Software": None}
    with mpl.rc_context({"svg.hashsalt": "fendra"}):
        style.write_figure(figure, held, format=kind, dpi=160, metadata=metadata)
    mime = "image/svg+xml" if kind == "svg" else "image/png"
    return f"data:{mime};base64,{base64.b64encode(held.getvalue()).decode()}"
