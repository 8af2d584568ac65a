"""What every source must do. A driver's test class inherits this and makes the source.

class TestUdp(SourceContract):
    def make(self): return UdpSource("9400")
"""

from __future__ import annotations

import time
from abc import ABC, abstractmethod
from typing import Any

import pytest

import fendra as fd
from fendra.core.layout import place
from fendra.sources import EndOfSource, Source
from helpers import design, layer, strip

SLACK_S = 3.0
"""What a machine that has much to do may take longer."""


class SourceContract(ABC):
    values = {"speed": 25.6, "rpm": 3000.0, "left": 1.0}
    """What its stand-in tells, as far as the source can hear it."""
    heard: dict[str, float] | None = None
    """What it then gives, where that is something else."""

    @abstractmethod
    def make(self) -> Source: ...

    def tell(self) -> None:  # noqa: B027 - some tell by themselves
        """Let the stand-in tell the values."""

    def disturb(self) -> bool:
        """Send the source something that makes no sense; False where nobody can."""
        return False

    @pytest.fixture
    def lit(self) -> fd.Design:
        line = [{"name": "a", "part": [strip()]}]
        return design(layer(), line=line, signals={name: {} for name in self.values})

    @pytest.fixture
    def source(self, lit):
        source = self.make()
        source.open(lit, place(lit))
        yield source
        source.close()

    def hear(self, source: Source, names: set[str], seconds: float = SLACK_S) -> dict[str, Any]:
        """What the source gives while its stand-in tells, until all of these names came."""
        found: dict[str, Any] = {}
        until_s = time.monotonic() + seconds
        while time.monotonic() < until_s and not names <= {*found}:
            self.tell()
            found |= dict(source.read(0.05))
        return found

    def test_it_says_what_it_is(self):
        assert str(self.make())

    def test_it_hears_its_stand_in(self, source):
        expected = self.values if self.heard is None else self.heard
        found = self.hear(source, {*expected})
        for name, value in expected.items():
            assert float(found[name]) == pytest.approx(value, rel=0.01, abs=0.01), name

    def test_reading_comes_back_in_time(self, source):
        start_s = time.monotonic()
        source.read(0.05)
        assert time.monotonic() - start_s < 0.05 + SLACK_S

    def test_it_closes_twice_and_opens_again(self, lit):
        source = self.make()
        source.open(lit, place(lit))
        source.close()
        source.close()
        source.open(lit, place(lit))
        try:
            source.read(0.01)
        except EndOfSource:
            pass
        finally:
            source.close()

    def test_what_makes_no_sense_is_counted_and_does_no_harm(self, source):
        if not self.disturb():
            pytest.skip("nothing can come that makes no sense")
        until_s = time.monotonic() + SLACK_S
        while not source.refused and time.monotonic() < until_s:
            source.read(0.1)
            self.disturb()
        assert source.refused > 0
        assert source.problem
        expected = self.values if self.heard is None else self.heard
        assert self.hear(source, {*expected})
