"""The page as a file: whole, of a bounded size, and with every text as a text."""

from __future__ import annotations

import html
import json
import re

import numpy as np
import pytest

import fendra as fd
from fendra.page import data, write
from fendra.page.gather import MOST_LEDS
from helpers import design, layer, tape


def told(text):
    """What a page knows, as the browser reads it."""
    (found,) = re.findall(r'<script type="application/json" id="data">(.*?)</script>', text)
    return data.PageData.model_validate(json.loads(found))


def test_herons_page_is_one_file_below_one_and_a_half_megabytes(heron):
    text = heron[2].read_text(encoding="utf-8")
    assert heron[2].stat().st_size < 1_500_000
    assert len(re.findall("</script>", text)) == 3
    assert not re.findall(r'(?:src|href)\s*=\s*"', text.partition("<script")[0])
    assert "default-src 'none'" in text


def test_it_knows_what_the_design_says(heron):
    (look,) = told(heron[2].read_text(encoding="utf-8")).looks
    signals = {signal.name: signal for signal in look.signals}
    assert (signals["lean"].low, signals["lean"].high, signals["lean"].unit) == (-30, 30, "deg")
    assert signals["parked"].parts == []
    assert [scene.name for scene in look.scenes] == ["no news", "parked", "riding"]
    assert look.layers[-1].why == "battery_low"
    assert look.layers[0].runs == [[16, 40, 0]]  # the nose bar, after 16 LEDs of a hub
    assert (look.view, look.unit_mm, look.spots.count) == ("top", 1.0, 158)
    (supply,) = look.supplies
    assert supply.limit_a == pytest.approx(0.8 * 6)  # four fifths of what the converter gives


def test_what_a_design_says_of_ports_and_files_is_not_in_it(heron):
    """Heron names a serial port, a bus, pins, an RP2040 and its LED type."""
    text = heron[2].read_text(encoding="utf-8").partition('id="data">')[2].partition("</script>")[0]
    for word in ("ttyACM0", "flasher-left", "rp2040", "heron.toml", "ws2812b"):
        assert word not in text, word


def test_a_text_in_a_design_stays_a_text():
    evil = "</script><img src=x onerror=alert(1)>"
    made = design(layer(name=evil), name=evil, about=evil, signals={"s": {"about": evil}})
    page = made.page()
    assert evil not in page.html
    assert told(page.html).looks[0].name == evil
    assert f"<title>{html.escape(evil)}: Fendra</title>" in page.html


def test_a_notebook_shows_it_in_a_frame_that_may_run_scripts_alone():
    page = design(layer()).page()
    shown = page._repr_html_()
    (inside,) = re.findall(r'srcdoc="([^"]*)"', shown)
    assert html.unescape(inside) == page.html
    assert 'sandbox="allow-scripts"' in shown


def test_what_is_too_large_is_said_before_anything_is_written(tmp_path, monkeypatch):
    target = tmp_path / "page.html"
    large = design(layer(), count=MOST_LEDS + 1, name="Wall")
    with pytest.raises(fd.PageError, match=r"'Wall' has 40,001 LEDs, and a page shows 40,000"):
        large.page(target)
    monkeypatch.setattr(write, "MOST_BYTES", 500_000)
    with pytest.raises(fd.PageError, match=r"would have 1 MB, and the limit is 0 MB"):
        design(layer()).page(target)
    assert not target.exists()


def test_a_tape_of_other_signals_or_of_hours_is_an_error():
    made = design(layer(level="s"), signals={"s": {}})
    with pytest.raises(fd.SignalError, match=r"none of the design's signals\. It has rpm"):
        made.page(tape=tape(rpm=[1, 2]))
    long = fd.Tape(np.array([0.0, 9000.0]), {"s": np.array([0.0, 1.0])}, "night")
    with pytest.raises(fd.PageError, match=r"'night' is 450001 frames long"):
        made.page(tape=long)
