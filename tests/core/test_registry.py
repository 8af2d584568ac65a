"""What one file, or another package, adds is found by its name."""

from __future__ import annotations

import importlib
from importlib.metadata import EntryPoint

import pytest

import fendra as fd
from fendra.core.checks import CHECKS
from fendra.core.effects import EFFECTS, effect
from fendra.core.registry import Registry
from fendra.core.shapes import SHAPES
from fendra.effects import Led, Look
from fendra.effects import colour as of_colour
from helpers import layer, strip


def test_what_ships_is_found_and_in_the_order_of_the_names():
    assert list(EFFECTS) == sorted(EFFECTS)
    assert {"solid", "gradient", "fill", "blink", "pulse", "gauge", "sweep"} <= set(EFFECTS)
    assert {"strip", "ring"} <= set(SHAPES)
    assert len(CHECKS) >= 5


def test_another_package_joins_by_its_entry_point(monkeypatch, tmp_path):
    (tmp_path / "their_effects.py").write_text(
        "from joined import registry\nregistry.add('zig', 7, print)\n"
    )
    (tmp_path / "joined.py").write_text(
        "from fendra.core.registry import Registry\nregistry = Registry('fendra.live', 'their.group', 'a thing')\n"
    )
    monkeypatch.syspath_prepend(tmp_path)
    import joined

    found = [EntryPoint("zig", "their_effects", "their.group")]
    monkeypatch.setattr(
        "fendra.core.registry.entry_points", lambda group: found if group == "their.group" else []
    )
    assert dict(joined.registry) == {"zig": 7}


def marked(number):
    """A function of its own for each number, all of this module."""

    def mark():
        return number

    mark.__qualname__ = f"mark-{number}"
    return mark


def test_a_name_belongs_to_one_function_which_may_register_it_again():
    registry: Registry[int] = Registry("fendra.live", "none", "a thing")
    registry.add("a", 1, marked(1))
    with pytest.raises(ValueError, match=r"already a thing 'a', of mark-1 in \S*test_registry\. C"):
        registry.add("a", 2, marked(2))
    assert dict(registry) == {"a": 1}
    registry.add("a", 3, marked(1))
    assert dict(registry) == {"a": 3}


@pytest.fixture
def package(monkeypatch, tmp_path):
    """Writes a package with a registry, whose module one.py registers a value as 'one'."""
    monkeypatch.syspath_prepend(tmp_path)

    def write(name, value):
        folder = tmp_path / name
        folder.mkdir(exist_ok=True)
        (folder / "__init__.py").write_text(
            "from fendra.core.registry import Registry\n"
            f"registry = Registry('{name}', 'none', 'a thing')\n"
        )
        (folder / "one.py").write_text(
            f"from {name} import registry\nregistry.add('one', {value}, print)\n"
        )
        return importlib.import_module(name)

    return write


def test_a_name_of_the_package_is_refused_before_anybody_has_looked(package):
    """Else it is the package that cannot be imported later, far from the mistake."""
    lot = package("lot", "1")
    with pytest.raises(ValueError, match="there is already a thing 'one', of print in builtins"):
        lot.registry.add("one", 2, marked(2))
    assert dict(lot.registry) == {"one": 1}


def test_an_effect_that_is_marked_again_is_the_new_one_and_a_built_in_one_stays(monkeypatch):
    """A cell of a notebook runs again; another cell takes the name of a built-in effect."""
    monkeypatch.setattr(EFFECTS, "_things", dict(EFFECTS))
    values = {"line": [{"name": "a", "part": [strip("bar", 3)]}], "layer": [layer("lit-up")]}

    def cell(level):
        def lit_up(led: Led, colour=of_colour("#00ff00", "of it")) -> Look:
            """All of it."""
            return Look(colour, level)

        return effect(lit_up)

    for level, shown in ((1.0, [0, 255, 0]), (0.0, [0, 0, 0])):
        cell(level)
        frame = fd.Design.from_values(values).compile("numpy").frame(0.0)
        assert frame.rgb[2].tolist() == shown
    with pytest.raises(ValueError, match=r"already an effect 'solid', of solid in fendra\.core"):

        @effect
        def solid(led: Led) -> Look:
            """Mine."""
            return Look(1.0, 1.0)


def test_an_effect_whose_parameters_do_not_say_what_they_are_is_refused():
    with pytest.raises(TypeError, match="effect 'wrong': speed needs a default"):

        @effect
        def wrong(led, speed=3):
            """Wrong."""


def test_things_are_in_the_order_of_their_names_early_and_late():
    registry: Registry[int] = Registry("fendra.live", "none", "a thing")
    for name in "ca":
        registry.add(name, ord(name), marked(name))
    assert list(registry) == ["a", "c"]
    registry.add("b", 1, marked("b"))
    assert list(registry) == ["a", "b", "c"]


def test_a_registry_that_could_not_be_filled_is_filled_when_it_can(monkeypatch, package):
    """The first look fails with the error of a module; once that is mended, the next one works."""
    many = package("many", "1 / 0")
    with pytest.raises(ZeroDivisionError):
        len(many.registry)
    package("many", "1 / 1")
    monkeypatch.setattr("sys.dont_write_bytecode", True)
    importlib.invalidate_caches()
    assert dict(many.registry) == {"one": 1.0}
