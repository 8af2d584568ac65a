"""Effects: the kit they are written with, and the registry of all of them.

An effect is a function of `led` (the spots: their columns and their clock) and of its
parameters, each with a default that says its unit and range. It gives a `Look`.

To add one, write a file with a function like `blink` in blink.py, marked with `@effect`.
"""

from __future__ import annotations

import inspect
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from functools import partial
from html import escape
from typing import TypeAlias, overload

from fendra.core.effects.led import Look
from fendra.core.effects.parameters import Parameter
from fendra.core.registry import Registry


@dataclass(frozen=True)
class Effect:
    """A registered effect. family: what it is for, one of `FAMILIES`."""

    name: str
    draw: Callable[..., Look]
    parameters: dict[str, Parameter]
    family: str = "own"

    def _repr_html_(self) -> str:
        """Its parameters as a table, in a notebook."""
        heads = "<th>parameter</th><th></th><th>default</th><th>unit</th><th>range</th>"
        rows = [
            f"<tr><td><code>{escape(name)}</code></td><td>{escape(item.about)}</td>"
            f"<td><code>{escape(item.default_text)}</code></td><td>{escape(item.unit)}</td>"
            f"<td>{escape(item.range_text)}</td></tr>"
            for name, item in self.parameters.items()
        ]
        about = escape(self.about).replace("\n\n", "<br>")
        table = f"<table><tr>{heads}</tr>{''.join(rows)}</table>"
        return f"<b>{escape(self.name)}</b><p>{about}</p>{table}"

    @property
    def about(self) -> str:
        """Its look, and its use."""
        return inspect.getdoc(self.draw) or ""


EFFECTS: Registry[Effect] = Registry("fendra.core.effects.builtin", "fendra.effects", "an effect")

FAMILIES = (
    "steady", "motion", "rhythm", "chance", "gauges", "direction", "events", "pictures", "field",
    "own",
)  # fmt: skip
"""The purposes of effects, in the order in which they are listed."""


def by_family(effects: Iterable[Effect]) -> list[Effect]:
    """Effects in the order in which they are listed: by their family, then by name."""
    places = {family: place for place, family in enumerate(FAMILIES)}
    return sorted(effects, key=lambda e: (places.get(e.family, len(places)), e.name))


_GATHERED: ContextVar[dict[str, Effect] | None] = ContextVar("gathered", default=None)


Draw: TypeAlias = Callable[..., Look]


@overload
def effect(draw: Draw) -> Draw: ...
@overload
def effect(*, family: str) -> Callable[[Draw], Draw]: ...
def effect(draw: Draw | None = None, *, family: str = "own") -> Draw | Callable[[Draw], Draw]:
    """Register an effect under its function's name, with - for _.

    family: what it is for, one of `FAMILIES`. Raises TypeError for a parameter without a default
    that says what it is, and ValueError if another function has registered that name.
    """
    if draw is None:
        return partial(_register, family=family)
    return _register(draw, family)


def _register(draw: Draw, family: str) -> Draw:
    given = list(inspect.signature(draw).parameters.values())[1:]
    parameters = {item.name: item.default for item in given}
    wrong = [name for name, item in parameters.items() if not isinstance(item, Parameter)]
    name = draw.__name__.replace("_", "-")
    if wrong:
        raise TypeError(
            f"effect '{name}': {wrong[0]} needs a default of number(...), colour(...), truth(...) "
            "or the like"
        )
    made = Effect(name, draw, parameters, family)
    gathered = _GATHERED.get()
    if gathered is None:
        EFFECTS.add(name, made, draw)
    else:
        gathered[name] = made
    return draw


@contextmanager
def gathering() -> Iterator[dict[str, Effect]]:
    """Effects that are marked in the block are gathered, and not registered for everybody."""
    found: dict[str, Effect] = {}
    token = _GATHERED.set(found)
    try:
        yield found
    finally:
        _GATHERED.reset(token)
