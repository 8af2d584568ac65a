"""A design is placed and recorded once, and compiling runs only the checks that can stop it."""

from __future__ import annotations

import runpy
import tomllib
from pathlib import Path

import pytest

import fendra as fd
from fendra.core.checks import CHECKS, Check
from fendra.core.checks import examine as examine_module
from fendra.core.findings import Report, errors_of
from fendra.files.design_file import check_text
from fendra.live.reload import Reloader
from helpers import design, layer

SCRIPTS = Path(__file__).parents[2] / "scripts"


@pytest.fixture
def counted(monkeypatch):
    """How often designs are placed and recorded."""
    counts = {"place": 0, "record": 0}
    for name in counts:
        made = getattr(examine_module, name)

        def counting(*args, name=name, made=made, **keys):
            counts[name] += 1
            return made(*args, **keys)

        monkeypatch.setattr(examine_module, name, counting)
    return counts


def test_all_that_is_asked_of_a_design_shares_what_was_made_of_it(counted, tmp_path):
    swift = fd.load(fd.demo_file("swift.toml"))
    film = swift.compile().film(fd.read_tape(fd.demo_file("glide.csv")).until(1.0))
    swift.check()
    swift.budget()
    swift.emit()
    swift.layout()
    swift.firmware("avr", film=film)
    swift.map()
    film.budget()
    film.timeline()
    film.explain("belly-left:0", 0.5)
    swift.sheet(tmp_path / "sheet.html", film)
    assert counted == {"place": 1, "record": 1}


def test_a_design_that_is_changed_is_another_one():
    red = design(layer(colour="red"))
    assert red.compile().frame(at=0).rgb[0].tolist() == [255, 0, 0]
    blue = red.model_copy(update={"layer": design(layer(colour="blue")).layer})
    assert blue.compile().frame(at=0).rgb[0].tolist() == [0, 0, 255]
    assert red.compile().frame(at=0).rgb[0].tolist() == [255, 0, 0]


def test_a_reload_records_once(counted, tmp_path):
    path = tmp_path / "d.toml"
    path.write_bytes(fd.demo_file("pad.toml").read_bytes())
    made = fd.load(path)
    counted.update(place=0, record=0)
    taken = []
    from fendra.core.engines.numpy.engine import NumpyEngine

    Reloader(path, made.examined, taken.append, lambda _: None, engine=NumpyEngine).take()
    assert len(taken) == 1
    assert counted == {"place": 1, "record": 1}


def test_compiling_runs_only_the_checks_that_can_stop_it(monkeypatch):
    ran = []
    watched = {
        name: Check(
            lambda s, r, name=name, run=check.run: (ran.append(name), run(s, r)), check.stops
        )
        for name, check in CHECKS.items()
    }
    monkeypatch.setattr(examine_module, "CHECKS", watched)
    made = design(layer())
    made.compile()
    made.compile()
    stopping = {name for name, check in CHECKS.items() if check.stops}
    assert ran == [name for name in CHECKS if name in stopping]
    assert {"voltages", "unlit_parts", "hidden_scenes"}.isdisjoint(ran)
    ran.clear()
    made.check()
    made.check()
    assert ran == [*CHECKS]


def test_checks_that_are_said_to_find_no_errors_find_none(monkeypatch):
    """Tried on every example of the page of findings."""
    monkeypatch.syspath_prepend(str(SCRIPTS))
    whole = runpy.run_path(str(SCRIPTS / "make_docs.py"))["design_of"]
    tables = tomllib.loads((SCRIPTS / "findings.toml").read_text(encoding="utf-8"))
    excerpts = [e for examples in tables.values() for each in examples.values() for e in each]
    harmless = [check for check in CHECKS.values() if not check.stops]
    tried = 0
    for excerpt in excerpts:
        examined = check_text(whole(excerpt), "design.toml", folder=Path()).examined
        if examined is None:
            continue
        report = Report()
        for check in harmless:
            check.run(examined.subject, report)
        assert errors_of(report) == []
        tried += 1
    assert tried > 60


def test_every_error_stops_a_design_whether_it_was_checked_before_or_not():
    for asked_first in (False, True):
        made = design(layer(), line=[{"name": "a", "supply": "none", "part": [
            {"name": "x", "shape": "strip", "start": [0, 0], "end": [9, 0], "count": 3}]}],
            supplies={"some": {"volts": 5, "amps": 1}})  # fmt: skip
        if asked_first:
            assert errors_of(made.check())
        with pytest.raises(fd.DesignError, match="there is no supply 'none'"):
            made.compile()
