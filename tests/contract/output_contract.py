"""What every output must do. A driver's test class inherits this and makes the output.

class TestMemory(OutputContract):
    def make(self): return MemoryOutput()
"""

from __future__ import annotations

from abc import ABC, abstractmethod

import pytest

import fendra as fd
from fendra.outputs import Output
from helpers import design, layer


class OutputContract(ABC):
    @abstractmethod
    def make(self) -> Output: ...

    @pytest.fixture
    def output(self):
        output = self.make()
        yield output
        output.close()

    @pytest.fixture
    def lit(self) -> fd.Design:
        return design(layer())

    def test_it_says_what_it_is(self, output):
        assert str(output)

    def test_it_counts_what_it_sends(self, output, lit):
        output.open(lit)
        program = lit.compile()
        for _ in range(3):
            output.send(program.frame())
        assert output.sent == 3

    def test_it_refuses_frames_while_it_is_closed(self, output, lit):
        with pytest.raises(fd.OutputError, match="not open"):
            output.send(lit.compile().frame())

    def test_it_closes_twice_and_at_the_end_of_a_with_block(self, output, lit):
        with output:
            output.open(lit)
            assert output.is_open
        assert not output.is_open
        output.close()

    def test_it_says_how_much_it_carries(self, output, lit):
        most_hz = output.most_frames_hz(lit)
        assert most_hz is None or most_hz > 0
