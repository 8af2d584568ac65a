"""`fendra devices`: what is plugged in, as a design names it, and why something cannot be listed."""

from __future__ import annotations

import json
from types import SimpleNamespace

from fendra.core.errors import SourceError


def test_each_kind_is_listed_as_it_is_named(fendra, monkeypatch):
    port = SimpleNamespace(device="/dev/ttyUSB3", description="Trike board")
    monkeypatch.setattr("serial.tools.list_ports.comports", lambda: [port])
    monkeypatch.setattr("fendra.sources.captures.screens", lambda: [(1, "640 x 480 pixels")])
    monkeypatch.setattr("fendra.sources.gamepad.pad_names", list)

    def fail():
        raise SourceError("no sound server answers")

    monkeypatch.setitem(__import__("fendra.cli.devices", fromlist=["x"]).LISTS, "sound", fail)
    code, out, err = fendra("devices")
    assert (code, err) == (0, "")
    assert "serial:/dev/ttyUSB3" in out
    assert "Trike board" in out
    assert "screen:1" in out
    assert "gamepads: none" in out
    assert "sound: no sound server answers" in out
    told = json.loads(fendra("devices", "ports", "--json")[1])
    assert told == {
        "devices": {"ports": [{"name": "serial:/dev/ttyUSB3", "about": "Trike board"}]},
        "missing": {},
    }
