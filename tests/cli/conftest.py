"""The program, called as from a shell."""

from __future__ import annotations

import sys

import pytest

from fendra.cli import app


@pytest.fixture
def fendra(monkeypatch, capsys, tmp_path):
    """Calls the program in an empty folder; gives exit code, output and errors."""
    monkeypatch.chdir(tmp_path)

    def call(*words):
        monkeypatch.setattr(sys, "argv", ["fendra", *map(str, words)])
        with pytest.raises(SystemExit) as caught:
            app.main()
        seen = capsys.readouterr()
        return caught.value.code or 0, seen.out, seen.err

    return call
