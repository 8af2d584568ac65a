"""Python that a design names runs only when the user has allowed just that file."""

from __future__ import annotations

import os
import subprocess
import sys

import pytest

import fendra as fd
from fendra.files import trust as store
from helpers import keep_in, make_pipe

CODE = '''
from pathlib import Path
from fendra.effects import Led, Look, colour, effect, select
Path("{ran}").write_text("ran")

@effect
def plain(led: Led, colour=colour("red", "of all")) -> Look:
    """All alike."""
    return Look(colour, select(led.x < 1e6, 1.0, 0.0))
'''
DESIGN = """
name = "Post"
effects = ["{file}"]
[[line]]
name = "a"
pin = "D6"
[[line.part]]
name = "bar"
shape = "strip"
start = [0, 0]
end = [70, 0]
count = 8
[[layer]]
name = "mine"
on = "bar"
effect = "plain"
[[layer]]
name = "theirs"
on = "bar[0-1]"
effect = "solid"
colour = "blue"
"""
COMMANDS = ("check", "map", "layout", "sheet", "film --for 0.2", "emit", "run --to null: --for 0.1",
            "presets save mine")  # fmt: skip


@pytest.fixture
def post(tmp_path, monkeypatch):
    """Writes a design that names Python, which leaves a trace where it runs."""
    keep_in(monkeypatch, "config", tmp_path / "config")
    monkeypatch.setattr(store, "_live", set())

    def write(file="own.py"):
        folder = tmp_path / "design"
        folder.mkdir(exist_ok=True)
        ran = tmp_path / "ran"
        (folder / file).write_text(CODE.replace("{ran}", ran.as_posix()))
        (folder / "post.toml").write_text(DESIGN.replace("{file}", file))
        return folder / "post.toml", ran

    return write


def call(words, folder, **given):
    env = {**os.environ, "FENDRA_PRESETS": str(folder / "presets.toml")}
    return subprocess.run(
        [sys.executable, "-P", "-m", "fendra", *words], cwd=folder, env=env, text=True,
        capture_output=True, check=False, **given,
    )  # fmt: skip


def test_no_command_runs_it_unasked_and_each_says_so_and_does_the_rest(post):
    path, ran = post()
    for command in COMMANDS:
        first, *rest = command.split()
        words = (
            [first, "save", path.name, *rest[1:]]
            if first == "presets"
            else [first, path.name, *rest]
        )
        done = call(words, path.parent, stdin=subprocess.DEVNULL)
        assert done.returncode == 0, (command, done.stdout, done.stderr)
        assert not ran.exists(), command
        said = done.stdout + done.stderr
        assert said.count("Read it, then allow it: fendra trust own.py") == 1, (command, said)
    with pytest.warns(fd.TrustWarning, match=r"own\.py may not run, .* fd\.trust\('"):
        loaded = fd.load(path)
    assert loaded.compile().frame().rgb[:3, 2].tolist() == [255, 255, 0]  # the blue layer


def test_what_is_allowed_runs_until_it_changes(post):
    path, ran = post()
    code = path.parent / "own.py"
    fd.trust(code)
    assert fd.load(path).compile().frame().rgb[3].tolist() == [255, 0, 0]
    ran.unlink()
    code.write_text(code.read_text() + "# changed")
    with pytest.warns(fd.TrustWarning):
        found = fd.load(path).check()
    assert [f.code for f in found if f.severity == "warning"].count("not-allowed") == 2
    assert not ran.exists()
    fd.trust(code)
    fd.load(path)
    assert ran.exists()


@pytest.mark.parametrize("is_link", [pytest.param(True, marks=pytest.mark.unix), False])
def test_a_file_outside_the_folder_must_be_allowed_by_its_own_name(post, is_link):
    path, ran = post("../far.py")
    far, name = path.parent.parent / "far.py", "../far.py"
    if is_link:
        (path.parent / "near.py").symlink_to(far)
        name = "near.py"
        path.write_text(DESIGN.replace("{file}", name))
    twin = path.parent / "twin.py"
    twin.write_text(far.read_text())
    fd.trust(twin)  # the same content at another place is not enough
    done = call(["check", path.name, "--trust"], path.parent)
    assert not ran.exists()
    assert "you have not allowed it" in done.stdout
    assert call(["trust", name], path.parent).returncode == 0
    assert call(["check", path.name], path.parent).returncode == 0
    assert ran.exists()


@pytest.mark.unix
@pytest.mark.parametrize(("answer", "runs"), [("y\n", True), ("\n", False), ("no\n", False)])
def test_at_a_terminal_it_is_asked(post, answer, runs):
    path, ran = post()
    ours, theirs = os.openpty()
    os.write(ours, answer.encode())
    done = subprocess.run(
        [sys.executable, "-P", "-m", "fendra", "check", path.name], cwd=path.parent, check=False,
        stdin=theirs, stdout=subprocess.PIPE, stderr=theirs, timeout=60,
    )  # fmt: skip
    os.close(theirs)
    said = os.read(ours, 65536).decode()
    os.close(ours)
    assert "post.toml brings Python: own.py (9 lines)" in said
    assert (done.returncode, ran.exists()) == (0, runs)


def test_the_flag_allows_and_the_command_lists_and_forgets(post):
    path, ran = post()
    assert call(["check", path.name, "--trust"], path.parent).returncode == 0
    assert ran.exists()
    ran.unlink()
    listed = call(["trust"], path.parent).stdout
    assert str(path.parent / "own.py") in listed
    if os.name == "posix":  # other systems have no such modes
        assert store.store_path().stat().st_mode & 0o022 == 0
    assert "may not run any more" in call(["trust", "--forget", "own.py"], path.parent).stdout
    call(["check", path.name], path.parent)
    assert not ran.exists()


def test_while_somebody_writes_it_a_trusted_run_takes_every_version(post):
    path, ran = post()
    store.trust_for_now(path.parent / "own.py")
    (path.parent / "own.py").write_text((path.parent / "own.py").read_text() + "# more")
    fd.load(path)
    assert ran.exists()


@pytest.mark.parametrize(
    "make",
    [
        pytest.param(make_pipe, marks=pytest.mark.unix),
        os.mkdir,
        pytest.param(lambda path: path.symlink_to("/dev/zero"), marks=pytest.mark.unix),
    ],
)
def test_what_is_no_plain_file_is_refused_at_once(post, make):
    path, _ = post()
    (path.parent / "own.py").unlink()
    make(path.parent / "own.py")
    with pytest.raises(fd.DesignError, match="name a plain file"):
        fd.load(path)
