"""HID devices of Linux: the numbers of its calls by its own header, and what is found in /sys."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from types import SimpleNamespace

import pytest

from fendra.demo.lamp_array import DESCRIPTOR, LampArrayDevice

if sys.platform != "linux" or os.environ.get("FENDRA_TESTS_WITHOUT_UNIX"):
    pytest.skip("hidraw is Linux's", allow_module_level=True)

from fendra.outputs.lamps import lamp_arrays, open_array
from fendra.system import hidraw

HEADER = """#include <stdio.h>
#include <sys/ioctl.h>
#include <linux/hidraw.h>
int main(void)
{
    printf("%u %u", (unsigned)HIDIOCSFEATURE(51), (unsigned)HIDIOCGFEATURE(29));
    return 0;
}
"""


def test_the_calls_have_the_numbers_of_the_system_s_header(tmp_path):
    if shutil.which("cc") is None:
        pytest.skip("no C compiler")
    subprocess.run(["cc", "-x", "c", "-", "-o", tmp_path / "it"], input=HEADER.encode(), check=True)
    told = subprocess.run([tmp_path / "it"], capture_output=True, check=True).stdout.split()
    assert [*map(int, told)] == [hidraw._SET | 51 << 16, hidraw._GET | 29 << 16]


@pytest.fixture
def plugged(tmp_path, monkeypatch):
    """A keyboard and a lamp array in a /sys of their own; calls go to the stand-in."""
    device = LampArrayDevice()
    for number, (name, told) in enumerate(
        (("Plain Mouse", b"\x05\x01"), ("Glow Keys", DESCRIPTOR))
    ):
        folder = tmp_path / "class" / f"hidraw{number}" / "device"
        folder.mkdir(parents=True)
        (folder / "report_descriptor").write_bytes(told)
        (folder / "uevent").write_text(f"DRIVER=hid\nHID_NAME={name}\n", encoding="utf-8")
        (tmp_path / "dev").mkdir(exist_ok=True)
        (tmp_path / "dev" / f"hidraw{number}").write_bytes(b"")
    monkeypatch.setattr(hidraw, "CLASS", tmp_path / "class")
    monkeypatch.setattr(hidraw, "DEVICES", tmp_path / "dev")

    def ioctl(_file, number, held):
        size, call = number >> 16 & 0x3FFF, number & 0xFF
        assert size == len(held)
        if call == 6:
            assert device.set(bytes(held)), device.wrong
            return size
        answer = device.get(held[0])
        held[:] = answer.ljust(size, b"\0")
        return len(answer)

    monkeypatch.setattr(hidraw, "fcntl", SimpleNamespace(ioctl=ioctl))
    return device


def test_lamp_arrays_are_found_by_what_they_say(plugged):
    assert [each.name for each in lamp_arrays()] == ["Glow Keys"]
    array, name = open_array("glow")
    assert (name, array.kind, len(array.lamps)) == ("Glow Keys", "keyboard", 58)
    array.take()
    assert not plugged.is_autonomous
    array.give_back()
    array.device.close()
    assert plugged.wrong == []
