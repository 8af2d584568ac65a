"""The budget of a plan: its sums, with the layers that make a film's peaks."""

from __future__ import annotations

from dataclasses import replace

from fendra.core.composition.plan import Plan
from fendra.core.electric.budget import Budget, make_budget
from fendra.core.electric.draws import Draw
from fendra.core.errors import TapeError
from fendra.core.film import Film
from fendra.core.graph.functions import lightness_to_linear
from fendra.core.graph.highest import highest
from fendra.core.graph.trace import Tracer
from fendra.core.insight.looks import layers_on


def needs_film(thing: object) -> Film | None:
    """A film as it is, or None. Raises TapeError for anything else."""
    if thing is None or isinstance(thing, Film):
        return thing
    raise TapeError(
        f"this needs a film, but got a {type(thing).__name__}. Make one: "
        "design.compile().film(tape)."
    )


def budget_of(plan: Plan, film: Film | None = None) -> Budget:
    """All electrical sums of a plan and of a film. Raises TapeError if it is not a film."""
    film = needs_film(film)
    budget = make_budget(plan.design, plan.layout, _brightest(plan), film)
    if film is None or budget.draw is None:
        return budget
    draws = [budget.draw, *(each.draw for each in budget.supplies if each.draw is not None)]
    names = layers_on(plan, film, {draw.frame for draw in draws})

    def named(draw: Draw | None) -> Draw | None:
        return draw and replace(draw, layers=names[draw.frame])

    supplies = tuple(replace(each, draw=named(each.draw)) for each in budget.supplies)
    return replace(budget, draw=named(budget.draw), supplies=supplies)


def _brightest(plan: Plan) -> float:
    """The share of light that no channel of any LED passes: of the master, or of the ceiling."""
    master, most = highest(plan.graph, "master"), plan.design.most
    found = 1.0 if master is None else master
    if isinstance(most, (int, float)):
        ceiling = lightness_to_linear(Tracer().const(float(most))).number
        found = min(found, found if ceiling is None else ceiling)
    return found
