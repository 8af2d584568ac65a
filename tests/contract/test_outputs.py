"""The contract, held against each shipped output."""

from __future__ import annotations

import io
import re
from pathlib import Path

import numpy as np
import pytest
from PIL import Image, ImageSequence

import fendra as fd
from contract.output_contract import OutputContract
from fendra.demo.controller import crc16, unstuff
from fendra.demo.lamp_array import Lamp, LampArrayDevice, serving
from fendra.outputs import OUTPUTS, make_output
from fendra.system.ends import far_end
from helpers import design, free_port, layer, strip


class TestMemory(OutputContract):
    def make(self):
        return make_output("memory:")


class TestSerial(OutputContract):
    @pytest.fixture(autouse=True)
    def port(self):
        self.end = far_end()
        yield
        self.end.close()

    def make(self):
        return make_output(f"serial:{self.end.address},baud=115200")

    def test_it_carries_as_much_as_the_baud_rate_allows(self, output):
        """100 LEDs: 300 bytes, with line, number, kinds, checksums, stuffing and zeros 317."""
        assert output.most_frames_hz(design(count=100)) == pytest.approx(11_520 / 317)


class TestValues(TestSerial):
    def make(self):
        return make_output(f"values:{self.end.address},baud=115200")

    def test_it_carries_as_much_as_the_baud_rate_allows(self, output):
        """Two numbers: 10 bytes of head, one of news, 8 of values, 2 of checksum, 2 of stuffing."""
        made = design(layer(level="s"), signals={"s": {}, "t": {}})
        assert output.most_frames_hz(made) == pytest.approx(11_520 / 23)

    def test_it_tells_what_came_in_and_nothing_twice(self, output):
        """All that came between two sendings, the newest of each."""
        made = design(
            layer(level="s"), signals={"s": {}, "t": {}, "v": {"kind": "vector", "size": 2}}
        )
        program = made.compile()
        output.open(made)
        assert self.end.take(5.0) == b"\0"
        output.hear({"s": 0.25, "t": 1})
        output.hear({"s": 0.5, "v[1]": -2.0})
        output.send(program.frame())
        packet = self.end.take(5.0)
        content = unstuff(packet[:-1])
        assert (content[0], content[3], content[10]) == (0x15, 255, 0b1011)
        assert np.frombuffer(content[11:23], "<f4").tolist() == [0.5, 1.0, -2.0]
        assert content[23:] == crc16(content[:23]).to_bytes(2, "little")
        output.send(program.frame())
        output.hear({"t": 0.0})
        output.send(program.frame())
        content = unstuff(self.end.take(5.0)[:-1])
        assert (content[10], len(content)) == (0b10, 17)


class TestNull(OutputContract):
    def make(self):
        return make_output("null:")


class TestSacn(OutputContract):
    def make(self):
        return make_output(f"sacn:127.0.0.1:{free_port()}")


class InFolder(OutputContract):
    @pytest.fixture(autouse=True)
    def folder(self, tmp_path, monkeypatch):
        monkeypatch.chdir(tmp_path)
        Path("spi").write_bytes(b"")


class TestSpi(InFolder):
    def make(self):
        return make_output("spi:spi")


class TestGif(InFolder):
    def make(self):
        return make_output("gif:look.gif,seconds=1")

    def test_it_writes_what_the_first_seconds_showed(self, output, lit):
        """50 frames a second for 1.5 s: one second of 20 pictures."""
        program = lit.compile()
        with output:
            output.open(lit)
            for i in range(75):
                output.send(program.frame(at=i / 50))
        with Image.open("look.gif") as picture:
            assert 19 <= sum(1 for _ in ImageSequence.Iterator(picture)) <= 21


class TestFilm(InFolder):
    def make(self):
        return make_output("film:run.npz")

    @pytest.mark.parametrize("name", ["run.npz", "run.raw"])
    def test_it_holds_every_frame(self, lit, name):
        program = lit.compile()
        frames = [program.frame(at=i / 50) for i in range(5)]
        with make_output(f"film:{name}") as output:
            output.open(lit)
            for frame in frames:
                output.send(frame)
        expected = b"".join(frame.rgb.tobytes() for frame in frames)
        if name.endswith(".npz"):
            with np.load(name) as film:
                assert film["times"].tolist() == [0.0, 0.02, 0.04, 0.06, 0.08]
                assert film["rgb"].tobytes() == expected
        else:
            assert Path(name).read_bytes() == expected


class TestTerminal(OutputContract):
    def make(self):
        output = make_output("terminal:,columns=20,rows=4,rate=60")
        output._stream = io.StringIO()
        return output

    def test_each_led_is_a_block_of_its_colour_where_it_is(self, output):
        """Eight red LEDs in a row from left to right, and nothing above or below."""
        made = design(layer(colour="red"))
        output.open(made)
        output.send(made.compile().frame())
        output.close()
        text = output._stream.getvalue()
        rows = re.sub(r"\x1b\[[0-9;?]*[a-zA-Z]|\x1b[78]", "", text).split("\r\n")
        lit = [row for row in rows if row.strip()]
        assert len(lit) == 1
        assert re.fullmatch(r" *([▀▄] *){8}", lit[0])
        assert text.startswith("\x1b[?1049h")
        assert text.endswith("\x1b[?1049l")

    def test_without_a_terminal_it_says_so(self, lit):
        with pytest.raises(fd.OutputError, match="no terminal to draw in"):
            make_output("terminal:").open(lit)


class TestLamps(OutputContract):
    @pytest.fixture(autouse=True)
    def device(self):
        self.stand_in = LampArrayDevice([Lamp(i * 9000, 0, 0) for i in range(8)])
        with serving(self.stand_in) as self.address:
            yield
        assert self.stand_in.wrong == []

    def make(self):
        return make_output(f"lamps:{self.address}")


def test_every_output_is_held_to_the_contract():
    held = {kind.__name__.removeprefix("Test").lower() for kind in every(OutputContract)}
    assert {*OUTPUTS} <= held


def every(kind):
    return {kind, *(sub for child in kind.__subclasses__() for sub in every(child))}


@pytest.mark.parametrize("text", ["memory:,controller=rear", "memory:,lines=b"])
def test_an_output_takes_the_lines_of_one_controller_or_those_that_are_named(text):
    lines = [
        {"name": name, "controller": controller, "part": [strip(f"{name}-bar", count)]}
        for name, controller, count in (("a", "front", 3), ("b", "rear", 5))
    ]
    made = design(layer(), line=lines, controllers={"front": {}, "rear": {}})
    with make_output(text) as output:
        output.open(made)
        assert output.wire.sizes == [15]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("seriall:/dev/x", "Did you mean 'serial'"),
        ("serial:/dev/x,speed=3", "there is no option 'speed' here"),
        ("serial:/dev/x,fast", "output 'serial' has no option 'fast'; it has"),
        (
            "serial:/dev/x,baud=fast",
            r'baud: this must be a whole number; you wrote "fast"\. .*as in: serial:/dev/ttyUSB0',
        ),
        ("serial:/dev/x,baud=0", r"baud: 0 is out of range\."),
        ("serial:", "address: this is empty. .*as in: serial:/dev/ttyUSB0"),
        ("memory:,x=1", "The options are: controller, lines"),
        ("terminal:behind", "address"),
    ],
)
def test_a_wrong_output_is_said_with_the_cure(text, says):
    with pytest.raises(fd.OutputError, match=says):
        make_output(text)
