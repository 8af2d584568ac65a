"""What one file, or another package, adds is found by its name."""

from __future__ import annotations

import importlib
from importlib.metadata import EntryPoint

import pytest

from fendra.core.checks import CHECKS
from fendra.core.effects import EFFECTS, effect
from fendra.core.registry import Registry
from fendra.core.shapes import SHAPES


def test_what_ships_is_found_and_in_the_order_of_the_names():
    assert list(EFFECTS) == sorted(EFFECTS)
    assert {"solid", "gradient", "fill", "blink", "pulse", "gauge", "sweep"} <= set(EFFECTS)
    assert {"strip", "ring"} <= set(SHAPES)
    assert len(CHECKS) >= 5


def test_another_package_joins_by_its_entry_point(monkeypatch, tmp_path):
    (tmp_path / "their_effects.py").write_text(
        "from joined import registry\nregistry.add('zig', 7)\n"
    )
    (tmp_path / "joined.py").write_text(
        "from fendra.core.registry import Registry\nregistry = Registry('fendra.live', 'their.group')\n"
    )
    monkeypatch.syspath_prepend(tmp_path)
    import joined

    found = [EntryPoint("zig", "their_effects", "their.group")]
    monkeypatch.setattr(
        "fendra.core.registry.entry_points", lambda group: found if group == "their.group" else []
    )
    assert dict(joined.registry) == {"zig": 7}


def test_a_name_is_taken_once():
    registry: Registry[int] = Registry("fendra.live", "none")
    registry.add("a", 1)
    with pytest.raises(ValueError, match=r"two things of fendra\.live are called 'a'"):
        registry.add("a", 2)


def test_an_effect_whose_parameters_do_not_say_what_they_are_is_refused():
    with pytest.raises(TypeError, match="effect 'wrong': speed needs a default"):

        @effect
        def wrong(led, speed=3):
            """Wrong."""


def test_what_is_registered_late_stands_in_the_order_of_the_names_and_once():
    registry: Registry[int] = Registry("fendra.live", "none")
    for name in "cab":
        registry.add(name, ord(name))
    assert list(registry) == ["a", "b", "c"]
    with pytest.raises(ValueError, match=r"two things of fendra\.live are called 'a'"):
        registry.add("a", 1)


def test_a_registry_that_could_not_be_filled_is_filled_when_it_can(monkeypatch, tmp_path):
    """The first look fails with the error of a module; once that is mended, the next one works."""
    folder = tmp_path / "many"
    folder.mkdir()
    (folder / "__init__.py").write_text(
        "from fendra.core.registry import Registry\nregistry = Registry('many', 'none')\n"
    )
    (folder / "one.py").write_text("from many import registry\nregistry.add('one', 1 / 0)\n")
    monkeypatch.syspath_prepend(tmp_path)
    import many

    with pytest.raises(ZeroDivisionError):
        len(many.registry)
    (folder / "one.py").write_text("from many import registry\nregistry.add('one', 1 / 1)\n")
    monkeypatch.setattr("sys.dont_write_bytecode", True)
    importlib.invalidate_caches()
    assert dict(many.registry) == {"one": 1.0}
