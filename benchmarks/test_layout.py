"""Large layouts: a design read, checked and compiled, and its map drawn."""

from __future__ import annotations

import pytest

import fendra as fd
from fendra.files.design_file import check_text
from fendra.front import Design


def design_text(leds: int) -> str:
    """Matrices of 10 x 10, five a line, with a group, a trail, a signal and two layers."""
    text = 'name = "Large"\nrate = 20\nlevel = 0.05\n'
    text += "[supplies.wall]\namps = 100\nwire = { mm2 = 16 }\n"
    for number in range(leds // 100):
        line, place = divmod(number, 5)
        if place == 0:
            text += f'[[line]]\nname = "line-{line}"\npin = "P{line}"\nsupply = "wall"\n'
        text += (
            f'[[line.part]]\nname = "matrix-{number}"\nshape = "grid"\ncolumns = 10\nrows = 10\n'
            f"pitch = 5\nback_and_forth = true\nat = [{place * 60}, {line * 60}]\n"
        )
    return (
        text
        + """
[groups]
left = "x < 100"
[trails]
out = { of = "all", by = "distance(100, 500)" }
[signals.speed]
range = [0, 10]
[[layer]]
name = "drift"
on = "out"
effect = "gradient"
colours = ["red", "blue"]
rate = "speed"
[[layer]]
name = "scan"
on = "left"
effect = "sweep"
colour = "white"
"""
    )


@pytest.mark.parametrize("spots", [1_000, 10_000])
def test_load_check_and_compile(benchmark, spots):
    text = design_text(spots)

    def load() -> int:
        checked = check_text(text, "large.toml", Design)
        assert checked.findings == ()
        assert isinstance(checked.design, Design)
        return len(checked.design.compile(engine="numpy").layout)

    assert benchmark(load) == spots


@pytest.mark.parametrize("spots", [100, 2_000, 10_000])
def test_draw_the_map(benchmark, tmp_path, spots):
    design = check_text(design_text(spots), "large.toml", Design).design
    assert isinstance(design, fd.Design)
    path = benchmark.pedantic(design.map_figure, args=[tmp_path / "map.png"], rounds=3)
    assert path.stat().st_size > 10_000
