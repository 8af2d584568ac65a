"""A compiler, and a store of compiled designs that is the test's own."""

from __future__ import annotations

import os
import shutil
import stat

import pytest

from helpers import keep_in


@pytest.fixture
def counted_compiler(monkeypatch, tmp_path):
    """`CC` is a script that notes each call before it compiles; gives what counts the calls."""
    real = shutil.which("cc")
    if real is None:
        if os.environ.get("CI"):
            pytest.fail("CI needs a C compiler, and there is no 'cc'")
        pytest.skip("no C compiler 'cc': the native engine is not tested")
    script, notes = tmp_path / "counted-cc", tmp_path / "calls"
    script.write_text(f'#!/bin/sh\necho called >> "{notes}"\nexec {real} "$@"\n')
    script.chmod(script.stat().st_mode | stat.S_IXUSR)
    monkeypatch.setenv("CC", str(script))
    keep_in(monkeypatch, "cache", tmp_path / "cache")
    return lambda: len(notes.read_text().splitlines()) if notes.exists() else 0


@pytest.fixture
def stored(tmp_path):
    """Gives the files of the store."""
    return lambda: sorted((tmp_path / "cache" / "fendra" / "native").glob("*"))
