"""The limiter: what a frame is predicted to draw never passes a supply's budget."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

import fendra as fd
from fendra.core.electric.limiter import FULL, Limit, Limiter, Span, highest_gain, next_gain
from fendra.core.electric.loads import make_loads
from helpers import design, layer, strip, tape
from strategies import examples


def wired(budget: float, leds=("ws2812b", "sk6812-rgbw", "ws2811"), count=7):
    """A line of each type on one supply; the first is wired twice."""
    lines = [
        {"name": led, "led": led, "supply": "s",
         "part": [strip(f"bar-{i}", count * (3 if led == "ws2811" else 1), at=[0, 9 * i])]}
        for i, led in enumerate(leds)
    ]  # fmt: skip
    lines[0]["part"].append(strip("again", 4, at=[0, -9], parallel_to="bar-0"))
    return fd.Design.from_values({"line": lines, "supplies": {"s": {"budget": budget}}})


def predicted_a(made: fd.Design, rgb: np.ndarray) -> float:
    """LED by LED, as the data sheets have it: independent of how it is summed elsewhere."""
    total = 0.0
    layout = made.layout()
    for row in layout.parts:
        led = made.line[row.line].led_type
        pixels = [
            layout.spots_of_part(row.name).start + i
            if row.kind == "lit"
            else layout.spots_of_part("bar-0").start + i
            for i in range(row.count)
        ]
        for spot in pixels:
            red, green, blue = (int(value) for value in rgb[spot])
            white = min(red, green, blue) if "W" in led.order else 0
            bytes_of = {"R": red - white, "G": green - white, "B": blue - white, "W": white}
            total += led.idle_ua * 1e-6
            total += sum(bytes_of[c] / 255 * led.channel_ua[c] * 1e-6 for c in led.order)
    return total


films = arrays(np.uint8, (6, 21, 3), elements=st.one_of(st.integers(0, 3), st.integers(0, 255)))


@examples(150)
@given(films, st.floats(0.03, 3.0), st.lists(st.integers(0, 3000), min_size=6, max_size=6))
def test_no_frame_passes_the_budget_and_one_within_it_stays_as_it_is(film, budget, steps_ms):
    made = wired(budget)
    limits = made.compile(engine="numpy").plan.limits
    limiter = Limiter(limits)
    for step_ms, frame in zip(steps_ms, film, strict=True):
        held = frame.copy()
        before = limiter.gains[0] if limits else FULL
        limiter.apply(step_ms, held)
        assert predicted_a(made, held) <= budget + 1e-9
        gain = limiter.gains[0] if limits else FULL
        assert gain <= min(before + 32 * step_ms, FULL)  # it comes back slowly
        if predicted_a(made, frame) <= budget - 1e-6 and before == FULL:
            assert (held == frame).all()
        assert np.abs(held - frame * (gain / FULL)).max() <= 0.5 + 1e-9  # so hues stay


@given(films, st.floats(0.03, 3.0))
def test_what_the_loads_predict_is_what_the_data_sheets_say(film, budget):
    made = wired(budget)
    loads = make_loads(made, made.layout())
    total = loads.supply_a(loads.line_a(film))
    for frame, row in zip(film, total, strict=True):
        assert row[0] == pytest.approx(predicted_a(made, frame), abs=1e-12)
    by_address = sum(loads.address_a(line, film).sum(axis=-1) for line in range(3))
    assert by_address == pytest.approx(total[:, 0])


def test_a_frame_at_the_budget_stays_one_above_it_is_scaled():
    """Ten LEDs of 61 mA at full white: 0.61 A. At 0.61 A nothing is done, at 0.609 A it is."""
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    for budget, expected in ((0.611, 255), (0.61, 255), (0.609, 254), (0.31, 127)):
        made = design(layer(), line=line, supplies={"s": {"budget": budget}})
        frame = made.compile().frame(at=0.0)
        assert frame.rgb.min() == frame.rgb.max() == expected, budget


def test_the_budget_is_four_fifths_of_the_rating_and_the_limiter_can_be_left_out():
    """Ten LEDs, 10 mA dark. Of 0.5 A 0.4 are kept: 0.39 / 0.6 of the light, 0.65."""
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    supplies = {"s": {"amps": 0.5}}
    held = design(layer(), line=line, supplies=supplies).compile().frame(at=0.0).rgb
    assert 0.65 * 255 - 1.5 < held.min() <= held.max() <= 0.65 * 255
    for free in ({"amps": 0.5, "limiter": False}, {"about": "nothing is known"}):
        made = design(layer(), line=line, supplies={"s": free})
        assert made.compile().frame(at=0.0).rgb.min() == 255


def test_it_falls_at_once_and_comes_back_slowly_and_a_film_tells_of_it():
    """1 s dark, 1 s white, then a dim red: it rests for 1 s, and from 1/2 on takes 1 s to full."""
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    white = layer(when="s > 0.5")
    dim = layer(colour="red", level=0.5, when="s < -0.5")
    made = design(
        dim, white, line=line, signals={"s": {}}, supplies={"s": {"budget": 0.31}, "none": {}}
    )
    program = made.compile()
    film = program.film(tape(20.0, s=[0] * 20 + [1] * 20 + [-1] * 60))
    share = film.let_through["s"]
    assert (share[:50] == 1).all()
    assert share[50:100] == pytest.approx(0.5, abs=0.003)
    assert (share[100:149] == share[99]).all()
    assert share[149] == pytest.approx(share[99])
    assert share[150] < share[151] < share[175] < share[200]
    assert share[175] == pytest.approx(0.5 + 27 * 20 * 32 / FULL, abs=0.012)
    assert (share[203:] == 1).all()
    (told,) = film.limited()
    assert (told.supply, told.at_s) == ("s", 1.0)
    assert str(told).startswith("limiter of 's': held back 15")
    assert "at 1 s down to 50% of the light" in str(told)
    program.reset()
    assert program.film(film.tape).rgb.tobytes() == film.rgb.tobytes()


def test_dark_leds_alone_beyond_the_budget_leave_no_light():
    assert highest_gain(10, 0, 0) == 0
    line = [{"name": "a", "supply": "s", "part": [strip(count=100)]}]
    made = design(layer(), line=line, supplies={"s": {"budget": 0.05, "amps": 1.0}})
    limits = made.compile(engine="numpy").plan.limits if not _errors(made) else ()
    for limit in limits:
        assert limit.most == 0


def _errors(made):
    return [finding for finding in made.check() if finding.severity == "error"]


@given(st.lists(st.tuples(st.integers(0, FULL), st.integers(0, 4000)), min_size=1, max_size=40))
def test_the_gain_falls_at_once_rests_and_rises_no_faster_than_it_may(frames):
    """highest: what each frame allows; step_ms: since the one before. A second's rest, then 32 a ms."""
    gain, rest_ms, since_ms = FULL, 0, 10_000
    for highest, step_ms in frames:
        before, (gain, rest_ms) = gain, next_gain(gain, rest_ms, highest, step_ms)
        since_ms = 0 if highest <= before and highest < FULL else since_ms + step_ms
        assert gain <= highest
        assert gain <= before + 32 * step_ms
        assert 0 <= rest_ms <= 1000
        if gain > before:
            assert since_ms >= 1000
    assert next_gain(gain, rest_ms, FULL, 1000 + 2048)[0] == FULL


def test_a_weak_white_stays_within_the_budget_however_its_bytes_are_rounded():
    """Half a step up for red and green is half a step down for what white takes out of both. 40 equal
    LEDs are rounded alike, so that it adds up: 2.2 mA too many, were it counted once."""
    span = Span(line=0, first=0, end=40, ua=(20_000, 20_000, 20_000, 5_000))
    limit = Limit("s", 26_000 * 255, (span,))
    rgb = np.tile(np.array([26, 237, 184], np.uint8), (40, 1))
    Limiter([limit]).apply(20, rgb)
    assert rgb.any()
    assert limit.draw(rgb) <= limit.most


def test_what_flashes_does_not_make_all_else_pump():
    """A dim white below, a bright one flashing over it twice a second: the dim one stays as it is."""
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    flash = layer("blink", rate=2.0, colour="white", level=1.0, when="s > 0.5")
    made = design(
        layer(level=0.6), flash, line=line, signals={"s": {}}, supplies={"s": {"budget": 0.4}}
    )
    film = made.compile().film(tape(1.0, s=[1] * 6))
    dim = film.rgb[:, 0, 0]
    below = dim[(dim < 100) & (film.times > 0.6)]
    assert len(below) > 50
    assert np.ptp(below.astype(int)) == 0
    assert np.ptp(film.let_through["s"][film.times > 0.6]) == 0
