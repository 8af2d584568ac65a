"""A net below everything: what nobody expected is told once, with what to send, and the light goes on."""

from __future__ import annotations

import time

import pytest

import fendra as fd
from fendra.core.checks import CHECKS, Check
from fendra.live import reload as reload_module
from fendra.live.connect import Connected
from fendra.live.reload import Reloader
from fendra.live.session import Session
from fendra.outputs.memory import MemoryOutput
from fendra.sources import Polled, Source
from helpers import design, layer, until

FAULT = ": ZeroDivisionError: division by zero at test_net.py:"


def fail(*_):
    return 1 / 0


class Odd(Source):
    """A source that fails where it is told to."""

    def __init__(self, where):
        super().__init__("")
        self.where = where

    def _fail(self, where):
        if where == self.where:
            fail()

    def _open(self, design, layout):
        self._fail("open")

    def _read(self, wait_s):
        self._fail("read")
        time.sleep(0.01)
        return [("s", 1)]

    def _close(self):
        self._fail("close")

    def say(self, name, value):
        self._fail("say")
        return True


class OddOutput(MemoryOutput):
    def _send(self, frame):
        if self.options.address == "send":
            fail()
        super()._send(frame)

    def finish(self):
        if self.options.address == "finish":
            fail()


class OddTape(Polled):
    def news(self, at_s):
        return {"s": fail()}


def ran(for_s=1.2, **connected):
    made = design(layer(level="s"), signals={"s": {}}, rate=50.0)
    told, good = [], MemoryOutput()
    connected.setdefault("outputs", {})["good"] = good
    session = Session(made.compile(), Connected(**connected), tell=told.append, for_s=for_s)
    session.run()
    return [text for text in told if FAULT in text], good, session


@pytest.mark.parametrize("where", ["open", "read", "say"])
def test_a_source_that_fails_anywhere_is_told_once(where):
    told, good, _ = ran(sources={"odd": Odd(where)})
    assert len(told) == 1
    assert "internal error" in told[0]
    assert "Please report it: send this line" in told[0]
    assert good.sent > 30


@pytest.mark.parametrize("where", ["send", "finish"])
def test_an_output_that_fails_anywhere_is_told_once(where):
    told, good, session = ran(outputs={"odd": OddOutput(where)})
    assert len(told) == 1
    assert good.sent > 30
    assert bool(session.senders[0].loss) == (where == "finish")


def test_a_tape_that_fails_ends_the_run_as_its_end_does():
    told, good, _ = ran(for_s=30, polled={"odd": OddTape("")})
    assert len(told) == 1
    assert good.sent > 0


def test_a_check_that_fails_is_a_finding_and_the_others_are_there(monkeypatch):
    monkeypatch.setitem(CHECKS._things, "odd", Check(fail, stops=True))
    found = design(layer(), signals={"nobody": {}}).check()
    assert [f.severity for f in found if FAULT in f.message] == ["warning"]
    assert any("nobody" in str(f) for f in found)
    design(layer()).compile()


def test_the_watcher_of_the_design_outlives_a_fault(tmp_path, monkeypatch):
    path = tmp_path / "a.toml"
    text = fd.demo_file("bare.toml").read_text(encoding="utf-8")
    path.write_text(text, encoding="utf-8")
    told, used = [], []
    loaded = fd.load(path)
    reloader = Reloader(
        path, loaded.examined, used.append, told.append, engine=lambda _: loaded.compile().engine
    )
    real, faults = reload_module.check_file, iter([True])
    monkeypatch.setattr(
        reload_module,
        "check_file",
        lambda *a, **k: fail() if next(faults, False) else real(*a, **k),
    )
    reloader.start()
    path.write_text(f"{text}\n# one\n", encoding="utf-8")
    until(lambda: told, "it is told")
    assert told[0].startswith(
        "The old design keeps running. internal error in a.toml: ZeroDivisionError"
    )
    path.write_text(f"{text}\n# another\n", encoding="utf-8")
    until(lambda: used, "it is used")
    reloader.stop()
