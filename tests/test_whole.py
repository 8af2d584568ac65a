"""Files are written whole, or stay as they were."""

from __future__ import annotations

import os
import stat
from pathlib import Path

import pytest

import fendra as fd
from fendra.core.limits import Limit
from fendra.whole import read_bytes, write_text, write_whole
from helpers import make_pipe


def test_a_failed_write_leaves_the_old_file_and_no_trace(tmp_path):
    path = tmp_path / "map.png"
    path.write_text("old")

    def fail(beside):
        beside.write_text("half")
        raise RuntimeError("no")

    with pytest.raises(RuntimeError):
        write_whole(path, fail)
    assert path.read_text() == "old"
    assert list(tmp_path.iterdir()) == [path]


def test_a_good_write_replaces_and_makes_folders(tmp_path):
    path = tmp_path / "new" / "a.txt"
    write_whole(path, lambda beside: beside.write_text("one"))
    write_whole(path, lambda beside: beside.write_text("two"))
    assert path.read_text() == "two"
    assert list(path.parent.iterdir()) == [path]


def test_what_cannot_be_written_is_one_line(tmp_path):
    (tmp_path / "file").write_text("")
    with pytest.raises(fd.FileError, match=r"cannot be written: .*file. is not a folder"):
        write_whole(tmp_path / "file" / "a.txt", lambda beside: beside.write_text("x"))


@pytest.mark.unix
def test_a_link_is_followed_and_mode_and_owner_stay(tmp_path):
    real, link = tmp_path / "real.txt", tmp_path / "link.txt"
    real.write_text("old")
    real.chmod(0o600)
    link.symlink_to(real)
    if os.getuid() == 0:
        os.chown(real, 12_345, 12_345)
    write_text(link, "new")
    assert link.is_symlink()
    assert real.read_text() == "new"
    about = real.stat()
    assert stat.S_IMODE(about.st_mode) == 0o600
    assert about.st_uid == (12_345 if os.getuid() == 0 else os.getuid())


@pytest.mark.parametrize(
    "make",
    [
        pytest.param(make_pipe, marks=pytest.mark.posix),
        os.mkdir,
        pytest.param(lambda path: path.symlink_to("/dev/null"), marks=pytest.mark.posix),
    ],
)
def test_what_is_no_plain_file_is_refused(tmp_path, make):
    make(tmp_path / "out")
    with pytest.raises(fd.FileError, match=r"is (a pipe|a folder|a device); name a plain file"):
        write_text(tmp_path / "out", "x")
    assert len(list(tmp_path.iterdir())) == 1
    if os.name == "posix":
        assert Path("/dev/null").is_char_device()


@pytest.mark.posix
def test_a_new_file_has_the_mode_that_its_user_wants(tmp_path):
    before = os.umask(0o077)
    try:
        write_text(tmp_path / "a", "x")
    finally:
        os.umask(before)
    assert stat.S_IMODE((tmp_path / "a").stat().st_mode) == 0o600


def test_more_than_the_limit_is_not_read(tmp_path):
    (tmp_path / "a").write_bytes(b"x" * 11)
    with pytest.raises(fd.FileError, match="is too large: the limit is 10 bytes of a test"):
        read_bytes(tmp_path / "a", Limit(10, "bytes of a test", ""))
    assert read_bytes(tmp_path / "a", Limit(11, "bytes of a test", "")) == b"x" * 11
