"""The docs say what is true."""

from __future__ import annotations

import doctest
import re
import runpy
import subprocess
import sys
import tomllib
from pathlib import Path

import pytest

from fendra.core.catalogue.leds import LedFigures, Measured
from fendra.core.catalogue.supplies import Battery, Converter, Supply
from fendra.core.catalogue.wires import Jump, Lead
from fendra.core.document.choice import GroupTable, OnCanvas, Trail
from fendra.core.document.design import Design
from fendra.core.document.layer import Layer, Preset, Scene
from fendra.core.document.line import Assembly, Controller, Feed, Line, Link
from fendra.core.document.panel import PageKeys, PanelRow
from fendra.core.document.signal import Signal
from fendra.core.shapes import SHAPES
from fendra.files.design_file import check_text

ALL_MODELS = [
    Design, Line, Controller, Supply, Assembly, GroupTable, Trail, Signal, Layer, Feed, Link,
    Preset, Scene, OnCanvas, PageKeys, PanelRow,
    LedFigures, Measured, Battery, Converter, Lead, Jump, *SHAPES.values(),
]  # fmt: skip
ROOT = Path(__file__).parents[1]
PAGES = sorted([*ROOT.glob("*.md"), *(ROOT / "docs").glob("*.md")])
DESIGN_PAGE = "".join(
    (ROOT / "docs" / name).read_text(encoding="utf-8") for name in ("design-file.md", "electric.md")
)


def test_the_pages_that_follow_from_the_code_are_those_of_the_code(monkeypatch):
    monkeypatch.syspath_prepend(str(ROOT / "scripts"))
    made = runpy.run_path(str(ROOT / "scripts" / "make_docs.py"))["pages"]()
    assert {path.name for path in made} == {
        "architecture.md",
        "architecture.svg",
        "bench.md",
        "boards.md",
        "cheat-sheet.html",
        "commands.md",
        "connections.md",
        "data.schema.json",
        "design-file.md",
        "effects.md",
        "electric.md",
        "findings.md",
        "gallery.md",
        "http.md",
        "operations.md",
        "security.md",
        "heron.h",
        "heron.c",
    }
    for path, text in made.items():
        assert path.read_text(encoding="utf-8") == text, f"{path.name}: run `make docs`"


@pytest.mark.parametrize("model", ALL_MODELS)
def test_the_page_of_the_design_file_names_every_key(model):
    for key in (field.alias or name for name, field in model.model_fields.items()):
        assert re.search(rf"`{key}`|\b{key} = |\[\[?(line\.)?{key}", DESIGN_PAGE), key


def test_the_page_of_the_design_file_names_every_function():
    from fendra.core.language.vocabulary import FUNCTIONS

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


def test_the_readme_s_python_is_typed(tmp_path):
    """What is shown passes the strictest check, as a maker's editor runs it."""
    pytest.importorskip("mypy", reason="mypy is not installed")
    blocks = [
        block
        for page in (ROOT / "README.md", ROOT / "docs" / "seeing.md")
        for block in re.findall(r"```python\n(.*?)```", page.read_text(encoding="utf-8"), re.S)
    ]
    (tmp_path / "shown.py").write_text("\n".join(blocks), encoding="utf-8")
    mypy = [sys.executable, "-m", "mypy", "--strict", f"--cache-dir={tmp_path}", "shown.py"]
    done = subprocess.run(mypy, capture_output=True, text=True, cwd=tmp_path, check=False)
    assert done.returncode == 0, done.stdout


def test_the_c_of_the_page_on_emitted_c_names_what_there_is():
    (block,) = re.findall(
        r"```c\n(.*?)```", (ROOT / "docs" / "emitted-c.md").read_text(encoding="utf-8"), re.S
    )
    header = (ROOT / "docs" / "emitted" / "heron.h").read_text(encoding="utf-8")
    for name in (
        "struct heron ",
        "struct heron_signals ",
        "HERON_BYTES",
        "HERON_TAIL_AT",
        "heron_init",
        "heron_step",
    ):
        assert name in block
        assert name in header
    assert "struct heron_signal brake;" in header


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.name)
def test_links_and_pictures_lead_somewhere(page):
    for target in re.findall(r"\]\(([^)#:]+)(?:#[^)]*)?\)", page.read_text(encoding="utf-8")):
        is_drawn = target.startswith("pictures/")  # as the site is built: tests/walk/test_site.py
        assert is_drawn or (page.parent / target).exists(), target


def test_the_page_that_follows_one_value_shows_what_happens(tmp_path):
    page = ROOT / "docs" / "one-value.md"
    done = doctest.testfile(str(page), module_relative=False, extraglobs={"folder": tmp_path})
    assert done.attempted > 20
    assert done.failed == 0


def test_every_file_that_the_page_names_is_there():
    """As `core/signals/tape.py`, below the package."""
    for page in ("one-value.md", "architecture.md"):
        text = (ROOT / "docs" / page).read_text(encoding="utf-8")
        for name in re.findall(r"`((?:[a-z0-9_]+/)+(?:[a-z0-9_]+\.py)?)`", text):
            assert (ROOT / "src" / "fendra" / name).exists(), name


def test_every_screenshot_is_in_the_readme():
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    shots = sorted((ROOT / "docs" / "screenshots").iterdir())
    assert 0 < len(shots) < 20
    for shot in shots:
        assert f"docs/screenshots/{shot.name}" in readme


def test_each_pip_install_works_from_a_copy_of_the_project():
    """In pages and messages: this folder, or an extra that the project has. Extras whose name is
    worked out are in tests of the messages.
    """
    project = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    sources = [*PAGES, *(ROOT / "src").rglob("*.py")]
    named = re.findall(
        r"pip install ['\"]?([^\s'\"`|]+)", "".join(p.read_text(encoding="utf-8") for p in sources)
    )
    extras = {f"fendra[{name}]" for name in project["optional-dependencies"]}
    known = extras | {name.replace("fendra", ".") for name in extras} | {"."}
    several = [re.fullmatch(r"(\.|fendra)\[(.+)\]", name) for name in named if "{" not in name]
    each = {f"{one[1]}[{extra}]" for one in several if one for extra in one[2].split(",")}
    bare = {name for name in named if "[" not in name and "{" not in name}
    assert (each | bare) - known == set()
    assert {".", ".[desk]", "fendra[page]"} <= {*named}
