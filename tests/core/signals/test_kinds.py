"""What every kind of signal promises, and words for truth, which are one table."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.document.signal import COMMON, Signal
from fendra.core.names import TRUTHS
from fendra.core.signals.courses import made_up
from fendra.core.signals.kinds import KINDS, kind_of
from fendra.core.signals.values import to_numbers
from fendra.files.tape_file import read_tape
from fendra.native.engine import NativeEngine
from helpers import design, layer

NEEDED = {
    "choice": {"choices": ["calm", "wild"]},
    "text": {"choices": ["hi"]},
    "vector": {"size": 2},
}
GIVEN = {
    "number": 0.3, "switch": "yes", "choice": "wild", "text": "hi", "colour": "#102030",
    "event": {"x": 4.0}, "vector": [0.25, 0.5], "picture": np.zeros((8, 3)),
}  # fmt: skip
READ = {
    "number": "s", "switch": "s", "choice": "s == 'wild'", "text": "s == 'hi'", "event": "s.x / 8",
    "vector": "s[0] + s[1]",
}  # fmt: skip
"""An expression that reads the signal; a colour and a picture are read as a colour."""


def signal(name):
    return Signal(kind=name, **NEEDED.get(name, {}))


def test_every_kind_is_tried_here():
    assert GIVEN.keys() == {*KINDS}


@pytest.mark.parametrize("name", sorted(KINDS))
def test_a_kind_feeds_the_parts_that_it_names_and_has_only_keys_that_there_are(name):
    kind = KINDS[name]
    assert kind_of(signal(name)) is kind
    parts = kind.parts(signal(name), "s")
    assert parts[0].startswith("s")
    assert {*to_numbers("s", signal(name), GIVEN[name])} == {*parts}
    assert kind.keys <= {*Signal.model_fields} - COMMON
    assert to_numbers("s", signal(name), None) == {}
    assert isinstance(kind.in_c(signal(name)), str)
    assert isinstance(kind.note(signal(name), "s", 1.0), str)
    assert isinstance(kind.fallback(signal(name)), float)


@pytest.mark.parametrize("name", sorted({*KINDS} - {"picture"}))
def test_what_makes_no_sense_to_a_kind_is_refused_with_its_name(name):
    with pytest.raises(fd.SignalError, match="'s'"):
        to_numbers("s", signal(name), object())


@pytest.mark.parametrize("name", sorted({*KINDS} - {"picture"}))
def test_a_kind_gives_the_same_bits_in_numpy_and_in_c_fed_and_lost(compiler, name):
    keys = {"colour": "s"} if name == "colour" else {"cover": READ.get(name, 1.0)}
    if (KINDS[name].is_truth and "." not in READ[name]) or "==" in READ.get(name, ""):
        keys = {"cover": f"1.0 if {READ[name]} else 0.25"}
    made = design(
        layer(**keys), signals={"s": {"kind": name, "lost_after": 0.1, **NEEDED.get(name, {})}}
    )
    plain = made.compile(engine="numpy")
    native = NativeEngine(plain.plan)
    seen = []
    for frame in range(12):
        news = to_numbers("s", signal(name), GIVEN[name]) if frame in (2, 3, 9) else {}
        light, _ = plain.engine.light(frame * 40, news)
        other, _ = native.light(frame * 40, news)
        assert light.tobytes() == other.tobytes(), frame
        seen.append(light.copy())
    assert any((light != seen[0]).any() for light in seen)


def test_a_kind_that_there_is_not_is_a_finding_and_stops_the_design():
    made = design(layer(), signals={"s": {"kind": "nmber"}})
    errors = [finding for finding in made.check() if finding.severity == "error"]
    assert [(found.code, found.path) for found in errors] == [
        ("wrong-value", ("signals", "s", "kind"))
    ]
    assert "Did you mean 'number'?" in errors[0].remedy
    with pytest.raises(fd.DesignError):
        made.compile()


@pytest.mark.parametrize("word", sorted(TRUTHS))
def test_words_for_truth_are_the_same_on_tapes_live_and_on_the_command_line(tmp_path, word):
    made = design(layer(when="left"), signals={"left": {"kind": "switch"}})
    expected = float(TRUTHS[word])
    assert to_numbers("left", made.signals["left"], word.upper()) == {"left": expected}
    assert made_up(made, sets=[f"left={word}"], duration_s=0.1).signals["left"][0] == expected
    path = tmp_path / "t.csv"
    path.write_text(f"time,left\n0,{word}\n")
    assert read_tape(path).signals["left"].tolist() == [expected]


@pytest.mark.parametrize(
    ("choices", "says"),
    [
        ([], "a text needs its words."),
        (["Ann", "Zoe"], "'who' has no word 'Zoee'. Did you mean 'Zoe'?"),
    ],
)
def test_a_word_that_a_signal_does_not_have_is_one_message(choices, says):
    """A signal without words is the one cause; what compares it is not reported again."""
    made = design(
        layer(when="who == 'Zoee'"), signals={"who": {"kind": "text", "choices": choices}}
    )
    errors = [each for each in made.check() if each.severity == "error"]
    assert len(errors) == 1
    assert says in f"{errors[0].message} {errors[0].remedy}"
