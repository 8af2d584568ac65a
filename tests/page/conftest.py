"""The page in a real browser: Chromium, without a network."""

from __future__ import annotations

from pathlib import Path

import pytest

import fendra as fd
from helpers import until


class Opened:
    """A page as a person has it before them. asked: every address that it asked for."""

    def __init__(self, browser, path: Path, address: str = "", script: str = "", **keys):
        keys = {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce", **keys}
        self.context = browser.new_context(**keys)
        self.page = self.context.new_page()
        self.page.set_default_timeout(60_000)
        self.asked, self.errors = [], []
        self.page.on("request", lambda request: self.asked.append(request.url))
        self.page.on("pageerror", lambda error: self.errors.append(str(error)))
        self.page.on("console", lambda said: said.type == "error" and self.errors.append(said.text))
        if script:
            self.page.add_init_script(script)
        self.page.goto(path.as_uri() + (f"#{address}" if address else ""))

    def ready(self):
        return self.until("globalThis.fendra?.isReady")

    def until(self, truth):
        """Wait for it. The page lets nobody make code of a text, so it is asked again and again."""
        until(lambda: self.run(f"Boolean({truth})"), truth, seconds=60)
        return self

    def run(self, text, *args):
        return self.page.evaluate(text, *args)

    def frame(self) -> bytes:
        """The bytes of the frame that is shown, read back from its module."""
        return bytes(self.run("[...fendra.first.module.rgb()]"))


@pytest.fixture
def opened(chromium):
    """Opens pages, and closes them."""
    pages = []

    def open_page(path, *args, **keys):
        pages.append(Opened(chromium, Path(path), *args, **keys))
        return pages[-1]

    yield open_page
    for each in pages:
        each.context.close()


@pytest.fixture(scope="session")
def heron(tmp_path_factory):
    """Heron, its tape, and its page."""
    design = fd.load(fd.demo_file("heron.toml"))
    tape = fd.read_tape(fd.demo_file("ride.csv"), design)
    path = design.page(tmp_path_factory.mktemp("page") / "heron.html", tape).path
    return design, tape, path


@pytest.fixture
def design_file(tmp_path):
    """Heron's file, in a folder of its own."""
    path = tmp_path / "heron.toml"
    path.write_bytes(fd.demo_file("heron.toml").read_bytes())
    return path


@pytest.fixture
def serve(tmp_path, monkeypatch):
    """Serves runs and benches, and ends them."""
    monkeypatch.setenv("FENDRA_TOKENS", str(tmp_path / "own" / "tokens.json"))
    open_ones = []

    def begin(kind, *args, **keys):
        open_ones.append(kind(*args, **keys))
        return open_ones[-1]

    yield begin
    for each in open_ones:
        each.end()
