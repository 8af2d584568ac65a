"""Descriptors: the standards' examples, another reader's word on each, and bytes that are none."""

from __future__ import annotations

import sys

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fendra.demo.lamp_array import AT_ONCE, DESCRIPTOR, SIZES
from fendra.lamps.descriptor import read_descriptor
from fendra.lamps.make import lamp_descriptor
from fendra.lamps.reports import REPORTS, LampReports, is_lamp_array
from fendra.lamps.usages import PAGE, Usage

# HID 1.11, appendix E.6 (keyboard) and E.10 (mouse), byte for byte.
KEYBOARD = bytes.fromhex(
    "05010906a101050719e029e71500250175019508810295017508810195057501050819012905910295017503"
    "9101950675081500256505071900296581 00c0".replace(" ", "")
)
MOUSE = bytes.fromhex(
    "05010902a1010901a1000509190129031500250195037501810295017505810105010930093115812 57f7508"
    "95028106c0c0".replace(" ", "")
)


def plain(fields):
    return [(f.kind, f.report, f.usage, f.bit, f.size, f.low, f.high) for f in fields]


def test_the_standard_s_keyboard():
    """Eight modifiers, a reserved byte, five lamps to the keyboard, six key codes."""
    found = plain(read_descriptor(KEYBOARD))
    assert found[0] == ("input", 0, 0x7_00E0, 0, 1, 0, 1)
    assert found[7] == ("input", 0, 0x7_00E7, 7, 1, 0, 1)
    assert found[8] == ("input", 0, 0, 8, 8, 0, 1)
    assert [f[:5] for f in found[9:14]] == [("output", 0, 0x8_0001 + i, i, 1) for i in range(5)]
    assert found[14][:5] == ("output", 0, 0, 5, 3)
    assert [(f[3], f[4], f[6]) for f in found[15:]] == [(16 + 8 * i, 8, 0x65) for i in range(6)]


def test_the_standard_s_mouse():
    """Three buttons, five bits of padding, two signed bytes."""
    found = plain(read_descriptor(MOUSE))
    assert [f[2] for f in found] == [0x9_0001, 0x9_0002, 0x9_0003, 0, 0x1_0030, 0x1_0031]
    assert found[4] == ("input", 0, 0x1_0030, 8, 8, -127, 127)


@pytest.mark.skipif(sys.platform != "linux", reason="hid-tools is for Linux")
@pytest.mark.parametrize(
    "data", [KEYBOARD, MOUSE, DESCRIPTOR, lamp_descriptor(), lamp_descriptor(9, 3)]
)
def test_another_reader_says_the_same_of_every_field(data):
    """hid-tools, the kernel developers' own reader."""
    from hidtools.hid import ReportDescriptor

    theirs = ReportDescriptor.from_bytes(list(data))
    for kind, reports in (("input", theirs.input_reports), ("output", theirs.output_reports),
                          ("feature", theirs.feature_reports)):  # fmt: skip
        ours = [f for f in read_descriptor(data) if f.kind == kind]
        for number, report in reports.items():
            mine = [f for f in ours if f.report == max(number, 0)]
            head = 8 if report.numbered else 0  # they count the report's number
            spans = {(f.start - head, f.size * f.count, f.count): f for f in report.fields}
            for start, bits, count in spans:
                inside = [f for f in mine if start <= f.bit < start + bits]
                assert (len(inside), sum(f.size for f in inside)) in ((count, bits), (bits and 1, bits)), (
                    kind, number, start,
                )  # fmt: skip
            assert sum(f.size for f in mine) == report.bitsize - head


def test_a_lamp_array_s_reports_have_the_sizes_of_the_standard_s_tables():
    """Attributes 22 bytes, request 2, response 28, multi 2 + 8 x 6, range 9, control 1, and a
    number before each."""
    made = LampReports(lamp_descriptor())
    assert [made.size(report) - 1 for report in REPORTS] == [22, 2, 28, 50, 9, 1]
    assert [made.number(report) for report in REPORTS] == [1, 2, 3, 4, 5, 6]
    assert made.at_once == 8
    stand_in = LampReports(DESCRIPTOR)
    assert [stand_in.size(report) for report in REPORTS] == [*SIZES.values()]
    assert stand_in.at_once == AT_ONCE


def test_a_report_is_packed_as_its_bytes_are_worked_out_by_hand():
    """Two lamps, 7 red and 258 green: ids are two bytes, the low one first."""
    reports = LampReports(lamp_descriptor())
    packed = reports.pack(
        Usage.MULTI_REPORT,
        {Usage.LAMP_COUNT: 2, Usage.FLAGS: 1, Usage.LAMP_ID: [7, 258], Usage.RED: [255],
         Usage.GREEN: [0, 128], Usage.INTENSITY: [1, 1]},
    )  # fmt: skip
    assert packed == bytes([4, 2, 1, 7, 0, 2, 1, *[0] * 12, 255, 0, 0, 1, 0, 128, 0, 1, *[0] * 24])
    found = reports.unpack(Usage.MULTI_REPORT, packed)
    assert found[Usage.LAMP_ID][:3] == [7, 258, 0]
    assert found[Usage.GREEN][:2] == [0, 128]
    with pytest.raises(ValueError, match="2 does not fit into 0 to 1"):
        reports.pack(Usage.CONTROL_REPORT, {Usage.AUTONOMOUS: 2})


def test_a_most_whose_sign_bit_is_set_is_a_large_number():
    """As many devices say 65535: 26 ff ff, two bytes, with a least of 0."""
    told = bytes.fromhex("06 00 ff 09 01 a1 01 15 00 26 ff ff 75 10 95 01 09 02 b1 02 c0")
    (field,) = read_descriptor(told)
    assert (field.low, field.high, field.size) == (0, 65535, 16)


@pytest.mark.parametrize(
    ("told", "usages"),
    [  # usages before their page, a range with its end first, four bytes with a page of their own
        ("09 30 09 31 05 01", [0x1_0030, 0x1_0031]),
        ("29 04 19 03 05 09", [0x9_0003, 0x9_0004]),
        ("05 01 0b 30 00 0c 00 09 31", [0xC_0030, 0x1_0031]),
        ("05 01 1b 01 00 09 00 2b 02 00 09 00", [0x9_0001, 0x9_0002]),
        ("05 01 a9 01 09 30 09 36 a9 00 09 31", [0x1_0030, 0x1_0031]),  # 30, or 36 instead
        ("05 01 09 30", [0x1_0030, 0x1_0030]),  # the last stands for the rest
    ],
)
def test_usages_are_those_of_the_page_that_counts_at_their_main_item(told, usages):
    """HID 1.11, 6.2.2.8: a main item takes the page that was named last before it."""
    head, tail = bytes.fromhex("05 01 09 02 a1 01 05 0d 15 00 25 01 75 08 95 02"), "81 02 c0"
    fields = read_descriptor(head + bytes.fromhex(told + tail))
    assert [field.usage for field in fields] == usages
    assert {field.inside for field in fields} == {(0x1_0002,)}


@given(st.integers(1, 200), st.integers(1, 30))
def test_any_descriptor_of_our_own_is_read_back(first, at_once):
    data = lamp_descriptor(first, at_once)
    assert is_lamp_array(data)
    reports = LampReports(data)
    assert (reports.number(Usage.ATTRIBUTES_REPORT), reports.at_once) == (first, at_once)


@given(st.binary(max_size=300))
def test_any_bytes_are_a_descriptor_or_a_word(data):
    try:
        fields = read_descriptor(data)
    except ValueError:
        return
    assert all(field.size >= 0 for field in fields)


@pytest.mark.parametrize("data", [KEYBOARD, MOUSE, b"", DESCRIPTOR[:-20]])
def test_others_are_no_lamp_arrays(data):
    assert not is_lamp_array(data)


def test_the_page_is_the_standard_s():
    """Every usage's number and name, by hid-tools' table of the HID Usage Tables."""
    if sys.platform != "linux":
        pytest.skip("hid-tools is for Linux")
    from hidtools.hut import HUT

    names = {number: usage.name.casefold() for number, usage in HUT[PAGE].items()}
    assert {*map(int, Usage)} == {*names} - {0}
    for usage, word in ((Usage.LEAST_INTERVAL_US, "min update interval in microseconds"),
                        (Usage.LATENCY_US, "update latency in microseconds"),
                        (Usage.PURPOSES, "lamp purposes"), (Usage.X_UM, "position x in micrometers"),
                        (Usage.FLAGS, "lamp update flags"), (Usage.AUTONOMOUS, "autonomous mode")):  # fmt: skip
        assert names[usage] == word
