"""The numbers of the Lighting and Illumination page (USB HID Usage Tables 1.4, section 26)."""

from __future__ import annotations

from enum import IntEnum, IntFlag

PAGE = 0x59
KEYBOARD_PAGE = 0x07


class Usage(IntEnum):
    """Usages of the page: its collections and the values in their reports."""

    LAMP_ARRAY = 0x01
    ATTRIBUTES_REPORT = 0x02
    LAMP_COUNT = 0x03
    WIDTH_UM = 0x04
    HEIGHT_UM = 0x05
    DEPTH_UM = 0x06
    KIND = 0x07
    LEAST_INTERVAL_US = 0x08
    REQUEST_REPORT = 0x20
    LAMP_ID = 0x21
    RESPONSE_REPORT = 0x22
    X_UM = 0x23
    Y_UM = 0x24
    Z_UM = 0x25
    PURPOSES = 0x26
    LATENCY_US = 0x27
    RED_LEVELS = 0x28
    GREEN_LEVELS = 0x29
    BLUE_LEVELS = 0x2A
    INTENSITY_LEVELS = 0x2B
    IS_PROGRAMMABLE = 0x2C
    INPUT_BINDING = 0x2D
    MULTI_REPORT = 0x50
    RED = 0x51
    GREEN = 0x52
    BLUE = 0x53
    INTENSITY = 0x54
    FLAGS = 0x55
    RANGE_REPORT = 0x60
    FIRST_ID = 0x61
    LAST_ID = 0x62
    CONTROL_REPORT = 0x70
    AUTONOMOUS = 0x71


class Purpose(IntFlag):
    """The purposes of a lamp."""

    CONTROL = 0x01
    ACCENT = 0x02
    BRANDING = 0x04
    STATUS = 0x08
    ILLUMINATION = 0x10
    PRESENTATION = 0x20


COMPLETE = 0x01
"""The flag of the last report of an update: now show it."""

KINDS = (
    "undefined", "keyboard", "mouse", "game controller", "peripheral", "scene", "notification",
    "chassis", "wearable", "furniture", "art",
)  # fmt: skip
"""Kinds of lamp arrays, by their number."""

KEYS = {
    **{0x04 + i: letter for i, letter in enumerate("abcdefghijklmnopqrstuvwxyz")},
    **{0x1E + i: digit for i, digit in enumerate("1234567890")},
    0x28: "enter", 0x29: "esc", 0x2A: "backspace", 0x2B: "tab", 0x2C: "space", 0x2D: "minus",
    0x2E: "equal", 0x2F: "leftbrace", 0x30: "rightbrace", 0x31: "backslash", 0x33: "semicolon",
    0x34: "apostrophe", 0x35: "grave", 0x36: "comma", 0x37: "dot", 0x38: "slash",
    0x39: "capslock",
    **{0x3A + i: f"f{i + 1}" for i in range(12)},
    0x46: "sysrq", 0x47: "scrolllock", 0x48: "pause", 0x49: "insert", 0x4A: "home",
    0x4B: "pageup", 0x4C: "delete", 0x4D: "end", 0x4E: "pagedown", 0x4F: "right", 0x50: "left",
    0x51: "down", 0x52: "up", 0x53: "numlock", 0x54: "kpslash", 0x55: "kpasterisk",
    0x56: "kpminus", 0x57: "kpplus", 0x58: "kpenter",
    **{0x59 + i: f"kp{digit}" for i, digit in enumerate("1234567890")},
    0x63: "kpdot", 0x64: "102nd", 0x65: "compose",
    **{0x68 + i: f"f{i + 13}" for i in range(12)},
    0xE0: "leftctrl", 0xE1: "leftshift", 0xE2: "leftalt", 0xE3: "leftmeta", 0xE4: "rightctrl",
    0xE5: "rightshift", 0xE6: "rightalt", 0xE7: "rightmeta",
}  # fmt: skip
"""Keys by their usage of the Keyboard page (section 10), with the names that the source `keys` has:
a press of a key is at its lamp.
"""
