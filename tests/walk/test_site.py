"""The docs as a site: built without a warning, whole, and read without a network."""

from __future__ import annotations

import os
import posixpath
import re
import subprocess
import sys
from html.parser import HTMLParser
from pathlib import Path
from urllib.parse import unquote

import pytest
from PIL import Image

from fendra.core.effects import EFFECTS
from shown import ROOT

pytest.importorskip("mkdocs", reason="the site is built with mkdocs")
pytestmark = pytest.mark.slow

LOADED = {"script": "src", "img": "src", "link": "href", "source": "src", "iframe": "src"}
"""Elements that a browser loads something for, and where they say what."""


class Links(HTMLParser):
    """What a page loads and where it leads, and the names of its places."""

    def __init__(self, path: Path) -> None:
        super().__init__()
        self.loads: list[str] = []
        self.leads: list[str] = []
        self.places: set[str] = set()
        self.feed(path.read_text(encoding="utf-8"))

    def handle_starttag(self, tag, attrs):
        said = dict(attrs)
        self.places |= {said[key] for key in ("id", "name") if said.get(key)}
        target = said.get(LOADED.get(tag, ""))
        if target and said.get("rel") != "canonical":
            self.loads.append(target)
        if tag == "a" and said.get("href"):
            self.leads.append(said["href"])


@pytest.fixture(scope="module")
def site(tmp_path_factory):
    """The site, built as `make site` builds it."""
    folder = tmp_path_factory.mktemp("site")
    done = subprocess.run(
        [sys.executable, "-m", "mkdocs", "build", "--strict", "--quiet", "--site-dir", folder],
        cwd=ROOT, capture_output=True, text=True, check=False,
        env=os.environ | {"NO_MKDOCS_2_WARNING": "1"},
    )  # fmt: skip
    assert (done.returncode, done.stdout + done.stderr) == (0, "")
    return folder


def test_every_page_is_on_the_site_and_leads_only_to_what_is_there(site):
    pages = {path.relative_to(site).as_posix(): Links(path) for path in site.rglob("*.html")}
    pages.pop("404.html")  # its addresses are those of a server
    assert {f"{path.stem}.html" for path in (ROOT / "docs").glob("*.md")} < {*pages}
    for name, page in pages.items():
        for target in page.loads + page.leads:
            path, _, place = target.partition("#")
            if re.match(r"[a-z]+:", path):
                assert target not in page.loads or path.startswith("data:"), f"{name}: {target}"
                continue
            there = posixpath.normpath(
                posixpath.join(posixpath.dirname(name), unquote(path) or name)
            )
            if there != ".":
                assert (site / there).exists(), f"{name}: {target}"
            if place and there in pages:
                assert unquote(place) in pages[there].places, f"{name}: {target}"


def test_no_style_loads_anything_from_a_network(site):
    for path in site.rglob("*.css"):
        found = re.findall(
            r"(?:url\(|@import )[\"']?(https?:[^\"')]+)", path.read_text(encoding="utf-8")
        )
        assert not found, path


def test_each_effect_has_a_picture_that_moves_unless_its_light_stands_still(site):
    still = set()
    for name in EFFECTS:
        with Image.open(site / "pictures" / f"effect-{name}.webp") as picture:
            if getattr(picture, "n_frames", 1) < 3:
                still.add(name)
        assert f"pictures/effect-{name}.webp" in (site / "effects.html").read_text(encoding="utf-8")
    assert still == {"picture", "solid"}


def test_the_reference_has_shapes_and_examples(site):
    text = re.sub(r"<[^>]+>", "", (site / "python.html").read_text(encoding="utf-8"))
    for words in (
        "from_values",
        "save_strip",
        "line_bytes",
        "(n, 3)",
        "SignalError",
        "TapeError",
    ):
        assert words in text


def test_the_cheat_sheet_is_one_sheet_of_a4(site, chromium, tmp_path):
    page = chromium.new_page()
    page.goto((site / "cheat-sheet.html").as_uri())
    page.pdf(path=tmp_path / "sheet.pdf", prefer_css_page_size=True)
    printed = (tmp_path / "sheet.pdf").read_bytes()
    assert len(re.findall(rb"/Type\s*/Page\b", printed)) == 1
    width, height = map(
        float, re.search(rb"/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]", printed).groups()
    )
    assert (round(width * 25.4 / 72), round(height * 25.4 / 72)) == (297, 210)  # mm


def test_its_search_finds_a_word_without_a_server(site, chromium):
    asked = []
    page = chromium.new_page()
    page.on("request", lambda request: asked.append(request.url))
    page.goto((site / "index.html").as_uri())
    page.keyboard.press("/")
    page.keyboard.type("brown-out", delay=20)
    page.wait_for_selector(".md-search-result__item")
    assert "Firmware" in page.inner_text(".md-search-result__list")
    assert not [url for url in asked if not url.startswith(("file:", "data:", "blob:"))]
