"""The contract, held against each shipped output."""

from __future__ import annotations

import os
import tty

import pytest

import fendra as fd
from contract.output_contract import OutputContract
from fendra.outputs import OUTPUTS, make_output
from helpers import design


class TestMemory(OutputContract):
    def make(self):
        return make_output("memory:")


class TestSerial(OutputContract):
    @pytest.fixture(autouse=True)
    def port(self):
        self.ours, self.theirs = os.openpty()
        tty.setraw(self.theirs)
        yield
        os.close(self.ours)
        os.close(self.theirs)

    def make(self):
        return make_output(f"serial:{os.ttyname(self.theirs)},baud=115200")

    def test_it_carries_as_much_as_the_baud_rate_allows(self, output):
        """100 LEDs: 300 bytes, with line, number, kinds, checksums, stuffing and zeros 317."""
        assert output.most_frames_hz(design(count=100)) == pytest.approx(11_520 / 317)


def test_every_output_is_held_to_the_contract():
    assert set(OUTPUTS) == {"memory", "serial"}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("seriall:/dev/x", "Did you mean 'serial'"),
        ("serial:/dev/x,speed=3", "'speed=3' is no option"),
        ("serial:/dev/x,baud=fast", "baud and timeout are numbers"),
        ("serial:/dev/x,baud=0", "a rate above 0"),
        ("serial:", "write a port"),
        ("memory:,x=1", "it has none"),
    ],
)
def test_a_wrong_output_is_said_with_the_cure(text, says):
    with pytest.raises(fd.OutputError, match=says):
        make_output(text)
