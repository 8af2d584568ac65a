"""The native engine in a program: chosen, refused, and the same as NumPy from outside."""

from __future__ import annotations

import os
import shutil
import sys
import tempfile
import warnings
from pathlib import Path

import numpy as np
import pytest

import fendra as fd
from fendra import core
from fendra.native import engine as engine_module
from fendra.native.choose import PAYS_FROM
from fendra.system.process import COMPILER_CURE
from helpers import design, keep_in, layer, reds, tape


def test_without_a_compiler_numpy_runs_the_design_and_says_so_once(monkeypatch):
    monkeypatch.setenv("CC", "no-such-compiler")
    with pytest.warns(
        fd.EngineWarning, match="no C compiler: 'no-such-compiler', which CC names"
    ) as caught:
        program = design(layer("solid", colour="red")).compile(engine="native")
    assert len(caught) == 1
    assert COMPILER_CURE in str(caught[0].message)
    assert program.engine.name == "numpy"
    assert reds(program.frame(at=0)) == [255] * 8


@pytest.mark.posix
def test_a_compiler_that_fails_is_quoted(monkeypatch, tmp_path):
    script = tmp_path / "bad-cc"
    script.write_text("#!/bin/sh\necho 'x.c:1: error: out of cheese' >&2\nexit 1\n")
    script.chmod(0o755)
    monkeypatch.setenv("CC", f"{script} -m64")
    keep_in(monkeypatch, "cache", tmp_path)
    with pytest.warns(fd.EngineWarning, match=r"failed: x\.c:1: error: out of cheese"):
        assert design().compile(engine="native").engine.name == "numpy"
    assert not list(tmp_path.glob("fendra/native/*"))


@pytest.mark.posix
@pytest.mark.parametrize(
    ("body", "says"),
    [
        pytest.param(
            "sleep 600 & wait",
            r"'.*odd-cc' was ended: it took more than 0\.5 s\.",
            marks=pytest.mark.unix,
        ),
        (
            r"printf '\377\033]0;x\007 error: no\nmore\n' >&2; exit 1",
            r"failed: \ufffd\\x1b\]0;x\\x07 error: no\.",
        ),
        ("exit 0", r"'.*odd-cc' ended well and wrote nothing\."),
        ("kill -9 $$", r"failed: exit -9\."),
    ],
)
def test_a_compiler_that_hangs_or_says_odd_things_is_one_line(monkeypatch, tmp_path, body, says):
    script = tmp_path / "odd-cc"
    script.write_text(f"#!/bin/sh\n{body}\n")
    script.chmod(0o755)
    monkeypatch.setenv("CC", str(script))
    keep_in(monkeypatch, "cache", tmp_path)
    monkeypatch.setattr("fendra.native.compiler.LONGEST_S", 0.5)
    with pytest.warns(fd.EngineWarning, match=says) as caught:
        assert design().compile(engine="native").engine.name == "numpy"
    assert "\n" not in str(caught[0].message)


@pytest.mark.parametrize("named", ["'cc", 'cc "-O2', "''", "cc\0"])
def test_an_odd_cc_is_one_line(monkeypatch, named):
    monkeypatch.setattr(os, "environ", {**os.environ, "CC": named})
    with pytest.warns(fd.EngineWarning, match="no C compiler: ") as caught:
        assert design().compile(engine="native").engine.name == "numpy"
    assert "\n" not in str(caught[0].message)


def test_auto_compiles_what_is_large_and_nothing_else(counted_compiler):
    small, large = (
        design(layer("sweep"), layer("pulse", blend="add"), count=count).compile()
        for count in (PAYS_FROM // 2 - 1, PAYS_FROM // 2)
    )
    assert (small.engine.name, large.engine.name) == ("numpy", "native")
    assert counted_compiler() == 1


def test_auto_without_a_compiler_says_so_where_it_would_have_paid(monkeypatch):
    monkeypatch.setenv("CC", "no-such-compiler")
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        design(layer("sweep")).compile()
    assert design(layer("sweep"), count=PAYS_FROM).compile().engine.name == "wasm"
    monkeypatch.setitem(sys.modules, "wasmtime", None)  # not installed
    with pytest.warns(fd.EngineWarning, match="NumPy runs the design"):
        design(layer("sweep"), count=PAYS_FROM).compile()
    with pytest.warns(fd.EngineWarning, match=r"'wasmtime': pip install 'fendra\[wasm\]'"):
        design(layer("sweep")).compile(engine="wasm")


def test_a_film_is_played_on_what_is_quickest_for_its_frames():
    made = design(layer("sweep"))
    chosen = [made.compile(frames=frames).engine.name for frames in (0, 20, 5_000)]
    assert chosen == ["numpy", "numpy", "wasm"]


def test_an_unknown_engine_is_an_error_with_the_nearest():
    with pytest.raises(fd.EngineError, match=r"no engine 'natve'\. Did you mean 'native'"):
        design().compile(engine="natve")


@pytest.mark.parametrize("engine", ["numpy", "native", "wasm"])
def test_a_film_is_the_same_as_its_frames_and_a_reset_forgets(counted_compiler, engine):
    ride = tape(20.0, s=[None, 0.2, None, 0.9, None, None, None, 0.1, 5e12, -2.0])
    made = design(
        layer("gauge", value="s", fade_out=0.2, when="s > 0.15"),
        signals={"s": {"smooth": 0.1, "lost_after": 0.12, "fallback": 0.4}},
    )  # fmt: skip
    program = made.compile(engine=engine)
    film = program.film(ride, rate=40.0)
    parts = []
    again = program.film(ride, rate=40.0, progress=lambda done, total: parts.append((done, total)))
    assert again.rgb.tobytes() == film.rgb.tobytes()
    assert parts[-1] == (19, 19)
    program.reset()
    heard = {round(at_s, 3): news for at_s, news in ride.news()}
    for at_s, rgb in zip(film.times.tolist(), film.rgb, strict=True):
        frame = program.frame(heard.get(round(at_s, 3), {}), at=at_s)
        assert frame.rgb.tobytes() == rgb.tobytes()


def test_a_wasmtime_without_the_quick_call_gives_the_same_light(monkeypatch):
    import wasmtime._bindings

    monkeypatch.delattr(wasmtime._bindings, "wasmtime_func_call_unchecked")
    made = design(layer("gauge", value="s"), signals={"s": {}}, count=9)
    films = [
        made.compile(engine=engine).film(tape(20.0, s=[0.3, 0.9])) for engine in ("wasm", "numpy")
    ]
    assert films[0].rgb.tobytes() == films[1].rgb.tobytes()
    assert reds(made.compile(engine="wasm").frame(s=1.0, at=0)) == reds(
        made.compile().frame(s=1.0, at=0)
    )


def test_a_film_hands_over_to_frames(counted_compiler):
    """After a film, signals keep their values and age from there on, on every engine."""
    made = design(layer("gauge", value="s"), signals={"s": {"lost_after": 0.5}})
    programs = [made.compile(engine=engine) for engine in ("numpy", "native", "wasm")]
    for program in programs:
        program.film(tape(20.0, s=[0.5, 0.5, 1.0]))
    for at_s in (0.15, 0.5, 0.59, 0.61):
        first, *others = (program.frame(at=at_s).rgb for program in programs)
        assert [other.tobytes() for other in others] == [first.tobytes()] * 2
        assert np.asarray(first)[-1, 0] == (255 if at_s < 0.6 else 0)


def test_where_nothing_can_be_written_numpy_runs_the_design(
    counted_compiler, monkeypatch, tmp_path
):
    (tmp_path / "file").write_text("")
    keep_in(monkeypatch, "cache", tmp_path / "file")
    monkeypatch.setattr(tempfile, "tempdir", str(tmp_path / "not-there"))
    with pytest.warns(fd.EngineWarning, match="compiled code cannot be kept or loaded"):
        program = design(layer("solid")).compile(engine="native")
    assert program.engine.name == "numpy"


def test_another_compiler_makes_another_library(counted_compiler, monkeypatch):
    made = design(layer("pulse"), count=3)
    made.compile(engine="native")
    monkeypatch.setenv("CC", f"{os.environ['CC']} -DNOTHING")
    assert made.compile(engine="native").engine.name == "native"
    assert counted_compiler() == 2


def test_a_change_in_any_room_of_the_core_is_another_emitter(tmp_path, monkeypatch):
    """The limiter's arithmetic is in the emitted C, and its file is far from the emitter's."""
    before = engine_module.emitter_identity.__wrapped__()
    copied = tmp_path / "core"
    shutil.copytree(Path(core.__path__[0]), copied)
    monkeypatch.setattr(core, "__path__", [str(copied)])
    assert engine_module.emitter_identity.__wrapped__() == before
    limiter = copied / "electric" / "limiter.py"
    limiter.write_text(limiter.read_text().replace("RELEASE = 32", "RELEASE = 33"))
    assert engine_module.emitter_identity.__wrapped__() != before
