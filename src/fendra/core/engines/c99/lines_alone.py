"""A recorded design as one of its controllers has it: with the lines of that one alone."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace

import numpy as np

from fendra.core.arrays import Ints, Truths
from fendra.core.composition.plan import Plan, Step
from fendra.core.electric.limiter import Limit
from fendra.core.electric.loads import Span
from fendra.core.layout.wire import Wire


def lines_alone(plan: Plan, numbers: Collection[int]) -> Plan:
    """A plan with some lines only. All of it where these are all.

    numbers: places of lines in the design. Every LED keeps the light that it has among the others.
    A supply that feeds other lines as well grants these the part of its budget that they would
    draw of all that it feeds.
    """
    kept = [wire for wire in plan.wires if wire.number in numbers]
    if len(kept) == len(plan.wires):
        return plan
    counts = {
        wire.number: sum(stretch.count for stretch in wire.stretches if not stretch.is_dark)
        for wire in plan.wires
    }
    is_kept = np.repeat([number in numbers for number in counts], [*counts.values()])
    new_place = np.cumsum(is_kept) - 1
    masks = {space: is_kept[spots] for space, spots in plan.spots.items()}
    spots = {space: new_place[at[masks[space]]] for space, at in plan.spots.items()}
    columns = {key: values[masks[key[0]]] for key, values in plan.columns.items()}
    steps: list[Step] = []
    for step in plan.steps:
        if isinstance(step, Limit):
            limit = _limit(step, is_kept, new_place)
            steps += [limit] if limit.spans else []
        elif not isinstance(step, Wire) or step.number in numbers:
            steps.append(step)
    return replace(
        plan, spots=spots, columns=columns, spot_count=int(is_kept.sum()), steps=tuple(steps)
    )


def _limit(
    limit: Limit, is_kept: Truths, new_place: Ints
) -> Limit:  # fmt: skip
    """A supply's budget for the remaining lines that it feeds."""
    spans = []
    for span in limit.spans:
        places = new_place[span.first : span.end][is_kept[span.first : span.end]]
        if len(places):
            spans.append(replace(span, first=int(places[0]), end=int(places[-1]) + 1))
    before, after = (sum(map(_full_ua, each)) for each in (limit.spans, spans))
    return replace(limit, most=limit.most * after // before, spans=tuple(spans))


def _full_ua(span: Span) -> int:
    return (span.end - span.first) * span.full_ua
