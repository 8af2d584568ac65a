"""Layers: will they ever be seen?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.findings import Report


@check(stops=False)
def dark_layers(subject: Subject, report: Report) -> None:
    """Layers that cannot show: never on, at level 0, or on no LED."""
    for i, layer in enumerate(subject.design.layer):
        choice = subject.choices.get(layer.on)
        if choice is not None and len(choice.spots) == 0:
            message = f"'{layer.on}' has no LEDs, so this layer never shows."
            report.warning(
                ("layer", i, "on"), "never-shows", message, "Look at it with `fendra map`."
            )
        if layer.level == 0:
            message = "the level is 0, so this layer never shows."
            report.warning(("layer", i, "level"), "never-shows", message, "Raise the level.")
        if layer.cover == 0 and not layer.hides_below:
            message = "the cover is 0, so this layer never shows."
            report.warning(("layer", i, "cover"), "never-shows", message, "Raise the cover.")
        if layer.hides_below and layer.blend != "over":
            message = f"`hides_below` does nothing with blend '{layer.blend}'."
            remedy = "Use blend = 'over', or leave it out."
            report.warning(("layer", i, "hides_below"), "no-effect", message, remedy)
    nodes = subject.plan.graph.nodes
    for paint in subject.plan.paints:
        if nodes[paint.on].op == "const" and nodes[paint.on].payload == (False,):
            message = "the condition can never hold, so this layer never shows."
            path = ("layer", paint.layer, "when")
            report.warning(path, "never-shows", message, "Change or remove `when`.")


COVERING = frozenset({"solid", "gradient", "pattern", "hue-drift", "wave", "cloud"})
"""Effects that cover all that is beneath them."""


@check(stops=False)
def hidden_layers(subject: Subject, report: Report) -> None:
    """Layers under one that always covers all their LEDs."""
    spots = {name: frozenset(choice.spots.tolist()) for name, choice in subject.choices.items()}
    design = subject.design
    for place, i in enumerate(design.painted):
        below = design.layer[i]
        for above in (design.layer[j] for j in design.painted[place + 1 :]):
            is_whole = design.effect_of(above) in COVERING and above.cover == 1.0
            always = above.when is True and above.blend == "over" and not above.scenes
            always = always and (is_whole or above.hides_below)
            if always and spots.get(below.on, {-1}) <= spots.get(above.on, frozenset()):
                message = f"layer '{above.name}' always covers this one."
                report.warning(("layer", i), "never-shows", message, "Put this one after it.")
                break


@check(stops=False)
def unlit_parts(subject: Subject, report: Report) -> None:
    """Parts that no layer lights."""
    lit = {
        spot
        for layer in subject.design.layer
        if layer.on in subject.choices
        for spot in subject.choices[layer.on].spots.tolist()
    }
    for part in subject.layout.parts:
        if part.kind == "lit" and lit.isdisjoint(range(part.spots.start, part.spots.stop)):
            message = f"no layer lights part '{part.name}'."
            report.note(part.path, "unlit", message, "Add a layer on it.")
