"""Jobs: small designs as makers write them, each with a short tape, run by every engine.

A file has a `DESIGN`, as it would stand in its TOML file, and a `TAPE`, as in its CSV file. Its tests
say in words what the maker expects, worked out by hand from the docs; they ask `seen`.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import pytest

import fendra as fd


@dataclass(frozen=True)
class Seen:
    """What a design showed over its tape."""

    film: fd.Film

    def bytes(self, at_s: float, part: str) -> np.ndarray:
        """The bytes of a part at a time: (LEDs, 3)."""
        return self.film.frame(at_s).part(part).astype(int)

    def rgb(self, at_s: float, part: str, led: int = 0) -> list[int]:
        """The bytes of one LED."""
        return self.bytes(at_s, part)[led].tolist()

    def lit(self, at_s: float, part: str) -> str:
        """A part at a time: # for each LED that is lit, . for each dark one."""
        return "".join("#" if led.any() else "." for led in self.bytes(at_s, part))

    def count(self, at_s: float, part: str) -> int:
        """How many LEDs of a part are lit."""
        return self.lit(at_s, part).count("#")

    def course(self, part: str, led: int = 0, channel: int = 0) -> np.ndarray:
        """One byte in every frame."""
        return self.film.part(part)[:, led, channel].astype(int)

    def flashes(self, part: str, led: int = 0) -> list[tuple[float, float]]:
        """From when to when an LED is lit, each time."""
        on = self.film.part(part)[:, led].any(axis=1)
        edges = np.flatnonzero(np.diff(on, prepend=False, append=False))
        period_s = 1 / self.film.design.rate
        times = [round(float(self.film.times[0] + edge * period_s), 3) for edge in edges]
        return [*zip(times[::2], times[1::2], strict=True)]


@pytest.fixture(scope="module", params=["numpy", "native", "wasm"])
def seen(request, tmp_path_factory):
    """What the design of a file showed, by each engine."""
    if request.param == "native":
        request.getfixturevalue("compiler")
    folder = tmp_path_factory.mktemp("job")
    (folder / "design.toml").write_text(request.module.DESIGN)
    (folder / "tape.csv").write_text(request.module.TAPE)
    design = fd.load(folder / "design.toml")
    program = design.compile(engine=request.param)
    assert program.engine.name == request.param
    return Seen(program.film(fd.read_tape(folder / "tape.csv", design)))


@pytest.fixture(scope="module", autouse=True)
def sound(request, tmp_path_factory):
    """A job's design is one that `fendra check` has nothing to say against."""
    path = tmp_path_factory.mktemp("check") / "design.toml"
    path.write_text(request.module.DESIGN)
    found = [f for f in fd.load(path).check() if f.severity != "note"]
    assert not found, found
