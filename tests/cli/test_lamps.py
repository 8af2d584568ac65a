"""A lamp array from end to end, against a stand-in that checks each report."""

from __future__ import annotations

import time

import pytest

import fendra as fd
from fendra.demo.lamp_array import ACCENT, BRANDING, Lamp, LampArrayDevice, serving
from fendra.files.lamp_places import lamp_placements
from fendra.live.loop import run_live
from fendra.outputs import make_output
from fendra.outputs.lamps import open_array
from fendra.sources.tape import TapeSource
from helpers import tape

KEYS = """
[signals.s]
range = [0, 1]

[[layer]]
name = "sweep"
on = "all"
effect = "gradient"
colours = ["red", "blue"]
level = "s"
"""


@pytest.fixture
def device():
    return LampArrayDevice()


@pytest.fixture
def at(device):
    with serving(device) as address:
        yield address


def imported(fendra, at, tmp_path, more=KEYS):
    path = tmp_path / "keys.toml"
    code, _, err = fendra("import", f"lamps:{at}", "--into", path, "--part", "keys")
    assert code == 0, err
    path.write_text(path.read_text(encoding="utf-8") + more, encoding="utf-8")
    return fd.load(path)


def test_positions_come_in_in_millimetres_with_the_user_below(fendra, at, device, tmp_path):
    """The first key: 12 mm from the left, 15 of 100 mm from the top, 2.5 of 8 mm below the front.
    The lamp of A, number 24, is the first of the third row."""
    design = imported(fendra, at, tmp_path)
    layout = design.layout()
    assert len(layout) == 58
    assert layout.position[0].tolist() == pytest.approx([12, 85, 5.5])
    assert layout.names[24] == "a"
    assert layout.position[24].tolist() == pytest.approx([21.4, 46.9, 5.5])
    assert [part.name for part in design.line[0].part] == [
        "keys-control",
        "keys-branding",
        "keys-accent",
    ]
    assert device.wrong == []
    assert device.is_autonomous  # nothing was taken


def test_frames_go_out_at_the_device_s_rate_and_control_goes_back(fendra, at, device, tmp_path):
    device.interval_us = 40_000  # 25 updates a second, and the design makes 50
    design = imported(fendra, at, tmp_path)
    count = 120
    source = TapeSource(tape(s=[0.2 + 0.6 * (i % 20) / 20 for i in range(count)]))
    run_live(design.compile(), source, make_output(f"lamps:{at}"))
    until_s = time.monotonic() + 5
    while not device.is_autonomous and time.monotonic() < until_s:
        time.sleep(0.01)
    assert device.wrong == []
    assert device.is_autonomous
    spans = [b - a for a, b in zip(device.updates, device.updates[1:], strict=False)]
    assert min(spans) >= 0.04 - 1e-3
    assert len(device.updates) >= 10


def test_the_device_shows_the_frame(fendra, at, device, tmp_path):
    """Red at full: keys have 255 levels, the badge is white only with 15, the bar has 63."""
    red = '[[layer]]\nname = "r"\non = "all"\neffect = "solid"\ncolour = "red"\n'
    design = imported(fendra, at, tmp_path, red)
    program = design.compile()
    with make_output(f"lamps:{at}") as output:
        output.open(design)
        assert not device.is_autonomous
        assert output.most_frames_hz(design) == pytest.approx(100.0)
        before = device.reports
        output.send(program.frame(at=0.0))
        assert device.shown[0] == (255, 0, 0, 1)
        assert device.shown[48] == (1, 0, 0, 15)
        assert device.shown[49] == (63, 0, 0, 1)
        assert device.reports - before == 3  # two ranges, and the badge by itself
        output.send(program.frame(at=0.02))
        assert (device.reports - before, len(device.updates)) == (3, 1)  # nothing has changed
    assert device.is_autonomous
    assert device.wrong == []


def test_a_device_that_does_not_go_on_to_the_next_lamp_is_asked_for_each(
    fendra, at, device, tmp_path
):
    usual = device.get

    def stays(report):
        before = device._asked
        answer = usual(report)
        device._asked = before
        return answer

    device.get = stays
    assert imported(fendra, at, tmp_path).layout().names[24] == "a"
    assert device.wrong == []


def test_another_keyboard_than_the_design_s_is_told(fendra, at, device, tmp_path):
    design = imported(fendra, at, tmp_path)
    del device.lamps[-1]
    with pytest.raises(fd.OutputError, match=r"has 57 lamps, and 'main' of this design 58 LEDs"):
        make_output(f"lamps:{at}").open(design)
    assert device.is_autonomous


def test_a_device_that_is_gone_is_told_and_tried_again(fendra, at, device, tmp_path):
    design = imported(fendra, at, tmp_path)
    output = make_output(f"lamps:{at}")
    output.open(design)
    output.array.device.close()
    with pytest.raises(fd.OutputError, match="is gone"):
        output.send(design.compile().frame(s=1.0))
    output.close()
    output.open(design)  # and it is back
    output.close()


def test_without_a_lamp_array_it_says_so():
    with pytest.raises(
        fd.OutputError, match=r"there is no lamp array like 'zebra'\. There are none"
    ):
        open_array("zebra")


def test_purposes_that_alternate_make_one_part(at, device):
    device.lamps = [Lamp(i * 1000, 0, 0, (ACCENT, BRANDING)[i % 2]) for i in range(20)]
    array, _ = open_array(at)
    assert {each.part for each in lamp_placements(array, "keys", "Zig Zag")} == {"zig-zag"}
    array.device.close()


def test_a_device_that_lies_is_refused(at, device):
    device.lamps = []
    with pytest.raises(fd.OutputError, match="does not keep to the standard: it has 0 lamps"):
        open_array(at)


def test_the_stand_in_refuses_what_the_standard_does_not_allow(device):
    for data, why in (
        (bytes([0x15, 1, 0, 0, 0, 0, 1, 0, 0, 1]), "while the device shows its own light"),
        (bytes([0x16, 2]), "autonomous mode 2"),
        (bytes([0x16]), "has 1 bytes"),
        (bytes([0x12, 99, 0]), "there is no lamp 99"),
        (bytes([0x11]), "cannot be set"),
    ):
        assert not device.set(data)
        assert why in device.wrong[-1]
    assert device.set(bytes([0x16, 0]))
    assert not device.set(bytes([0x15, 1, 5, 0, 4, 0, 1, 0, 0, 1]))
    assert "a range from 5 to 4" in device.wrong[-1]
    assert not device.set(bytes([0x15, 1, 48, 0, 48, 0, 9, 0, 0, 1]))
    assert "lamp 48 has no level" in device.wrong[-1]


def test_lamps_of_a_device_are_in_no_sum(fendra, at, tmp_path):
    """Neither in currents nor among the lines whose time limits the frames."""
    imported(fendra, at, tmp_path)
    code, out, _ = fendra("check", tmp_path / "keys.toml")
    assert code == 0
    assert "Lamps of devices of their own, in no sum: 'main'." in out
    assert "slowest" not in out
    assert "lowest voltage" not in out
