"""Any valid design renders."""

from __future__ import annotations

import numpy as np
from hypothesis import assume, given

import fendra as fd
from fendra.core.electric.loads import make_loads
from strategies import designs, examples, news


@examples(100)
@given(designs(), news)
def test_any_valid_design_renders_without_error(plain, news):
    """No finding of severity error, every frame whole and within the budgets of its supplies, all
    light finite, and the same twice."""
    design = fd.Design.from_values(plain)
    unfit = ("low and high are equal", "no light is left")
    assume(not any(words in found.message for words in unfit for found in design.check()))
    assert [str(f) for f in design.check() if f.severity == "error"] == []
    program = design.compile(engine="numpy")
    loads = make_loads(design, design.layout())
    runs = []
    for _ in range(2):
        program.reset()
        at_ms, frames = 0, []
        for step_ms, s, on in news:
            at_ms += step_ms
            frame = program.frame(s=s, on=on, at=at_ms / 1000)
            assert frame.rgb.shape == (len(design.layout()), 3)
            assert np.isfinite(program.engine._canvas).all()
            assert [len(line) for line in frame.line_bytes()] == [
                size * len(line.wire_order)
                for size, line in zip(frame.layout.line_sizes, design.line, strict=True)
            ]
            drawn_a = loads.supply_a(loads.line_a(frame.rgb))
            for feeding, amps in zip(loads.feedings, drawn_a, strict=True):
                assert feeding.budget_a is None or amps <= feeding.budget_a + 1e-9
            frames.append(frame.rgb.tobytes())
        runs.append(frames)
    assert runs[0] == runs[1]
