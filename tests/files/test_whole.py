"""Files are written whole, or stay as they were."""

from __future__ import annotations

import pytest

import fendra as fd
from fendra.files.whole import write_whole


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
    with pytest.raises(fd.FileError, match=r"cannot be written: .*file. is no folder"):
        write_whole(tmp_path / "file" / "a.txt", lambda beside: beside.write_text("x"))
