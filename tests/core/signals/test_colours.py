"""Colours that come in live: each is the light of that colour written in the layer."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.graph.functions import nearest, to_uint
from fendra.core.graph.ops import Kind
from fendra.core.light.colours import heard_colour, pack_colour, parse_colour
from fendra.native.engine import NativeEngine
from helpers import design, layer
from strategies import examples

LIVE = {"t": {"kind": "colour"}}


def live_light(engine, colour):
    engine.reset()
    light, _ = engine.light(0, {"t": float(colour)})
    return light[:, 0].tobytes()


@pytest.fixture(scope="module")
def live():
    """A design whose one layer has the colour of a signal."""
    return design(layer(colour="t"), count=1, signals=LIVE)


def check_all_bits(engine):
    @examples(400)
    @given(st.integers(0, 0xFFFFFF))
    def is_the_same(colour):
        written = np.array(parse_colour(f"#{colour:06x}"), np.float32)
        assert live_light(engine, colour) == written.tobytes(), f"#{colour:06x}"

    is_the_same()


def test_any_colour_of_24_bits_comes_in_as_it_is_written(live):
    check_all_bits(live.compile(engine="numpy").engine)


def test_any_colour_of_24_bits_comes_in_as_it_is_written_in_c(live, compiler):
    check_all_bits(NativeEngine(live.compile(engine="numpy").plan))


def test_every_value_of_each_channel_comes_in_as_it_is_written(live):
    """All of 256 levels of each channel, beside odd ones of the others."""
    engine = NumpyEngine(live.compile(engine="numpy").plan)
    for level in range(256):
        for colour in ((level, 255, 1), (129, level, 255), (255, 3, level)):
            written = np.array(parse_colour("#{:02x}{:02x}{:02x}".format(*colour)), np.float32)
            assert live_light(engine, pack_colour(*colour)) == written.tobytes()


@pytest.mark.parametrize(
    ("text", "rgb"),
    [
        ("magenta", (255, 0, 255)), ("  Magenta ", (255, 0, 255)), ("DarkOrange", (255, 140, 0)),
        ("dark orange", (255, 140, 0)), ("rebeccapurple", (102, 51, 153)), ("#f0f", (255, 0, 255)),
        ("#8000ff", (128, 0, 255)), ("#8000FF", (128, 0, 255)), ("0x8000ff", (128, 0, 255)),
        ("0X8000FF", (128, 0, 255)), ("8000ff", (128, 0, 255)), ("001122", (0, 17, 34)),
        ("112233", (17, 34, 51)), ("255,0,255", (255, 0, 255)), (" 1, 20 ,255 ", (1, 20, 255)),
        ("off", (0, 0, 0)), (" OFF", (0, 0, 0)), ("8388863", (128, 0, 255)),
    ],
)  # fmt: skip
def test_a_colour_is_understood_however_it_is_written(text, rgb, tmp_path):
    """In a call, on a tape, on the command line: all of them alike."""
    made = design(layer(colour="t"), count=1, signals=LIVE)
    written = (
        design(layer(colour="#{:02x}{:02x}{:02x}".format(*rgb)), count=1).compile().frame().rgb
    )
    assert made.compile().frame(t=text).rgb.tolist() == written.tolist()
    path = tmp_path / "colours.csv"
    path.write_text(f'time,t\n0,"{text}"\n1,\n')
    tape = fd.read_tape(path, made)
    assert tape.signals["t"][0] == pack_colour(*rgb)
    assert made.compile().film(tape).rgb[0].tolist() == written.tolist()


@pytest.mark.parametrize(
    "text", ["256,0,0", "0,0,256", "1,2", "1,2,3,4", "#ff", "#ff00f", "puce", "-1", ""]
)
def test_what_is_no_colour_says_how_one_is_written(text):
    with pytest.raises(fd.SignalError, match=r"needs a colour.*0 ?x|#rrggbb.*got"):
        design(layer(colour="t"), signals=LIVE).compile().frame(t=text)


def test_no_number_is_no_news_of_a_colour(tmp_path):
    program = design(layer(colour="t"), count=1, signals=LIVE).compile()
    program.frame(t="lime", at=0)
    assert program.frame(t=float("nan"), at=1).rgb.tolist() == [[0, 255, 0]]
    path = tmp_path / "gap.csv"
    path.write_text("time,t\n0,lime\n1,nan\n2,NaN\n3,\n")
    assert (
        np.isnan(fd.read_tape(path, design(signals=LIVE)).signals["t"]).tolist()
        == [False] + [True] * 3
    )


def test_a_tape_shows_the_first_few_cells_that_are_no_colours(tmp_path):
    path = tmp_path / "bad.csv"
    path.write_text("time,t\n0,red\n1,puce\n2,#12345\n3,puce\n4,16777216\n5,blue\n")
    with pytest.raises(fd.TapeError) as caught:
        fd.read_tape(path, design(signals=LIVE))
    said = str(caught.value)
    assert "rows 3, 4, 5, 6: column 't' has no colour there" in said
    assert "'puce', '#12345', '16777216'" in said
    assert "#rrggbb, 0xrrggbb, three numbers as 255,138,0, a CSS name, or off" in said


def test_a_tape_shows_the_first_few_cells_that_are_no_numbers(tmp_path):
    path = tmp_path / "bad.csv"
    path.write_text("time,speed\n0,a\n1,b\n2,3\n3,c\n4,d\n5,e\n6,f\n")
    with pytest.raises(fd.TapeError, match=r"\('a', 'b', 'c', 'd', 'e', \.\.\.\)"):
        fd.read_tape(path)


def test_without_a_design_a_column_of_digits_is_numbers_and_of_letters_colours(tmp_path):
    path = tmp_path / "some.csv"
    path.write_text('time,speed,glow\n0,112233,"255,138,0"\n1,3,ff8a00\n2,000080,000080\n3,4,off\n')
    tape = fd.read_tape(path)
    assert tape.signals["speed"].tolist() == [112233, 3, 80, 4]
    assert tape.signals["glow"].tolist() == [0xFF8A00, 0xFF8A00, 0x80, 0]


def test_a_recorded_colour_is_read_back_as_it_was(tmp_path):
    """#01e240 is 123456 in one number: written so it would be read as #123456."""
    from fendra.live.recorder import Recorder

    made = design(layer(colour="t"), signals={**LIVE, "speed": {}})
    recorder = Recorder(tmp_path / "came.csv", made)
    recorder.start()
    for at, colour in enumerate((0x01E240, 0x000064, 0x8000FF)):
        recorder.hear(at, {"t": float(colour), "speed": 12.5})
    recorder.end()
    tape = fd.read_tape(tmp_path / "came.csv", made)
    assert tape.signals["t"].tolist() == [0x01E240, 0x000064, 0x8000FF]
    assert tape.signals["speed"].tolist() == [12.5] * 3


def evaluated(value):
    """A number of the graph without inputs, folded."""
    from fendra.core.graph.passes import simplify

    value.tracer.roots["result"] = value.place
    graph = simplify(value.tracer.graph())
    return graph.nodes[graph.roots["result"]].payload[0]


@pytest.mark.parametrize(
    ("number", "whole"),
    [(0.49999997, 0), (0.5, 1), (1.5, 2), (2.5, 3), (8388607.5, 8388608), (8388609.0, 8388609),
     (12582913.0, 12582913), (16777215.0, 16777215), (-0.5, 0), (-0.25, 0), (0.0, 0)],
)  # fmt: skip
def test_the_nearest_whole_number_is_exact_at_any_size(number, whole):
    from fendra.core.graph.trace import Tracer

    tracer = Tracer()
    assert evaluated(nearest(tracer.const(number))) == whole
    assert evaluated(to_uint(Tracer().lift(number, Kind.FLOAT), 2.0**24)) == whole


@pytest.mark.parametrize(
    ("text", "shown"),
    [("{s:9}", "  8388609"), ("{s:8}", " 8388609"), ("{s:6}", "999999")],
)
def test_a_long_number_is_shown_digit_by_digit(text, shown):
    """8388609 is odd and above 2**23; six digits hold 999999 at the most."""
    grid = {"name": "wall", "shape": "grid", "columns": 60, "rows": 7, "pitch": 10.0}

    def shows(text, **news):
        made = fd.Design.from_values(
            {
                "line": [{"name": "a", "part": [grid]}], "signals": {"s": {}},
                "layer": [layer("text", text=text)],
            }
        )  # fmt: skip
        return made.compile().frame(**news).rgb.tolist()

    assert shows(text, s=8388609) == shows(shown)


def test_the_grammar_of_heard_colours_takes_no_signal_for_a_colour():
    """`facade` is six hexadecimal digits: a source may send it, a design means its signal."""
    assert heard_colour("facade") == 0xFACADE
    made = design(layer(colour="facade"), count=1, signals={"facade": {"kind": "colour"}})
    assert made.compile().frame(facade="lime").rgb.tolist() == [[0, 255, 0]]
