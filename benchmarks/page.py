"""What a frame of the page takes in Chromium, from the browser's own clock.

    .venv-dev/bin/python benchmarks/page.py

Heron, and a wall of as many LEDs as are asked for, with the six layers of the scene. Here Chromium
draws without a graphics card, by SwiftShader on the processor: `between` is what that allows, and
`module` and `draw` are what the page itself takes of a frame.
"""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path
from statistics import median

import numpy as np
from playwright.sync_api import sync_playwright

import fendra as fd
from scene import fendra_design

SECONDS = 6
FLAGS = ["--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"]


def wall(leds: int) -> fd.Design:
    """The scene in rows above each other, twice as wide as high."""
    values = fendra_design(leds).model_dump(mode="python", exclude_unset=True)
    columns = max(round((2 * leds) ** 0.5), 1)
    for part in values["line"][0]["part"]:
        count = part["count"]
        row = np.arange(count)
        first = int(part["start"][0] / 10)
        places = np.stack([(first + row) % columns, (first + row) // columns], axis=1) * 10.0
        part.clear()
        name = f"p{first}"
        part.update(name=name, shape="points", points=[[x, y, 0.0] for x, y in places.tolist()])
    names = [part["name"] for part in values["line"][0]["part"]]
    for layer in values["layer"]:
        layer["on"] = {"a": names[0], "b": names[1], "c": names[2]}.get(layer["on"], layer["on"])
    return fd.Design.from_values(values)


def main() -> None:
    """Print a row for each design."""
    heron = fd.load(fd.demo_file("heron.toml"))
    ride = fd.read_tape(fd.demo_file("ride.csv"), heron)
    times = np.arange(0, 60, 0.05)
    wave = np.sin(times)
    courses = {"brake": 0.5 + 0.5 * wave, "rpm": 3000 + 2900 * wave, "battery": 48 + 0 * times}
    made_up = fd.Tape(times, {**courses, "left": (times % 1 < 0.5) * 1.0})
    designs = {158: (heron, ride)} | {n: (wall(n), made_up) for n in (2_000, 20_000)}
    print("| LEDs | file, MB | module, ms | draw, ms | between frames, ms |")
    print("| --- " * 5 + "|")
    path = shutil.which("chromium") or shutil.which("chromium-browser")
    with sync_playwright() as running, tempfile.TemporaryDirectory() as folder:
        browser = running.chromium.launch(executable_path=path, args=FLAGS)
        for leds, (design, tape) in designs.items():
            file = design.page(Path(folder) / f"{leds}.html", tape).path
            assert file is not None
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(file.as_uri())
            page.wait_for_timeout(1500)
            page.evaluate("fendra.flashes = 'shown'; fendra.play(true)")
            page.wait_for_timeout(1000 * SECONDS)
            timing = page.evaluate("fendra.timing")
            figures = [median(timing[key]) for key in ("module", "draw", "between")]
            size = file.stat().st_size / 1e6
            print(f"| {leds:,} | {size:.2f} | " + " | ".join(f"{x:.1f}" for x in figures) + " |")
            page.close()
        browser.close()


if __name__ == "__main__":
    main()
