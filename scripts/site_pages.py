"""What the site has beside the pages of docs/: `make site`, as hooks of MkDocs.

The README is its first page; changes, contributing, examples and the Python reference are made from
what stands elsewhere. Moving pictures of the effects and of the shipped designs are drawn as it is
built.
"""

from __future__ import annotations

import inspect
import io
import re
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np
from mkdocs.structure.files import File, Files
from PIL import Image

import fendra as fd
from fendra.cli.effect_examples import example_film
from fendra.core.effects import EFFECTS
from fendra.draw.glow import Stage
from fendra.draw.still import draw_still

ROOT = Path(__file__).parents[1]
PER_S = 12.5

SHOWS = {
    "heron": ("ride.csv", 20.5, "top"),
    "drone": ("flight.csv", 5.0, "top"),
    "pad": ("typing.csv", 3.0, "top"),
    "cabinet": ("game.csv", 6.0, "front"),
    "desk": ("desk.csv", 24.0, "top"),
    "swift": ("glide.csv", 4.0, "top"),
}
"""Design to its tape, where its picture begins on it, and the side."""

PYTHON = """# Python

`import fendra as fd` gives these names. Arrays have their shape and type in the text; lengths are
millimetres, times are seconds, levels are 0 to 1.

## Designs
::: fendra.front.load
::: fendra.front.Design
    options:
      inherited_members: false

## Programs, frames and films
::: fendra.front.Program
::: fendra.core.film.Frame
::: fendra.front.Film

## Layouts
::: fendra.core.layout.Layout

## Tapes
::: fendra.files.tape_file.read_tape
::: fendra.core.signals.tape.Tape

## Findings and errors
::: fendra.core.findings.Finding
::: fendra.core.errors
    options:
      show_root_heading: false
      show_root_toc_entry: false
      members: [ERRORS]

## Files that ship, and trust
::: fendra.demo.demo_file
::: fendra.files.trust.trust

## Effects of your own
::: fendra.core.effects.kit
    options:
      show_root_heading: false
      show_root_toc_entry: false
      inherited_members: false
"""


def on_files(files: Files, config: Any, **_: Any) -> Files:
    """Add the pages and pictures that stand elsewhere or are drawn."""

    def add(name: str, content: str | bytes) -> None:
        files.append(File.generated(config, name, content=content))

    add("index.md", relinked((ROOT / "README.md").read_text("utf-8"), "docs/", ""))
    for source, page in (("CHANGELOG.md", "changelog.md"), ("CONTRIBUTING.md", "contributing.md")):
        add(page, relinked((ROOT / source).read_text("utf-8"), "docs/", ""))
    add("examples.md", examples_page())
    add("python.md", PYTHON.replace("ERRORS", ", ".join(errors())))
    for name in EFFECTS:
        add(f"pictures/effect-{name}.webp", effect_picture(name))
    for name in SHOWS:
        add(f"pictures/{name}.webp", design_picture(name))
    return files


def on_page_markdown(markdown: str, page: Any, **_: Any) -> str:
    """Links out of docs/ lead to pages of the site; each effect has its moving picture."""
    text = relinked(markdown, "../", "")
    if page.file.src_uri == "effects.md":
        for name in EFFECTS:
            picture = f"![{name}, moving](pictures/effect-{name}.webp){{ .effect loading=lazy }}"
            text = text.replace(f"\n## {name}\n", f"\n## {name}\n\n{picture}\n", 1)
    return text


def relinked(text: str, before: str, after: str) -> str:
    """A page whose links lead to where things are on the site."""
    text = text.replace(f"]({before}", f"]({after}")
    text = re.sub(r"\]\(examples/(\w+)\.py\)", r"](examples.md#\1)", text)
    text = text.replace("](CHANGELOG.md", "](changelog.md")
    text = text.replace("](CONTRIBUTING.md", "](contributing.md").replace(
        "](README.md", "](index.md"
    )
    return re.sub(r"\[([^\]]+)\]\((?:LICENSE|scripts/\w+\.py)\)", r"\1", text)


def examples_page() -> str:
    """The programs of examples/."""
    text = "# Examples\n\nWhole programs, in the folder `examples`. Tests run each of them.\n"
    for path in sorted((ROOT / "examples").rglob("*.py")):
        code = path.read_text("utf-8")
        about = re.match(r'"""(.*?)"""\n+', code, re.S)
        assert about is not None, path
        words = about[1].strip()
        text += f"\n## {path.stem.replace('_', ' ').capitalize()} {{ #{path.stem} }}\n\n{words}\n"
        text += f"\n```python\n{code[about.end() :]}```\n"
    return text


def errors() -> list[str]:
    """The names of all errors and warnings, in the order of their file."""
    from fendra.core import errors as module

    found = inspect.getmembers(module, inspect.isclass)
    own = [item for item in found if item[1].__module__ == module.__name__]
    return [
        name for name, thing in sorted(own, key=lambda item: inspect.getsourcelines(item[1])[1])
    ]


@cache
def effect_picture(name: str) -> bytes:
    """Three seconds of an effect on a ring, a strip and a grid."""
    return moving(example_film(name), 0.0, 3.0, (520, 230), "top", has_words=False)


@cache
def design_picture(name: str) -> bytes:
    """Four seconds of a shipped design on its tape."""
    tape, start_s, view = SHOWS[name]
    design = fd.load(fd.demo_file(f"{name}.toml"))
    film = design.compile().film(fd.read_tape(fd.demo_file(tape)))
    return moving(film, start_s, 4.0, (640, 400), view)


def moving(
    film: Any, start_s: float, seconds: float, size: tuple[int, int], view: Any, *,
    has_words: bool = True,
) -> bytes:  # fmt: skip
    """A moving picture, as WebP."""
    stage = Stage(film.design, film.layout, size, view)
    times = start_s + np.arange(round(seconds * PER_S)) / PER_S
    draw = draw_still if has_words else lit
    first, *rest = [draw(stage, film, at_s) for at_s in times.tolist()]
    kept = io.BytesIO()
    first.save(
        kept, "WEBP", save_all=True, append_images=rest, duration=round(1000 / PER_S), loop=0,
        quality=55, method=2,
    )  # fmt: skip
    return kept.getvalue()


def lit(stage: Stage, film: Any, at_s: float) -> Image.Image:
    """The moment of a film, without words."""
    return Image.fromarray(stage.lit(film.frame(at_s).seen))
