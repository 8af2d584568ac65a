"""A keyboard of one's own that is a lamp array: its whole firmware in an emulator of the RP2040, with a
computer at its USB, and its reports held to what the output `lamps` makes of them."""

from __future__ import annotations

import shutil
import struct
import subprocess

import numpy as np
import pytest

import fendra as fd
from fendra.firmware.project import make_project
from fendra.firmware.write import write_project
from fendra.lamps.array import LampArray
from fendra.lamps.make import lamp_descriptor
from fendra.lamps.reports import LampReports
from fendra.lamps.usages import Usage
from helpers import design, layer
from rp2040 import MODULE, emulate, outs_of, uf2_of

pytestmark = pytest.mark.slow


def pad(**keys):
    """Four keys in inches, one of them shifted, and three LEDs of RGBW beside them."""
    line = [
        {"name": "keys", "pin": "GP2", "part": [
            {"name": "pad", "shape": "keys", "columns": [{"keys": 2}, {"keys": 2, "shift": 0.25}],
             "names": ["esc", "a", "f13", "up"]}]},
        {"name": "bar", "pin": "GP6", "led": "sk6812-rgbw", "part": [
            {"name": "glow", "shape": "strip", "start": [2, -1], "direction": "right", "count": 3,
             "pitch": 0.5}]},
    ]  # fmt: skip
    lamps = {"kind": "keyboard", **keys}
    return design(
        layer(colour="#000028", on="all"), line=line, units="in",
        controllers={"main": {"type": "rp2040", "lamps": lamps}},
    )  # fmt: skip


@pytest.fixture(scope="module")
def tools(need):
    need([tool for tool in ("arm-none-eabi-gcc", "node") if shutil.which(tool) is None],
         "gcc-arm-none-eabi libnewlib-arm-none-eabi npm")  # fmt: skip
    need([] if MODULE.exists() else ["rp2040js"], "npm; then npm ci in web/")


def control(kind, request, value, size, data=b""):
    """A control transfer of interface 0: the setup packet and its data, hexadecimal."""
    return [struct.pack("<BBHHH", kind, request, value, 0, size).hex(), data.hex()]


def asked(report, size=64):
    return control(0xA1, 0x01, 0x0300 | report, size)


def told(data):
    return control(0x21, 0x09, 0x0300 | data[0], len(data), data)


def run_with(transfers, tmp_path, seconds=0.35):
    project = make_project(pad().examined.subject, "rp2040")
    uf2 = uf2_of(project, tmp_path)
    (board,) = emulate(
        {"uf2": str(uf2), "outs": outs_of(project), "usb": transfers}, seconds=seconds
    )
    assert len(board["answers"]) == len(transfers), board["answers"]
    return project, board


START = [
    control(0x80, 6, 0x0100, 64), control(0x00, 5, 7, 0), control(0x80, 6, 0x0200, 255),
    control(0x80, 6, 0x0302, 255), control(0x00, 9, 1, 0), control(0x81, 6, 0x2200, 1024),
]  # fmt: skip
"""As a computer begins: device, address, configuration, product, set it, report descriptor."""


def test_a_computer_reads_sets_and_gives_back_the_lamps(tools, tmp_path):
    reports = LampReports(lamp_descriptor())
    red = {Usage.FLAGS: 0, Usage.FIRST_ID: 0, Usage.LAST_ID: 6, Usage.RED: 200, Usage.INTENSITY: 1}
    multi = {Usage.LAMP_COUNT: 2, Usage.FLAGS: 1, Usage.LAMP_ID: [1, 5], Usage.GREEN: [0, 80],
             Usage.BLUE: [255, 0], Usage.INTENSITY: [1, 1]}  # fmt: skip
    transfers = [
        *START,
        asked(1), told(reports.pack(Usage.REQUEST_REPORT, {Usage.LAMP_ID: 2})), asked(3), asked(3),
        asked(9), told(bytes([6, 7])),
        told(reports.pack(Usage.CONTROL_REPORT, {Usage.AUTONOMOUS: 0})),
        told(reports.pack(Usage.RANGE_REPORT, red)), told(reports.pack(Usage.MULTI_REPORT, multi)),
    ]  # fmt: skip
    project, board = run_with(transfers, tmp_path)
    answers = [bytes.fromhex(each) if each != "stall" else None for each in board["answers"]]
    assert answers[0][:8] == bytes([18, 1, 0, 2, 0, 0, 0, 64])
    assert answers[0][8:12] == bytes([0x09, 0x12, 0x01, 0x00])
    assert answers[2][:4] == bytes([9, 2, 34, 0])
    assert answers[3][2:].decode("utf-16-le") == "Test"
    assert answers[5] == lamp_descriptor()
    about = reports.unpack(Usage.ATTRIBUTES_REPORT, answers[6])
    assert about[Usage.LAMP_COUNT] == [7]
    lamp, after = (reports.unpack(Usage.RESPONSE_REPORT, answers[n]) for n in (8, 9))
    assert (lamp[Usage.LAMP_ID], after[Usage.LAMP_ID]) == ([2], [3])  # it goes on by itself
    assert lamp[Usage.INPUT_BINDING] == [0x68]  # F13
    assert lamp[Usage.PURPOSES] == [1]
    assert (answers[10], answers[11]) == (None, None)  # no report 9; autonomous mode is 0 or 1
    keys, bar = board["lines"]
    most = int(project.files["lamps.c"].partition("#define MOST ")[2].partition("u")[0])
    full = [200 * most >> 8, 0, 0]
    blue, green = [0, 0, 255 * most >> 8], [0, 80 * most >> 8, 0]
    shown = [full, blue, full, full]
    assert keys["frames"][-1][1] == bytes(v for r, g, b in shown for v in (g, r, b)).hex()
    white = [full, green, full]
    assert bar["frames"][-1][1] == bytes(v for r, g, b in white for v in (g, r, b, 0)).hex()
    own = keys["frames"][1][1]  # before the computer took it: the design's own blue
    assert own == (bytes([0, 0]) + own_blue()).hex() * 4


def own_blue():
    """#28 of sRGB in linear light: ((40 / 255 + 0.055) / 1.055) ** 2.4, of 255."""
    return bytes([round((((40 / 255 + 0.055) / 1.055) ** 2.4) * 255)])


def test_its_own_light_comes_back(tools, tmp_path):
    take, give = told(bytes([6, 0])), told(bytes([6, 1]))
    _, board = run_with([*START, take, give], tmp_path)
    frames = [frame for _, frame in board["lines"][0]["frames"]]
    assert frames[-1] == frames[2]
    assert frames[-1] != "00" * 12


DEVICE = """
#include <stdio.h>
#include "lamps.h"
int main(void)
{
    uint8_t size[2], report[256];
    for (int what = getchar(); what != EOF; what = getchar()) {
        fread(size, 2, 1, stdin);
        const uint16_t count = (uint16_t)(size[0] | size[1] << 8);
        uint16_t told = 0xffffu;
        if (what == 'G') {
            const int number = getchar();
            told = lamps_get((uint8_t)number, report);
            told = told == 0u ? 0xffffu : told;
        } else {
            fread(report, 1, count, stdin);
            told = lamps_set(report, count) ? 0u : 0xffffu;
        }
        const uint8_t head[2] = {(uint8_t)told, (uint8_t)(told >> 8)};
        fwrite(head, 2, 1, stdout);
        fwrite(report, 1, told == 0xffffu ? 0 : told, stdout);
        fflush(stdout);
    }
    return 0;
}
"""


class CompiledDevice:
    """The emitted reports, compiled for this computer, as a HID device."""

    def __init__(self, process, descriptor):
        self.process, self.descriptor = process, descriptor

    def _ask(self, data):
        self.process.stdin.write(data)
        self.process.stdin.flush()
        count = int.from_bytes(self.process.stdout.read(2), "little")
        if count == 0xFFFF:
            raise OSError(71, "it refuses")
        return self.process.stdout.read(count)

    def get_feature(self, report, size):
        return self._ask(b"G\0\0" + bytes([report]))

    def set_feature(self, data):
        self._ask(b"S" + len(data).to_bytes(2, "little") + data)

    def close(self):
        self.process.stdin.close()
        self.process.stdout.close()
        self.process.wait()


def test_the_output_of_a_design_finds_the_lamps_where_they_are(compiler, tmp_path):
    """Positions from the corner at the top left; keys by their names; inches became micrometres."""
    lit = pad(kind="mouse")
    project = make_project(lit.examined.subject, "rp2040")
    write_project(project.files, tmp_path)
    (tmp_path / "device.c").write_text(DEVICE, encoding="utf-8")
    sources = [tmp_path / name for name in ("device.c", "lamps.c")]
    compiler.make_program(sources, tmp_path / "device", ["-std=c99", "-Wall", f"-I{tmp_path}"])
    process = subprocess.Popen([tmp_path / "device"], stdin=subprocess.PIPE, stdout=subprocess.PIPE)
    array = LampArray(CompiledDevice(process, lamp_descriptor()))
    assert (array.kind, len(array.lamps)) == ("mouse", 7)
    assert [lamp.name for lamp in array.lamps] == ["esc", "a", "f13", "up", "", "", ""]
    layout = lit.layout()
    corner = layout.position.min(axis=0)[0], layout.position.max(axis=0)[1]
    for lamp, place in zip(array.lamps, layout.position, strict=True):
        assert lamp.x_um == pytest.approx((place[0] - corner[0]) * 1000, abs=1)
        assert lamp.y_um == pytest.approx((corner[1] - place[1]) * 1000, abs=1)
    array.take()
    assert array.show(np.full((7, 3), 9, np.uint8)) == 1
    array.give_back()
    array.device.close()


def test_other_chips_say_that_they_cannot(tmp_path):
    lit = pad()
    with pytest.raises(fd.FirmwareError, match="a lamp array of your own needs an RP2040"):
        make_project(lit.examined.subject, "avr")
