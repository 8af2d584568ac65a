"""A newcomer's walk: what is shown is run, in a folder that `fendra demo --files` made."""

from __future__ import annotations

import contextlib
import json
import os
import re
import shlex
import signal
import socket
import subprocess
import sys
import threading
import time
from pathlib import Path
from typing import Any

import click
import pytest
import tomlkit
import typer.main

import fendra as fd
from fendra.cli.app import app
from fendra.cli.demo import next_steps
from fendra.demo import ABOUT, copy_files, demo_file
from shown import PAGES, blocks, commands, named_commands

GO_ON = {"run", "simulate", "listen"}
"""Commands that run until Ctrl-C; so does `probe` with an output or a page."""

NOT_RUN = {
    "make demo": "runs this test", "pip": "installs from a network", "git": "wants a checkout",
    ".venv-dev/bin/python": "a benchmark", ".": "a shell's own", "cd": "a shell's own",
    ".venv/bin/fendra": "wants `make demo`",
}  # fmt: skip
"""First words of commands that are shown and not run here, and why."""

HELP = typer.main.get_command(app)
PAGES_WITH_STEPS = [page for page in PAGES if blocks("sh", [page])]


@pytest.fixture
def alone(request):
    """The ports that docs name are this test's alone, and no other worker's, if it uses any."""
    given = request.node.callspec.params
    if "page" in given:
        steps = [each for block in blocks("sh", [given["page"]]) for each in commands(block)]
    else:
        steps = [shlex.split(given["text"])]
    if not any(len(words) > 1 and Walk.goes_on(words) for words in steps):
        yield
        return
    with socket.socket() as held:
        while True:
            with contextlib.suppress(OSError):
                held.bind(("127.0.0.1", 47_911))
                break
            time.sleep(0.2)
        yield


def merge(old: Any, new: Any) -> None:
    """Put tables into others: keys by their names, rows of a list by their `name`."""
    for key, value in new.items():
        rows = old.get(key)
        if isinstance(value, tomlkit.items.AoT) and rows is not None:
            for row in value:
                same = [each for each in rows if each["name"] == row["name"]]
                merge(same[0], row) if same else rows.append(row)
        elif isinstance(value, dict) and isinstance(rows, dict):
            merge(rows, value)
        else:
            old[key] = value


class Terminal:
    """A terminal in which one command runs; Ctrl-C is pressed at the end."""

    def __init__(self, words: list[str], folder: Path, env: dict[str, str]) -> None:
        self.words, self.seen = words, b""
        ours, theirs = os.openpty()
        self._ours = ours
        self.process = subprocess.Popen(
            words, cwd=folder, env=env, stdin=theirs, stdout=theirs, stderr=theirs,
            start_new_session=True,
        )  # fmt: skip
        os.close(theirs)
        threading.Thread(target=self._read, daemon=True).start()

    def _read(self) -> None:
        with contextlib.suppress(OSError):
            while data := os.read(self._ours, 65_536):
                self.seen += data

    def wait(self, seconds: float) -> None:
        """Until it has said something, and then so long; or until it ends."""
        until_s = time.monotonic() + 60
        while not self.seen and self.process.poll() is None and time.monotonic() < until_s:
            time.sleep(0.05)
        with contextlib.suppress(subprocess.TimeoutExpired):
            self.process.wait(seconds)

    def end(self) -> None:
        """Press Ctrl-C, where it still runs; it has to end well."""
        if self.process.poll() is None:
            os.killpg(self.process.pid, signal.SIGINT)
        code = self.process.wait(30)
        os.close(self._ours)
        said = self.seen.decode(errors="replace")
        is_well = code == 0 or self.words[0] == "make"  # make says that it was interrupted
        assert is_well, f"{shlex.join(self.words)} ended with {code}:\n{said[-2000:]}"
        assert "Traceback" not in said


class Walk:
    """A folder, and what runs in it."""

    def __init__(self, folder: Path) -> None:
        copy_files(folder)
        self.folder = folder
        self.env = os.environ | {"PATH": f"{Path(sys.executable).parent}:{os.environ['PATH']}"}
        self.running: list[Terminal] = []
        self.address = "127.0.0.1:8480"

    @staticmethod
    def goes_on(words: list[str]) -> bool:
        """Whether a command runs until Ctrl-C."""
        if words[0] == "make":
            return words[-1] == "try"
        is_bench = words[1] == "probe" and {"--to", "--page"} & {*words}
        return words[0] == "fendra" and (words[1] in GO_ON or bool(is_bench))

    def run(self, words: list[str]) -> None:
        """One command; one that goes on is left running until `end`."""
        words = self.here(words)
        if self.goes_on(words):
            if words[1] == "simulate" and len(words) == 2:
                words += ["--for", "1"]
            terminal = Terminal(words, self.folder, self.env)
            self.running.append(terminal)
            terminal.wait(2.0)
            if found := re.search(rb"http://(127\.0\.0\.1:\d+)", terminal.seen):
                self.address = found[1].decode()
            return
        if words[0] == "curl" and "-N" in words:
            words += ["--max-time", "1"]
        done = subprocess.run(
            words, cwd=self.folder, env=self.env, capture_output=True, text=True, timeout=200,
            check=False, stdin=subprocess.DEVNULL,
        )  # fmt: skip
        is_well = done.returncode == 0 or (words[0] == "curl" and done.returncode == 28)
        assert is_well, (
            f"{shlex.join(words)} ended with {done.returncode}:\n{done.stdout}{done.stderr}"
        )
        if words[0] == "curl":
            assert not done.stdout.startswith('{"problem"'), f"{shlex.join(words)}: {done.stdout}"

    @staticmethod
    def edit(path: Path, shown: str) -> None:
        """Change a design as a page shows it: keys of its tables, or new tables."""
        design = tomlkit.parse(path.read_text(encoding="utf-8"))
        merge(design, tomlkit.parse(shown))
        path.write_text(tomlkit.dumps(design), encoding="utf-8")

    def here(self, words: list[str]) -> list[str]:
        """A command with a stand-in's port for hardware, and the address that a run has told."""
        if any("/dev/tty" in word for word in words):
            port = self.controller(self.folder / next(w for w in words if w.endswith(".toml")))
            words = [re.sub(r"/dev/tty\w+", port, word) for word in words]
        return [word.replace("127.0.0.1:8480", self.address) for word in words]

    def controller(self, design: Path) -> str:
        """The port of a stand-in controller with the lines of a design."""
        sizes = [w for size in fd.load(design).layout().line_sizes for w in ("--line", str(size))]
        terminal = Terminal(
            [sys.executable, "-m", "fendra.demo.controller", "--json", *sizes],
            self.folder,
            self.env,
        )
        self.running.append(terminal)
        terminal.wait(0.1)
        port: str = json.loads(terminal.seen.splitlines()[0])["port"]
        return port

    def end(self) -> None:
        """Ctrl-C in every terminal, the newest first."""
        while self.running:
            self.running.pop().end()


EDITED = {"tutorial.md": "glow.toml"}
"""Pages on which the reader edits a file: their designs are changes of it."""


@pytest.mark.unix
@pytest.mark.slow
@pytest.mark.parametrize("page", PAGES_WITH_STEPS, ids=lambda page: page.name)
def test_what_a_page_shows_runs(page, tmp_path, alone):
    """From top to bottom; a run ends where a later block starts one."""
    walk = Walk(tmp_path)
    for block in blocks(pages=[page]):
        if block.language == "toml" and page.name in EDITED:
            walk.edit(tmp_path / EDITED[page.name], block.text)
        steps = commands(block) if block.language == "sh" else []
        steps = [
            words
            for words in steps
            if shlex.join(words[:2]) not in NOT_RUN and words[0] not in NOT_RUN
        ]
        if any(walk.goes_on(words) for words in steps):
            walk.end()
        for words in steps:
            walk.run(words)
    walk.end()


def examples() -> list[str]:
    """The example of each command's help, the first lines of each shipped design, and what the demo
    says is next.
    """
    with click.Context(HELP) as context:
        texts = [HELP.get_command(context, name).epilog for name in HELP.list_commands(context)]
    found = [text.removeprefix("Example: ") for text in texts]
    for name in ABOUT:
        text = demo_file(name).read_bytes().decode(errors="replace")
        found += re.findall(r"^#   (fendra .*)$", text, re.M)
    found += [each for steps in next_steps(Path()).values() for each in steps if each[:2] == "fe"]
    return [*dict.fromkeys(found)]


@pytest.mark.unix
@pytest.mark.slow
@pytest.mark.parametrize("text", examples())
def test_an_example_of_the_help_and_of_a_shipped_design_runs(text, tmp_path, alone):
    """Those that need an autopilot, a broker or a keyboard are started, and ended by Ctrl-C."""
    walk = Walk(tmp_path)
    walk.run(shlex.split(text))
    walk.end()


@pytest.mark.parametrize(("text", "place"), named_commands())
def test_a_command_that_is_named_has_these_options(text, place):
    """Whatever a page, a message or a docstring names as a command is one."""
    words = shlex.split(text)
    with click.Context(HELP) as context:
        found = HELP.get_command(context, words[1])
    assert found is not None or words[1].startswith("--"), f"{place}: {text}"
    known = {option for each in (found or HELP).params for option in each.opts}
    named = [word.partition("=")[0] for word in words[1:] if word.startswith("--")]
    assert {*named} <= known | {"--help", "--version"}, f"{place}: {text}"
