"""The user's library of presets, and designs that are edited with it."""

from __future__ import annotations

import tomllib

import pytest

import fendra as fd
from fendra.core.document.layer import Preset
from fendra.files.preset_library import (
    drop_preset,
    library_path,
    preset_text,
    read_library,
    save_preset,
    with_defaults,
    with_preset,
)
from helpers import keep_in

WARM = Preset.model_validate(
    {"effect": "gradient", "about": "as the cabin", "colours": ["red", "#ff8a00"], "rate": 0.5}
)
LAYERS = """# above
[[layer]]
name = "a"      # beside
effect = "blink"
rate = 3        # gone with it
when = "on"

[[layer]]
name = "b"
effect = "solid"
"""


@pytest.fixture(autouse=True)
def _library(tmp_path, monkeypatch):
    monkeypatch.setenv("FENDRA_PRESETS", str(tmp_path / "deep" / "presets.toml"))


def test_what_is_saved_is_read_and_a_second_of_its_name_takes_its_place():
    assert read_library() == {}
    assert save_preset("warm glow", WARM) == library_path()
    save_preset("cold", Preset(effect="solid"))
    assert read_library() == {"cold": Preset(effect="solid"), "warm glow": WARM}
    save_preset("cold", WARM)
    assert read_library()["cold"] == WARM
    drop_preset("cold")
    assert [*read_library()] == ["warm glow"]


def test_without_a_setting_the_library_is_in_the_user_s_own_folder(monkeypatch):
    monkeypatch.delenv("FENDRA_PRESETS")
    keep_in(monkeypatch, "data", "/somewhere")
    assert library_path().name == "presets.toml"
    assert "fendra" in library_path().parts


@pytest.mark.parametrize("text", ["nonsense", "[a]\ncolour = 'red'\n", "[a]\neffect = 3\n"])
def test_a_library_that_is_none_is_said_and_left_as_it_is(text):
    library_path().parent.mkdir()
    library_path().write_text(text)
    for use in (read_library, lambda: save_preset("b", WARM), lambda: drop_preset("a")):
        with pytest.raises(fd.FileError, match="has no readable presets"):
            use()
    assert library_path().read_text() == text


def test_names_are_names():
    with pytest.raises(fd.FileError, match="cannot be a name"):
        save_preset("[x]", WARM)
    save_preset("warm", WARM)
    with pytest.raises(fd.FileError, match="Did you mean 'warm'"):
        drop_preset("wamr")


def test_a_preset_as_text_is_the_preset():
    values = tomllib.loads(preset_text("[p]", WARM))["p"]
    assert Preset.model_validate(values) == WARM


def test_a_design_takes_a_preset_at_its_end_and_once():
    text = with_preset(LAYERS, "warm glow", WARM)
    assert text.startswith(LAYERS)
    assert Preset.model_validate(tomllib.loads(text)["presets"]["warm glow"]) == WARM
    with pytest.raises(fd.FileError, match="already"):
        with_preset(text, "warm glow", WARM)


def test_a_layer_goes_back_to_the_defaults_and_all_else_stays():
    text, taken = with_defaults(LAYERS, "a", frozenset({"rate", "duty", "colour"}), "blink")
    assert taken == ["rate"]
    assert text == LAYERS.replace("rate = 3        # gone with it\n", "")
    assert with_defaults(text, "b", frozenset({"rate"}), "blink") == (text, [])
    with pytest.raises(fd.FileError, match="no layer 'c'"):
        with_defaults(text, "c", frozenset(), None)
