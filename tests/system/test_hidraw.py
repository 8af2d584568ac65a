"""HID devices of Linux: the numbers of its calls by its own header, and what is found in /sys."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import threading
import time
from types import SimpleNamespace

import pytest

from fendra.demo import uhid
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


UHID = """#include <stddef.h>
#include <stdio.h>
#include <linux/uhid.h>
int main(void)
{
    printf("%zu %zu %zu %zu %zu %zu %zu %d %d %d %d %d %d", sizeof(struct uhid_event),
        offsetof(struct uhid_create2_req, rd_data), sizeof(struct uhid_get_report_req),
        offsetof(struct uhid_get_report_reply_req, data), offsetof(struct uhid_set_report_req, data),
        sizeof(struct uhid_set_report_reply_req), offsetof(struct uhid_create2_req, vendor),
        UHID_DESTROY, UHID_GET_REPORT, UHID_GET_REPORT_REPLY, UHID_CREATE2, UHID_SET_REPORT,
        UHID_SET_REPORT_REPLY);
    return 0;
}
"""


def test_a_device_of_the_system_s_own_is_made_as_its_header_says(tmp_path):
    if shutil.which("cc") is None:
        pytest.skip("no C compiler")
    subprocess.run(["cc", "-x", "c", "-", "-o", tmp_path / "it"], input=UHID.encode(), check=True)
    told = [
        *map(int, subprocess.run([tmp_path / "it"], capture_output=True, check=True).stdout.split())
    ]
    assert told == [
        uhid.SIZE, uhid.CREATED.size, uhid.ASKED.size, uhid.ANSWERED.size, uhid.TOLD.size,
        uhid.TAKEN.size, 128 + 64 + 64 + 2 + 2, uhid.DESTROY, uhid.GET_REPORT, uhid.GET_REPLY,
        uhid.CREATE, uhid.SET_REPORT, uhid.SET_REPLY,
    ]  # fmt: skip


def test_the_system_asks_and_sets_reports():
    device = LampArrayDevice()
    ask = uhid.KIND.pack(uhid.GET_REPORT) + uhid.ASKED.pack(77, 0x11, 0)
    told = uhid.answer(device, ask.ljust(uhid.SIZE, b"\0"))
    assert uhid.ANSWERED.unpack_from(told, 4) == (77, 0, 23)
    assert told[12:15] == bytes([0x11, 58, 0])
    take = uhid.KIND.pack(uhid.SET_REPORT) + uhid.TOLD.pack(78, 0x16, 0, 2) + bytes([0x16, 0])
    assert uhid.TAKEN.unpack_from(uhid.answer(device, take.ljust(uhid.SIZE, b"\0")), 4) == (78, 0)
    assert not device.is_autonomous
    wrong = uhid.KIND.pack(uhid.GET_REPORT) + uhid.ASKED.pack(79, 0x99, 0)
    assert uhid.ANSWERED.unpack_from(uhid.answer(device, wrong.ljust(uhid.SIZE, b"\0")), 4) == (
        79,
        5,
        0,
    )
    assert uhid.answer(device, uhid.KIND.pack(2).ljust(uhid.SIZE, b"\0")) == b""
    assert len(uhid.create("x", DESCRIPTOR)) == uhid.SIZE


@pytest.mark.skipif(not os.access("/dev/uhid", os.W_OK), reason="this machine has no /dev/uhid")
def test_a_real_device_of_the_system_is_found_and_set():
    device = LampArrayDevice()
    with open("/dev/uhid", "r+b", buffering=0) as system:  # noqa: PTH123
        threading.Thread(target=uhid.serve, args=(device, DESCRIPTOR, system), daemon=True).start()
        until_s = time.monotonic() + 5
        while not lamp_arrays() and time.monotonic() < until_s:
            time.sleep(0.1)
        array, name = open_array("Fendra")
        assert (name, len(array.lamps)) == ("Fendra stand-in keyboard", 58)
        array.take()
        assert not device.is_autonomous
        array.give_back()
        array.device.close()
