"""Voltage along a strip: a ladder of resistors, a constant current drawn at each rung.

Plus and ground run side by side and carry the same current, so each stretch counts with the
resistance of both, there and back.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from fendra.core.arrays import Floats, Ints

MOST_PLACES = 150
"""Rungs at which further taps are tried."""
MOST_RUNGS = 600
"""Rungs that a search looks at; of a longer ladder some in a row count as one."""
MOST_CHOICES = 128
"""Choices of taps that are followed at a time, of those that are good at one drop or another."""
MOST_TAPS = 12
"""At most this many more taps are suggested; nobody would build more."""
BISECTIONS = 10

LEAST_OHM = 1e-5
"""Resistances below this count as none: half a millimetre of wire."""


@dataclass(frozen=True)
class Tap:
    """A place that power enters. at: the rung, from 0. ohm: of its lead, there and back."""

    at: int
    ohm: float


@dataclass(frozen=True)
class Ladder:
    """A strip of k rungs.

    volts: of the supply. ohm: (k - 1,) of each stretch, from rung to rung, there and back.
    taps: at least one.
    """

    volts: float
    ohm: Floats
    taps: tuple[Tap, ...]

    def __len__(self) -> int:
        return len(self.ohm) + 1

    def drop(self, load_a: Floats) -> Floats:
        """The voltage drop at each rung, in volts: (..., k), from loads (..., k) in A.

        With one tap the current in each stretch is the sum of what lies beyond. With several, the
        conductance matrix is solved, which is banded and positive definite (Kirchhoff's current law
        at each rung).

        >>> ladder = Ladder(5.0, np.array([0.1]), (Tap(0, 0.2),))
        >>> ladder.drop(np.array([0.0, 1.0])).round(6).tolist()
        [0.2, 0.3]
        """
        if len(self.taps) == 1:
            return self._drop_from(self.taps[0], np.asarray(load_a, np.float64))
        if len(self) == 1:  # all taps are at the one rung
            siemens = sum(1.0 / max(tap.ohm, LEAST_OHM) for tap in self.taps)
            return np.asarray(load_a, np.float64) / siemens
        from scipy.linalg import solveh_banded  # a fifth of a second to import

        stretch = 1.0 / np.maximum(self.ohm, LEAST_OHM)
        banded = np.zeros((2, len(self)))
        banded[1, :-1] += stretch
        banded[1, 1:] += stretch
        banded[0, 1:] = -stretch
        for tap in self.taps:
            banded[1, tap.at] += 1.0 / max(tap.ohm, LEAST_OHM)
        flat = np.asarray(load_a, np.float64).reshape(-1, len(self))
        return np.asarray(solveh_banded(banded, flat.T).T.reshape(np.shape(load_a)))

    def _drop_from(self, tap: Tap, load_a: Floats) -> Floats:
        """The drops where all comes from one tap."""
        ohm, at = np.maximum(self.ohm, LEAST_OHM), tap.at
        through = np.cumsum(load_a, axis=-1)  # to the left of each stretch
        total = through[..., -1:]
        left = ohm[:at] * through[..., :at]
        right = ohm[at:] * (total - through[..., at:-1])
        from_tap = [
            np.cumsum(left[..., ::-1], axis=-1)[..., ::-1],
            np.zeros_like(total),
            np.cumsum(right, axis=-1),
        ]
        return np.asarray(np.concatenate(from_tap, axis=-1) + max(tap.ohm, LEAST_OHM) * total)

    def volts_at(self, load_a: Floats) -> Floats:
        """The voltage of each rung: (..., k)."""
        return np.asarray(self.volts - self.drop(load_a))

    def tap_a(self, load_a: Floats) -> Floats:
        """The current through each tap's lead, in amperes: (..., taps)."""
        drop = self.drop(load_a)
        leads = np.array([max(tap.ohm, LEAST_OHM) for tap in self.taps])
        return np.asarray(drop[..., [tap.at for tap in self.taps]] / leads)

    def flow_a(self, load_a: Floats) -> Floats:
        """The current through each stretch, to the right above 0, in amperes: (..., k - 1)."""
        return np.asarray(np.diff(self.drop(load_a), axis=-1) / np.maximum(self.ohm, LEAST_OHM))

    def with_taps(self, places: Sequence[int], ohm: float) -> Ladder:
        """The same ladder, fed at more places, each through a lead of this resistance, there and
        back.
        """
        return replace(self, taps=(*self.taps, *(Tap(place, ohm) for place in places)))


def _shortened(ladder: Ladder, load_a: Floats) -> tuple[Ladder, Floats, Ints]:
    """A ladder with at most `MOST_RUNGS` rungs, each for several in a row of a longer one; its
    loads, and the rung of each original rung.
    """
    edges = np.unique(np.rint(np.linspace(0, len(ladder), MOST_RUNGS + 1)).astype(np.int64))
    middle = (edges[:-1] + edges[1:] - 1) // 2
    way = np.concatenate([[0.0], np.cumsum(ladder.ohm)])
    near = np.searchsorted(edges, [tap.at for tap in ladder.taps], side="right") - 1
    taps = tuple(replace(t, at=int(at)) for t, at in zip(ladder.taps, near, strict=True))
    short = Ladder(ladder.volts, np.diff(way[middle]), taps)
    return short, np.add.reduceat(np.asarray(load_a, np.float64), edges[:-1]), middle


def extra_taps(
    ladder: Ladder, load_a: Floats, least_volts: float, lead_ohm: float
) -> tuple[int, ...] | None:
    """The fewest further taps that keep every rung at a voltage, each through the same lead.

    load_a: (k,) A. lead_ohm: of each new lead, there and back. Above `MOST_PLACES` rungs only so
    many evenly spaced ones are tried. Up to as many, of the choices of so few taps it is the one
    that keeps the lowest voltage highest, to a thousandth of the drop. None if more than
    `MOST_TAPS` would be needed, or even a tap at every rung does not do it.

    >>> ladder = Ladder(5.0, np.full(9, 0.1), (Tap(0, 0.0),))
    >>> extra_taps(ladder, np.full(10, 0.2), 4.8, 0.0)
    (6,)
    """
    most = ladder.volts - least_volts
    if most >= 0 and ladder.drop(load_a).max() <= most:
        return ()
    if len(ladder) > MOST_RUNGS:
        short, loads, stands_for = _shortened(ladder, load_a)
        for share in (1.0, 0.98, 0.95, 0.9):  # what lies between rungs falls a little lower
            found = extra_taps(short, loads, ladder.volts - share * most, lead_ohm)
            exact = tuple(int(stands_for[at]) for at in found or ())
            if found and ladder.with_taps(exact, lead_ohm).drop(load_a).max() <= most:
                return exact
        return None
    places = np.unique(np.rint(np.linspace(0, len(ladder) - 1, MOST_PLACES)).astype(int)).tolist()
    if most <= 0 or ladder.with_taps(places, lead_ohm).drop(load_a).max() > most:
        return None
    search = _Search(ladder, np.asarray(load_a, np.float64), places, lead_ohm)
    found = search.fewest(most, min(len(places), MOST_TAPS))
    if found is None:
        return None
    low, high = 0.0, most
    for _ in range(BISECTIONS if len(ladder) <= MOST_PLACES else 0):
        middle = (low + high) / 2
        better = search.fewest(middle, len(found))
        if better is None:
            low = middle
        else:
            found, high = better, middle
    return found


@dataclass(frozen=True, slots=True)
class _Choices:
    """The current that m choices of taps so far can send on to the right; a row each.

    If the voltage drop here is `drop` volts, a choice sends slope * drop - need amperes. It allows
    a drop of at most `most`; beyond it an earlier rung would be below its voltage. path: the place
    of its newest tap in the list of taps, -1 for none.
    """

    slope: Floats
    need: Floats
    most: Floats
    path: Ints

    def __len__(self) -> int:
        return len(self.slope)

    def only(self, rows: Any) -> _Choices:
        return _Choices(self.slope[rows], self.need[rows], self.most[rows], self.path[rows])

    def unbeaten(self) -> _Choices:
        """The choices that no other one beats: a better one allows as much drop, and sends as much
        at any drop.
        """
        sent = self.slope[:, None] * self.most - self.need[:, None]
        beats = (
            (self.most[:, None] >= self.most)
            & (self.need[:, None] <= self.need)
            & (sent >= np.diagonal(sent))
        )
        beats &= ~(beats.T & np.tri(len(self), dtype=bool))  # of two equal ones the first stays
        left = np.flatnonzero(~beats.any(axis=0))
        if len(left) > MOST_CHOICES:  # on copper that has hardly any resistance all are alike
            order = left[np.argsort(self.most[left], kind="stable")]
            left = order[np.linspace(0, len(order) - 1, MOST_CHOICES).astype(int)]
        return self.only(left)


class _Search:
    """Looks for the fewest taps, rung by rung.

    Going from left to right along the ladder, with a drop d at a rung and a current j to its right,
    a choice of taps is the straight line j = slope * d - need. A tap raises the slope, a load the
    need, and a stretch bends both. A tap that gave less than it could would only raise the drop, so
    of two lines the higher one is as good everywhere: those that another beats are dropped.
    """

    def __init__(
        self, ladder: Ladder, load_a: Floats, places: Sequence[int], lead_ohm: float
    ) -> None:
        self._ohm = [*np.maximum(ladder.ohm, LEAST_OHM).tolist(), 0.0]
        self._load_a = load_a.tolist()
        self._new = 1.0 / max(lead_ohm, LEAST_OHM)
        self._there = [0.0] * len(ladder)
        for tap in ladder.taps:
            self._there[tap.at] += 1.0 / max(tap.ohm, LEAST_OHM)
        self._places = frozenset(places)
        self._taps: list[tuple[int, int]] = []  # where, and which one came before it

    def fewest(self, most: float, at_most: int) -> tuple[int, ...] | None:
        """The fewest taps that keep the drop at `most` volts; None if `at_most` are too few."""
        self._taps.clear()
        before: dict[int, _Choices] | None = None
        for _ in range(at_most + 1):
            before, found = self._run(most, before)
            if found is not None:
                return self._trace(found)
        return None

    def _run(
        self, most: float, fewer: dict[int, _Choices] | None
    ) -> tuple[dict[int, _Choices], int | None]:
        """All choices of one tap more: what arrives at each place, and the path of one that does.

        fewer: what arrives at each place by one tap less.
        """
        arrivals: dict[int, _Choices] = {}
        none = np.zeros(0)
        here = _Choices(none, none, none, np.zeros(0, np.int64))
        if fewer is None:
            here = _Choices(np.zeros(1), np.zeros(1), np.array([most]), np.array([-1]))
        for i, ohm in enumerate(self._ohm):
            if i in self._places:
                arrivals[i] = here
                if fewer is not None and len(fewer[i]):
                    here = self._with_tap(here, fewer[i], i).unbeaten()
            if len(here) == 0:
                continue
            slope, need = here.slope + self._there[i], here.need + self._load_a[i]
            if i == len(self._ohm) - 1:
                done = np.flatnonzero(slope * here.most >= need)
                return arrivals, int(here.path[done[0]]) if len(done) else None
            bent = 1.0 + ohm * slope
            allowed = np.minimum(most, here.most * bent - ohm * need)
            here = _Choices(slope / bent, need / bent, allowed, here.path)
            if allowed.min() < 0:
                here = here.only(allowed >= 0)
        return arrivals, None

    def _with_tap(self, here: _Choices, fewer: _Choices, place: int) -> _Choices:
        """The choices here, and the choices of one tap less with a tap at this place."""
        first = len(self._taps)
        self._taps += [(place, before) for before in fewer.path.tolist()]
        return _Choices(
            np.concatenate([here.slope, fewer.slope + self._new]),
            np.concatenate([here.need, fewer.need]),
            np.concatenate([here.most, fewer.most]),
            np.concatenate([here.path, np.arange(first, len(self._taps))]),
        )

    def _trace(self, path: int) -> tuple[int, ...]:
        places = []
        while path >= 0:
            place, path = self._taps[path]
            places.append(place)
        return tuple(reversed(places))
