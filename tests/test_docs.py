"""The docs say what is true."""

from __future__ import annotations

import re
import runpy
import tomllib
from pathlib import Path

import pytest

import fendra as fd
from fendra.core.design import Design, Layer, Line, Signal
from fendra.core.layout.shapes import SHAPES
from fendra.files.design_file import check_text

ROOT = Path(__file__).parents[1]
PAGES = sorted([*ROOT.glob("*.md"), *(ROOT / "docs").glob("*.md")])
DESIGN_PAGE = (ROOT / "docs" / "design-file.md").read_text(encoding="utf-8")


def test_the_page_of_effects_is_made_from_the_effects():
    made = runpy.run_path(str(ROOT / "scripts" / "make_docs.py"))
    assert made["PAGE"].read_text(encoding="utf-8") == made["page"](), "run `make docs`"


@pytest.mark.parametrize("model", [Design, Line, Signal, Layer, *SHAPES.values()])
def test_the_page_of_the_design_file_names_every_key(model):
    for key in model.model_fields:
        assert re.search(rf"`{key}`|\b{key} = |\[\[?(line\.)?{key}", DESIGN_PAGE), key


def test_the_page_of_the_design_file_names_every_function():
    from fendra.core.graph.expr import FUNCTIONS

    for name in FUNCTIONS:
        assert f"`{name}(" in DESIGN_PAGE, name


def test_every_toml_of_the_docs_parses_and_the_readme_s_is_a_sound_design():
    blocks = [
        block
        for page in PAGES
        for block in re.findall(r"```toml\n(.*?)```", page.read_text(encoding="utf-8"), re.S)
    ]
    assert len(blocks) >= 3
    for block in blocks:
        tomllib.loads(block)
    (readme,) = re.findall(
        r"```toml\n(.*?)```", (ROOT / "README.md").read_text(encoding="utf-8"), re.S
    )
    assert check_text(readme, "README").findings == ()


def test_the_readme_s_python_runs(tmp_path, monkeypatch):
    (block,) = re.findall(
        r"```python\n(.*?)```", (ROOT / "README.md").read_text(encoding="utf-8"), re.S
    )
    for name in ("heron.toml", "ride.csv"):
        (tmp_path / name).write_bytes(fd.demo_file(name).read_bytes())
    monkeypatch.chdir(tmp_path)
    names: dict[str, object] = {}
    exec(compile(block, "README.md", "exec"), names)
    assert (tmp_path / "strip.png").exists()


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.name)
def test_links_and_pictures_lead_somewhere(page):
    for target in re.findall(r"\]\(([^)#:]+)(?:#[^)]*)?\)", page.read_text(encoding="utf-8")):
        assert (page.parent / target).exists(), target


def test_every_screenshot_is_in_the_readme():
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    shots = sorted((ROOT / "docs" / "screenshots").iterdir())
    assert 0 < len(shots) < 20
    for shot in shots:
        assert f"docs/screenshots/{shot.name}" in readme
