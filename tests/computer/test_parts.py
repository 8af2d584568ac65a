"""What a computer tells: parts that are missing say why, once, and the rest is heard."""

from __future__ import annotations

import psutil
import pytest

from fendra.computer import sensors
from fendra.computer.parts import CannotTell, Computer, Part, needs
from fendra.sources import DRIVERS
from helpers import design, layer


class Never(Part):
    names = ("front",)

    def __init__(self):
        raise CannotTell("there is no screen")

    def read(self):
        return {}


class Half(Part):
    names = ("idle", "locked")

    def __init__(self):
        self.lacks = {"locked": "nobody tells"}

    def read(self):
        return {"idle": 3.0}


class Broken(Part):
    names = ("volume",)

    def read(self):
        raise ZeroDivisionError


def test_only_wanted_parts_are_asked_and_each_says_why_it_cannot():
    told = Computer((Never, Half, Broken), {"front", "idle", "locked", "volume", "x"})
    assert told.lacks == {"front": "there is no screen", "locked": "nobody tells"}
    assert told.read() == {"idle": 3.0}  # one that fails later gives nothing
    assert told.lacks["volume"] == "it fails: ZeroDivisionError"
    assert told.unknown == ["x"]
    assert Computer((Never, Half), {"idle"}).lacks == {}


def test_a_missing_package_is_named_with_its_extra():
    with pytest.raises(
        CannotTell, match=r"needs the package 'nothing-here': pip install 'fendra\[machine"
    ):
        needs("nothing-here", lambda: __import__("nothing_here"))


def test_the_source_says_once_what_it_cannot_give(monkeypatch):
    monkeypatch.setattr("fendra.computer.here.PARTS", (sensors.Load, Never, Half, Broken))
    lit = design(
        layer(level="idle / 9 + volume"),
        signals={"idle": {}, "volume": {}, "front": {"kind": "text"}, "locked": {"kind": "switch"}},
    )
    source = DRIVERS.from_text("machine:,rate=20,programs=ghost")
    source.open(lit, lit.layout())
    notice = source.notice
    assert notice.startswith("this computer cannot give everything: no ")
    assert "no front: there is no screen" in notice
    assert "no locked: nobody tells" in notice
    found = dict(source.read(0.2))
    assert found["idle"] == 3.0
    assert found["running ghost"] is False
    assert 0 <= found["load"] <= 1
    assert source.notice == notice.replace(
        "no locked: nobody tells", "no locked: nobody tells; no volume: it fails: ZeroDivisionError"
    )
    source.close()


def test_heat_and_fans_are_the_highest_and_each_chip_has_its_own(monkeypatch):
    class Told:
        def __init__(self, current):
            self.current = current

    heats = {"core": [Told(41.0), Told(63.5)], "card": [Told(70.0)]}
    monkeypatch.setattr(psutil, "sensors_temperatures", lambda: heats, raising=False)
    monkeypatch.setattr(
        psutil, "sensors_fans", lambda: {"case": [Told(900), Told(1200)]}, raising=False
    )
    monkeypatch.setattr(sensors, "NAME", "linux")
    assert sensors.Heat().read() == {
        "temperature": 70.0,
        "temperature core": 63.5,
        "temperature card": 70.0,
    }
    assert sensors.Fans().read() == {"fan": 1200, "fan case": 1200}
    monkeypatch.setattr(sensors, "NAME", "windows")
    with pytest.raises(CannotTell, match="Windows tells programs no temperatures"):
        sensors.Heat()
