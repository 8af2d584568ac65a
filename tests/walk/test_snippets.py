"""Every design and every Python that a page shows works in a folder with the demo's files."""

from __future__ import annotations

import tomllib
import warnings
from pathlib import Path

import jsonschema
import matplotlib.pyplot as plt
import pytest
import tomlkit

import fendra as fd
from fendra.cli.effect_examples import example_text
from fendra.core.composition.blends import BLENDS
from fendra.core.effects import EFFECTS
from fendra.core.film import Film
from fendra.demo import copy_files
from fendra.files.design_file import check_text
from fendra.schema import design_schema
from shown import PAGES, Block, blocks

ELSEWHERE = {"findings.md", "gallery.md", "tutorial.md"}
"""Pages whose examples are wrong on purpose (`make docs` checks what each gets), stand in shipped
designs already, or are edits of a file (the walk makes them)."""

SCHEMA = jsonschema.Draft202012Validator(design_schema())
DESIGNS = [block for block in blocks("toml") if block.page.name not in ELSEWHERE]


def added(values: dict, more: dict) -> dict:
    """A design with what a page adds to it: tables by their keys, lists at the end."""
    both = dict(values)
    for key, value in more.items():
        old = both.get(key)
        if isinstance(old, dict) and isinstance(value, dict):
            both[key] = old | value
        elif isinstance(old, list) and isinstance(value, list):
            both[key] = old + [each for each in value if each not in old]
        else:
            both[key] = value
    return both


@pytest.mark.parametrize("block", DESIGNS, ids=str)
def test_a_design_that_is_shown_has_no_errors(block: Block, tmp_path):
    """By itself, where it has a line; else in the design that the page names, or in bare.toml. An
    editor with the schema complains of none of them.
    """
    copy_files(tmp_path)
    shown, text = tomllib.loads(block.text), block.text
    if "line" not in shown or block.design:
        base = tomllib.loads((tmp_path / (block.design or "bare.toml")).read_text("utf-8"))
        text = tomlkit.dumps(added(base, shown))
    found = check_text(text, "design.toml", folder=tmp_path).findings
    assert not [str(finding) for finding in found if finding.severity == "error"]
    assert not [str(error) for error in SCHEMA.iter_errors(tomllib.loads(text))]


@pytest.mark.parametrize("name", sorted(EFFECTS))
def test_the_example_of_an_effect_works_when_it_is_pasted_into_a_new_design(name, tmp_path):
    copy_files(tmp_path)
    text = (tmp_path / "bare.toml").read_text(encoding="utf-8")
    path = tmp_path / "mine.toml"
    path.write_text(f"{text}\n{example_text(name, 'tail-bar')}\n", encoding="utf-8")
    film = fd.load(path).compile("numpy").film(fd.Tape([0.0, 0.5], {"throttle": [0.0, 1.0]}))
    assert isinstance(film, Film)


def is_session(page: Path) -> bool:
    found = blocks("python", [page])
    return bool(found) and not found[0].text.startswith(">>>")


@pytest.mark.slow
@pytest.mark.parametrize(
    "page", [page for page in PAGES if is_session(page)], ids=lambda page: page.name
)
def test_the_python_of_a_page_runs(page, tmp_path, monkeypatch):
    """All blocks of a page, in order, as one session; test_docs.py runs the doctests."""
    copy_files(tmp_path)
    monkeypatch.chdir(tmp_path)
    for registry in (EFFECTS, BLENDS):  # what a page adds is gone after it
        monkeypatch.setattr(registry, "_things", {name: registry[name] for name in registry})
    session: dict[str, object] = {"__name__": "shown"}
    with warnings.catch_warnings():
        warnings.simplefilter("ignore", fd.EngineWarning)  # there may be no C compiler
        for block in blocks("python", [page]):
            exec(compile(block.text, page.name, "exec"), session)
    plt.close("all")
