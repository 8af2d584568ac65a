"""Layers: will they ever be seen?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.composition.blends import BLENDS
from fendra.core.composition.plan import Paint
from fendra.core.findings import Report
from fendra.core.graph.node import Graph
from fendra.core.graph.passes import is_const
from fendra.core.graph.schedule import needed


@check(stops=False)
def dark_layers(subject: Subject, report: Report) -> None:
    """Layers that cannot show: never on, at level 0, or on no LED. An empty group is reported by
    itself.
    """
    groups = subject.design.groups
    for i, layer in enumerate(subject.design.layer):
        choice = subject.choices.written.get(("layer", i, "on"))
        if choice is not None and len(choice.spots) == 0 and choice.name not in groups:
            message = f"'{choice.name}' has no LEDs, so this layer never shows."
            report.warning(
                ("layer", i, "on"), "never-shows", message, "Look at it with `fendra map`."
            )
        if layer.level == 0:
            message = "the level is 0, so this layer never shows."
            report.warning(("layer", i, "level"), "never-shows", message, "Raise the level.")
        if layer.cover == 0:
            message = "the cover is 0, so this layer never shows."
            report.warning(("layer", i, "cover"), "never-shows", message, "Raise the cover.")
        blend = BLENDS.get(layer.blend)
        if layer.hides_below and blend is not None and not blend.covers:
            message = f"`hides_below` has no effect with blend '{layer.blend}'."
            remedy = "Use blend = 'over', or leave it out."
            report.warning(("layer", i, "hides_below"), "no-effect", message, remedy)
    nodes = subject.plan.graph.nodes
    for paint in subject.plan.paints:
        if is_const(nodes[paint.on], False):
            message = "the condition can never be true, so this layer never shows."
            path = ("layer", paint.layer, "when")
            report.warning(path, "never-shows", message, "Change or remove `when`.")


@check(stops=False)
def hidden_layers(subject: Subject, report: Report) -> None:
    """Layers under one that always covers all their LEDs."""
    plan, layers = subject.plan, subject.design.layer
    spots = {name: frozenset(rows.tolist()) for name, rows in plan.spots.items()}
    covering = [paint for paint in plan.paints if _always_covers(paint, plan.graph)]
    for place, below in enumerate(plan.paints):
        for above in plan.paints[place + 1 :]:
            if above in covering and spots[below.space] <= spots[above.space]:
                message = f"layer '{layers[above.layer].name}' always covers this one."
                report.warning(
                    ("layer", below.layer), "never-shows", message, "Put this one after it."
                )
                break


def _always_covers(paint: Paint, graph: Graph) -> bool:
    """Whether a layer is always on, and its light does not read the layers below."""
    if paint.scenes is not None or not is_const(graph.nodes[paint.on], True):
        return False
    return all(graph.nodes[place].op != "beneath" for place in needed(graph, [paint.light]))


@check(stops=False)
def unlit_parts(subject: Subject, report: Report) -> None:
    """Parts that no layer lights."""
    lit = {
        spot
        for path, choice in subject.choices.written.items()
        if path[0] == "layer"
        for spot in choice.spots.tolist()
    }
    for part in subject.layout.parts:
        if part.kind == "lit" and lit.isdisjoint(range(part.spots.start, part.spots.stop)):
            message = f"no layer lights part '{part.name}'."
            report.note(part.path, "unlit", message, "Add a layer on it.")
