"""Compiled designs are kept, found again, and made anew where they cannot be trusted."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest

import fendra as fd
from fendra.native import store
from fendra.system.process import LIBRARY_ENDING
from helpers import design, keep_in, layer, reds


def lamp(**keys):
    return design(layer("gauge", value="s"), signals={"s": {}}, **keys)


def half_lit(program):
    return reds(program.frame(s=0.5, at=0.0))


def test_the_second_compile_takes_the_library_of_the_first(counted_compiler, stored):
    first, second = (lamp().compile(engine="native") for _ in range(2))
    assert counted_compiler() == 1
    assert len(stored()) == 1
    assert half_lit(first) == half_lit(second) == half_lit(lamp().compile(engine="numpy"))


def test_other_names_and_lines_in_the_file_need_no_other_library(counted_compiler, tmp_path):
    text = fd.demo_file("heron.toml").read_text(encoding="utf-8")
    for i, changed in enumerate(
        [text, text.replace("# ----", "#\n# ----"), text.replace('"rpm"', '"rpm"  ')]
    ):
        path = tmp_path / f"{i}.toml"
        path.write_text(changed, encoding="utf-8")
        fd.load(path).compile(engine="native")
    assert counted_compiler() == 1
    path.write_text(text.replace("high = 5200", "high = 5100"), encoding="utf-8")
    fd.load(path).compile(engine="native")
    assert counted_compiler() == 2


CHILD = (
    "import fendra as fd; d = fd.load(fd.demo_file('bare.toml'))\n"
    "p = d.compile(engine='native'); print(p.engine.name, p.frame(at=0.5).rgb.sum())"
)


def bare_elsewhere(count=1):
    """What some processes at once say of their engine and a frame."""
    running = [
        subprocess.Popen([sys.executable, "-c", CHILD], stdout=subprocess.PIPE, text=True)
        for _ in range(count)
    ]
    said = {process.communicate()[0] for process in running}
    assert all(process.returncode == 0 for process in running)
    return said


def test_several_processes_at_once_get_a_whole_library_each(counted_compiler, stored):
    program = fd.load(fd.demo_file("bare.toml")).compile(engine="numpy")
    assert bare_elsewhere(4) == {f"native {program.frame(at=0.5).rgb.sum()}\n"}
    assert [path.suffix for path in stored()] == [LIBRARY_ENDING]


@pytest.mark.parametrize("damage", [b"", b"\x7fELF cut short"])
def test_a_damaged_library_is_made_anew(counted_compiler, stored, damage):
    whole = bare_elsewhere()
    (path,) = stored()
    path.write_bytes(damage)
    assert bare_elsewhere() == whole
    assert counted_compiler() == 2


@pytest.mark.unix
def test_a_library_that_others_could_have_written_is_made_anew(counted_compiler, stored):
    lamp(count=10).compile(engine="native")
    (path,) = stored()
    path.chmod(0o722)
    lamp(count=10).compile(engine="native")
    assert counted_compiler() == 2
    assert path.stat().st_mode & 0o022 == 0


def test_a_library_changed_in_one_byte_or_with_other_symbols_is_made_anew(
    counted_compiler, stored, tmp_path
):
    for other in (b"\0", None):
        lamp(count=11).compile(engine="native")
        (path,) = stored()
        if other is not None:
            with path.open("r+b") as file:
                file.seek(2000)
                file.write(other if path.read_bytes()[2000:2001] != other else b"\1")
        else:  # whole and well named, but of something else
            alien = tmp_path / f"alien{LIBRARY_ENDING}"
            subprocess.run(
                ["cc", "-shared", "-x", "c", "-", "-o", alien], input=b"int a;", check=True
            )
            key = path.name.partition("-")[0]
            path.unlink()
            alien.rename(path.with_name(f"{key}-{store._digest(alien)}{LIBRARY_ENDING}"))
        program = lamp(count=11).compile(engine="native")
        assert program.engine.name == "native"
        assert len(stored()) == 1
    assert counted_compiler() == 3


@pytest.mark.unix
@pytest.mark.skipif(getattr(os, "getuid", int)() != 0, reason="only root can give a folder away")
@pytest.mark.parametrize("how", ["writable", "another's", "writable above", "by a link"])
def test_a_folder_that_others_can_write_to_is_not_used(
    counted_compiler, monkeypatch, tmp_path, how
):
    shared = tmp_path / "shared"
    cache = shared / "cache"
    (cache / "fendra" / "native").mkdir(parents=True)
    if how == "another's":
        os.chown(cache, 12_345, 12_345)
    else:
        (shared if how in ("writable above", "by a link") else cache).chmod(0o777)
    if how == "by a link":
        cache = tmp_path / "link"
        cache.symlink_to(shared / "cache")
    keep_in(monkeypatch, "cache", cache)
    assert lamp().compile(engine="native").engine.name == "native"
    assert not list(shared.rglob(f"*{LIBRARY_ENDING}"))
    shared.chmod(0o1777)  # as /tmp: each may change his own alone
    assert store.is_private(shared / "cache") == (how in ("writable above", "by a link"))


def test_without_a_place_to_keep_it_the_library_is_made_each_time(
    counted_compiler, monkeypatch, tmp_path
):
    (tmp_path / "file").write_text("")
    keep_in(monkeypatch, "cache", tmp_path / "file")
    monkeypatch.setattr(tempfile, "tempdir", str(tmp_path))
    for calls in (1, 2):
        assert lamp().compile(engine="native").engine.name == "native"
        assert counted_compiler() == calls
    assert not list(tmp_path.glob("fendra-*"))


def test_the_libraries_not_used_for_longest_go_first(monkeypatch, tmp_path):
    keep_in(monkeypatch, "cache", tmp_path)
    monkeypatch.setattr(store, "MOST_FILES", 3)

    def make(path: Path) -> None:
        path.write_bytes(b"library")

    made = [store.find_or_make(name, make)[0] for name in "abc"]
    for age, path in zip((30, 20, 10), made, strict=True):
        os.utime(path, (1e9 - age, 1e9 - age))
    assert store.find_or_make("a", make)[0] == made[0]  # used again: now the newest
    store.find_or_make("d", make)
    assert [path.exists() for path in made] == [True, False, True]
