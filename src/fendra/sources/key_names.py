"""Names of keys by their place on the keyboard, as Linux names them, for Windows and macOS.

A key has the same name whatever letter the user's language prints on it: KEY_Q is the key right of
Tab.
"""

from __future__ import annotations


def _named(first: int, names: str) -> dict[int, str]:
    """Names of codes that follow each other; `-` has none."""
    every = enumerate(names.split(), first)
    return {code: f"KEY_{name}" for code, name in every if name != "-"}


SCAN_CODES = _named(
    1,
    "ESC 1 2 3 4 5 6 7 8 9 0 MINUS EQUAL BACKSPACE TAB Q W E R T Y U I O P LEFTBRACE RIGHTBRACE "
    "ENTER LEFTCTRL A S D F G H J K L SEMICOLON APOSTROPHE GRAVE LEFTSHIFT BACKSLASH Z X C V B N M "
    "COMMA DOT SLASH RIGHTSHIFT KPASTERISK LEFTALT SPACE CAPSLOCK F1 F2 F3 F4 F5 F6 F7 F8 F9 F10 "
    "PAUSE SCROLLLOCK KP7 KP8 KP9 KPMINUS KP4 KP5 KP6 KPPLUS KP1 KP2 KP3 KP0 KPDOT SYSRQ - 102ND "
    "F11 F12 KPEQUAL",
) | _named(0x64, "F13 F14 F15 F16 F17 F18 F19 F20 F21 F22 F23") | {
    0x70: "KEY_KATAKANAHIRAGANA", 0x73: "KEY_RO", 0x76: "KEY_F24", 0x79: "KEY_HENKAN",
    0x7B: "KEY_MUHENKAN", 0x7D: "KEY_YEN", 0x7E: "KEY_KPCOMMA",
}  # fmt: skip
"""Codes of a key's place (scan code set 1), as Windows gives them."""

FAR_SCAN_CODES = (
    {
        0x1C: "KEY_KPENTER", 0x1D: "KEY_RIGHTCTRL", 0x35: "KEY_KPSLASH", 0x36: "KEY_RIGHTSHIFT",
        0x37: "KEY_SYSRQ", 0x38: "KEY_RIGHTALT", 0x45: "KEY_NUMLOCK", 0x46: "KEY_PAUSE",
    }
    | _named(0x47, "HOME UP PAGEUP - LEFT - RIGHT - END DOWN PAGEDOWN INSERT DELETE")
    | _named(0x5B, "LEFTMETA RIGHTMETA COMPOSE POWER SLEEP")
    | {
        0x10: "KEY_PREVIOUSSONG", 0x19: "KEY_NEXTSONG", 0x20: "KEY_MUTE", 0x21: "KEY_CALC",
        0x22: "KEY_PLAYPAUSE", 0x24: "KEY_STOPCD", 0x2E: "KEY_VOLUMEDOWN", 0x30: "KEY_VOLUMEUP",
    }
)  # fmt: skip
"""The same of the keys that came with larger keyboards: their codes have a prefix, E0."""

MAC_CODES = _named(
    0,
    "A S D F H G Z X C V 102ND B Q W E R Y T 1 2 3 4 6 5 EQUAL 9 7 MINUS 8 0 RIGHTBRACE O U "
    "LEFTBRACE I P ENTER L J APOSTROPHE K SEMICOLON BACKSLASH COMMA SLASH N M DOT TAB SPACE GRAVE "
    "BACKSPACE - ESC RIGHTMETA LEFTMETA LEFTSHIFT CAPSLOCK LEFTALT LEFTCTRL RIGHTSHIFT RIGHTALT "
    "RIGHTCTRL FN F17 KPDOT - KPASTERISK - KPPLUS - NUMLOCK VOLUMEUP VOLUMEDOWN MUTE KPSLASH "
    "KPENTER - KPMINUS F18 F19 KPEQUAL KP0 KP1 KP2 KP3 KP4 KP5 KP6 KP7 F20 KP8 KP9 - - - F5 F6 F7 "
    "F3 F8 F9 - F11 - F13 F16 F14 - F10 COMPOSE F12 - F15 INSERT HOME PAGEUP DELETE F4 END F2 "
    "PAGEDOWN F1 LEFT RIGHT DOWN UP",
)  # fmt: skip
"""Virtual key codes of macOS, which name places too."""


def scan_name(code: int, is_far: bool) -> str:
    """The name of a key of Windows; empty if it has none. is_far: the code has the prefix E0.

    >>> scan_name(0x1C, False), scan_name(0x1C, True), scan_name(0x22A, True)
    ('KEY_ENTER', 'KEY_KPENTER', '')
    """
    return (FAR_SCAN_CODES if is_far else SCAN_CODES).get(code, "")
