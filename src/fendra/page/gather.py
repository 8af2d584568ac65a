"""A design and its tape as the page needs them."""

from __future__ import annotations

import base64
from collections.abc import Sequence
from typing import Any

import numpy as np

from fendra.core.arrays import Array
from fendra.core.catalogue.leds import MICRO
from fendra.core.checks import Subject
from fendra.core.composition.record import WHY
from fendra.core.document.design import Design
from fendra.core.document.panel import PANEL
from fendra.core.document.signal import Signal as CoreSignal
from fendra.core.electric.limiter import Limit
from fendra.core.electric.loads import Loads
from fendra.core.engines.runs import runs_of
from fendra.core.engines.wasm import Balance, emit_wasm
from fendra.core.errors import PageError
from fendra.core.film import is_balanced
from fendra.core.insight.timeline import why_of_layer, why_of_scene
from fendra.core.layout import Layout
from fendra.core.layout.placing import middle_of
from fendra.core.layout.views import best_view
from fendra.core.names import counted
from fendra.core.signals.inputs import words
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.playing import clock_of, frame_count, frame_times, heard_by
from fendra.core.signals.tape import Tape
from fendra.core.toml_text import value_text
from fendra.page import data

MOST_LEDS = 40_000
"""A page shows no more: browsers would be slow, and the file large."""
WIDE_FROM = 20_000
"""LEDs painted in a frame from which on the module paints four at once."""
MOST_FRAMES = 200_000
"""Of a tape in a page: more than an hour at 50 a second."""


def look_of(subject: Subject, tape: Tape | None, label: str) -> data.Look:
    """A design without errors, and the tape that drives it, as one look of a page.

    Raises PageError if it is too large for a page, SignalError if the tape has none of its signals.
    """
    design, layout, plan = subject.design, subject.layout, subject.recorded.reasons
    if len(layout.leds) > MOST_LEDS:
        raise PageError(
            f"'{design.name}' has {len(layout.leds):,} LEDs, and a page shows {MOST_LEDS:,} at the "
            "most. Make a page of a part of it, or pictures with `fendra film`."
        )
    loads = subject.budget.loads
    shown = shown_of(subject, tape, label)
    emitted = emit_wasm(
        plan,
        is_wide=plan.painted >= WIDE_FROM,
        told=[name for name in plan.graph.roots if name.startswith(WHY)],
        supplies=_supplies_of(loads),
        balances=_balances(design, layout),
    )
    places = {key: emitted.places[key] for key in data.Memory.model_fields}
    return data.Look(
        **dict(shown),
        module=base64.b64encode(emitted.module).decode(),
        memory=data.Memory.model_validate(places),
        layers=[_layer(subject, paint.layer, paint.space) for paint in plan.paints],
        supplies=_supplies(loads),
        tape=None
        if tape is None
        else tape_data(tape.in_words_of(words(design)), plan.fed, design.rate),
    )


def shown_of(subject: Subject, tape: Tape | None, label: str) -> data.Shown:
    """The visible side of a design. tape: its values give the ends of the signals' controls."""
    design, layout = subject.design, subject.layout
    return data.Shown(
        label=label,
        name=design.name,
        about=design.about,
        rate=design.rate,
        unit_mm=layout.unit_mm,
        view=best_view(layout.leds.position, layout.leds.facing),
        leds=_leds(design, layout),
        spots=_spots(layout),
        parts=[*layout.part_names],
        lines=[data.Line(name=line.name, order=line.wire_order) for line in design.line],
        signals=[_signal(name, signal, tape) for name, signal in design.signals.items()],
        scenes=[
            data.Scene(name=scene.name, why=why_of_scene(design, i))
            for i, scene in enumerate(design.scene)
        ],
    )


def live_look_of(subject: Subject, number: int) -> data.LiveLook:
    """The same for a page of a run. It has no text of the design but names: no expressions.

    Raises PageError if there are too many LEDs.
    """
    design = subject.design
    if len(subject.layout.leds) > MOST_LEDS:
        raise PageError(f"'{design.name}' has more than {MOST_LEDS:,} LEDs, the most of a page.")
    shown = shown_of(subject, None, "")
    bare = shown.model_copy(
        update={
            "about": "",
            "signals": [
                each.model_copy(update={"of": "computed" if each.of else "", "about": ""})
                for each in shown.signals
            ],
            "scenes": [each.model_copy(update={"why": ""}) for each in shown.scenes],
        }
    )
    rows = design.panel or PANEL
    panel = [
        data.PanelRow(signal=row.signal, control=row.control, name=row.name or "")
        for row in rows
        if row.control != "scene" or design.scene
    ]
    return data.LiveLook(kind="look", **dict(bare), number=number, panel=panel)


def placed_parts(subject: Subject) -> list[data.PlacedPart]:
    """The parts that are written on lines, as an editor of places needs them."""
    design, layout = subject.design, subject.layout
    found = []
    for number, line in enumerate(design.line):
        for place, part in enumerate(line.part):
            path = ("line", number, "part", place)
            named = (part.name, f"{part.name}.")
            rows = [
                row
                for row in layout.parts
                if row.kind == "lit" and (row.name == named[0] or row.name.startswith(named[1]))
            ]
            keys = part.model_dump(mode="json", exclude_unset=True, include=PLACES)
            middle = middle_of(part, layout.unit_mm)
            if rows and part.shape == "assembly":
                own = np.concatenate([layout.leds.position[row.leds] for row in rows])
                between = (own.min(axis=0) + own.max(axis=0)) / (2 * layout.unit_mm)
                middle = tuple(np.round(between, 3).tolist())
            found.append(
                data.PlacedPart(
                    name=part.name, shape=part.shape, path=[*path], middle=[*middle],
                    spots=[
                        min((row.spots.start for row in rows), default=0),
                        max((row.spots.stop for row in rows), default=0),
                    ],
                    is_movable=part.on is None and bool(rows), written=keys,
                )
            )  # fmt: skip
    return found


PLACES = {
    "at", "turn", "start", "end", "centre", "start_angle", "end_angle", "radius", "count", "pitch",
    "per_metre", "width", "height", "columns", "rows",
}  # fmt: skip
"""Keys of places, angles and sizes."""


def tape_data(tape: Tape, fed: Sequence[str], rate: float) -> data.TapeData:
    """A tape frame by frame, as a film of it gets it. Raises SignalError, and PageError."""
    count = frame_count(tape, rate)
    if count > MOST_FRAMES:
        raise PageError(
            f"the tape '{tape.name}' is {counted(count, 'frame')} long, and a page plays "
            f"{MOST_FRAMES:,} at the most. Cut it."
        )
    times = frame_times(tape, rate)
    held, is_new = heard_by(tape, fed, times)
    courses = {
        name: data.Course(
            news=_packed(np.packbits(is_new[:, i], bitorder="little")),
            values=_packed(held[is_new[:, i], i]),
        )
        for i, name in enumerate(fed)
        if name in tape.signals
    }
    return data.TapeData(
        name=tape.name, frames=count,
        clock_ms=_words(clock_of(tape, times)),
        courses=courses,
    )  # fmt: skip


def _packed(values: Array) -> str:
    flat = np.ascontiguousarray(values)
    return base64.b64encode(flat.astype(flat.dtype.newbyteorder("<")).tobytes()).decode()


def _words(values: Any) -> str:
    return _packed(np.asarray(values).astype(np.int64).astype(np.uint32))


def _floats(values: Any) -> str:
    return _packed(np.asarray(values, np.float32))


def _leds(design: Design, layout: Layout) -> data.Leds:
    leds = layout.leds
    step = np.linalg.norm(np.diff(leds.position, axis=0), axis=1)
    step = step[(leds.part[1:] == leds.part[:-1]) & (step > 1e-6)]
    outline = [
        [[x * layout.unit_mm, y * layout.unit_mm] for x, y in line] for line in design.outline
    ]
    return data.Leds(
        count=len(leds),
        spot=_words(leds.spot),
        position=_floats(leds.position),
        facing=_floats(leds.facing),
        outline=outline,
        spacing_mm=float(np.median(step)) if len(step) else 20.0,
    )


def _spots(layout: Layout) -> data.Spots:
    return data.Spots(
        count=len(layout),
        line=_words(layout.line),
        part=_words(layout.part),
        address=_words(layout.address),
        index=_words(layout.index),
        names={str(i): name for i, name in enumerate(layout.names) if name},
    )


def _balances(design: Design, layout: Layout) -> list[Balance]:
    found = []
    for line in design.line:
        rows = layout.spots_of_line(line.name)
        if is_balanced(line) and rows.stop > rows.start:
            shares = line.led_type.white
            found.append(Balance(rows.start, rows.stop, shares, "W" in line.wire_order))
    return found


def _signal(name: str, signal: CoreSignal, tape: Tape | None) -> data.Signal:
    kind = kind_of(signal)
    is_fed = signal.of is None
    parts = [*kind.parts(signal, name)] if is_fed else []
    low, high = _ends(signal, name, tape)
    return data.Signal(
        name=name,
        kind=kind.name,
        unit=signal.unit,
        about=signal.about,
        of="" if is_fed else str(signal.of),
        parts=parts,
        low=low,
        high=high,
        step=(high - low) / 200,
        rest=min(max(kind.fallback(signal), low), high),
        words=[data.Word(word=word, number=float(n)) for word, n in signal.numbers.items()],
    )


def _ends(signal: CoreSignal, name: str, tape: Tape | None) -> tuple[float, float]:
    """The ends of a control: the signal's scale, or else the tape's extremes."""
    if signal.range is not None or signal.cells is not None:
        low, high = signal.scale or (0.0, 60.0)
    else:
        known = [each for each in (signal.on_at, signal.off_at) if each is not None]
        low, high = min([0.0, *known]), max([1.0, *(2 * each for each in known)])
        values = tape.signals.get(name) if tape is not None else None
        if values is not None and not np.isnan(values).all():
            low = min(low, float(np.nanmin(values)))
            high = max(high, float(np.nanmax(values)))
    return float(low), float(high)


def _layer(subject: Subject, number: int, space: str) -> data.Layer:
    design = subject.design
    layer = design.layer[number]
    written = {key: _written(value) for key, value in design.settings_of(layer).items()}
    written |= {"level": _written(layer.level), "cover": _written(layer.cover)}
    runs = runs_of(subject.plan.spots[space]) if len(subject.plan.spots[space]) else ()
    return data.Layer(
        number=number,
        name=layer.name,
        effect=design.effect_of(layer),
        on=_written(layer.on),
        blend=layer.blend,
        why=why_of_layer(design, number),
        scenes=[*layer.scenes],
        written=written,
        runs=[[run.first, run.end, run.place] for run in runs],
    )


def _supplies_of(loads: Loads) -> list[Limit]:
    """The LEDs that each supply feeds."""
    return [
        Limit(feeding.name, 0, tuple(s for s in loads.spans if s.line in feeding.lines))
        for feeding in loads.feedings
    ]


def _supplies(loads: Loads) -> list[data.Supply]:
    return [
        data.Supply(
            name=feeding.name,
            idle_a=float(loads.idle_ua[[*feeding.lines]].sum()) * MICRO,
            limit_a=feeding.amps if feeding.budget_a is None else feeding.budget_a,
            has_limiter=feeding.budget_a is not None,
        )
        for feeding in loads.feedings
    ]


def _written(value: object) -> str:
    """A value of a design as it is written, without the quotes of a text."""
    return value if isinstance(value, str) else value_text(value)
