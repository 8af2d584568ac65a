"""Two controllers of one design, as whole images wired together: they show one light, in one step."""

from __future__ import annotations

import struct

import numpy as np
import pytest

import fendra as fd
from fendra.core.layout.wire import LineBytes
from fendra.demo.controller import crc16, unstuff
from helpers import strip
from rp2040 import MODULE, emulate, outs_of, uf2_of

WIRE = {"tx": "GP0", "rx": "GP1"}
SPLIT = {
    "name": "Split", "rate": 50,
    "controllers": {
        "left": {"type": "rp2040", "peers": WIRE},
        "right arm": {"type": "rp2040", "peers": {"tx": "GP4", "rx": "GP5"}},
    },
    "line": [
        {"name": "l", "controller": "left", "pin": "GP2", "order": "RGB", "part": [strip("l", 7)]},
        {"name": "r", "controller": "right arm", "pin": "GP3", "led": "sk6812-rgbw",
         "part": [strip("r", 5)]},
    ],
    "signals": {
        "hand": {"kind": "switch", "lost_after": 0.4, "pin": {"name": "GP10", "controller": "left"}},
        "speed": {"range": [0, 4], "smooth": 0.3, "lost_after": 0.4, "fallback": 0.5,
                  "pin": {"name": "GP26", "controller": "right arm", "calibrate": [0, 1]}},
    },
    "scene": [{"name": "calm", "button": "hand", "fade": 0.4}, {"name": "wild", "button": "hand", "fade": 0.4}],
    "layer": [
        {"name": "under", "on": "all", "effect": "solid", "colour": "rgb(0.1, 0, speed / 8)"},
        {"name": "wave", "on": "all", "effect": "sweep", "rate": "speed", "scene": "wild"},
        {"name": "still", "on": "all", "effect": "glint", "scene": "calm"},
        # Each remembers a phase: more memory than one packet holds.
        *({"name": f"w{i}", "on": "all", "effect": "sweep", "rate": f"speed * {i} / 20", "level": 0.3,
           "blend": "add", "scene": "wild"} for i in range(1, 15)),
    ],
}  # fmt: skip


@pytest.fixture(scope="module", autouse=True)
def rp2040(need, arm):
    need([] if MODULE.exists() else ["rp2040js"], "npm; then npm ci in web/")


def told(sent, signals):
    """What a controller has told, as docs/peers.md has it: when it was said, its sender, its clock, and
    the news. Each packet is whole."""
    found, packet = [], bytearray()
    for us, byte in sent:
        if byte:
            packet.append(byte)
            continue
        if packet:
            content = unstuff(bytes(packet))
            assert struct.pack("<H", crc16(content[:-2])) == content[-2:]
            assert content[0] == 0x15
            mask, at = content[10 : 10 + (len(signals) + 7) // 8], 10 + (len(signals) + 7) // 8
            news = {}
            for place, name in enumerate(signals):
                if mask[place // 8] >> place % 8 & 1:
                    (news[name],) = struct.unpack_from("<f", content, at)
                    at += 4
            found.append((us, content[3], struct.unpack_from("<I", content, 6)[0], news))
        packet.clear()
    return found


def test_two_halves_are_in_step_also_after_their_cable_was_pulled(tmp_path):
    """A minute. The left one hears a button, the right one a dial; the cable is out from 30 to 35 s.
    What the left one tells is put into the whole design: each half shows its part of that, bit for bit,
    and both within one frame; 0.5 s after the cable is back as well. Meanwhile each half goes on, with
    the fallback for what only the other one hears."""
    design = fd.Design.from_values(SPLIT)
    assert [f for f in design.check() if f.severity == "error"] == []
    left, right = (design.firmware(controller=name) for name in ("left", "right arm"))
    for half in ("left", "right"):
        (tmp_path / half).mkdir()
    presses = [2, 9.3, 17, 31.2, 40.1, 52]
    hand = [[s * 1e6 + after, "pin", 10, level] for s in presses
            for after, level in ((0, 0), (150_000, 1))]  # fmt: skip
    turns = [[s * 1e6, "adc", 0, count] for s, count in
             ((0, 500), (5, 4000), (12, 1500), (32, 3000), (45, 200), (50, 4095))]  # fmt: skip
    boards = emulate(
        {"uf2": str(uf2_of(left, tmp_path / "left")), "outs": outs_of(left),
         "events": [[0, "pin", 10, 1], *hand]},
        {"uf2": str(uf2_of(right, tmp_path / "right")), "outs": outs_of(right), "events": turns},
        seconds=60, wires=[[0, 0, 1, 1], [1, 1, 0, 0]], cuts=[[30e6, 35e6]],
    )  # fmt: skip
    program = design.compile(engine="numpy")
    packets = told(boards[0]["sent"][0], program.fed)
    assert {sender for _, sender, _, _ in packets} == {0}
    assert {sender for _, sender, _, _ in told(boards[1]["sent"][1], program.fed)} == {1}
    wire, rgb = LineBytes(program.layout, design), np.empty((12, 3), np.uint8)
    lines = [
        [(us, bytes.fromhex(data)) for us, data in board["lines"][0]["frames"]] for board in boards
    ]
    wrong, late, scenes = [], [], set()
    for us, _, clock_ms, news in packets:
        program.engine.frame(clock_ms, news, rgb)
        wanted = [*wire.bytes(rgb)]
        shown = [next((each for each in half if each[0] >= us), None) for half in lines]
        if None in shown:
            continue
        scenes.add(wanted[0][0] > 26)
        if not 30e6 <= us < 35.5e6:
            late.append(max(at for at, _ in shown) - us)
            wrong += [
                us / 1e6 for (_, data), part in zip(shown, wanted, strict=True) if data != part
            ]
    assert len(packets) == pytest.approx(3000, abs=3)
    assert wrong == []
    assert max(late) < 20_000
    assert scenes == {False, True}
    starts = np.array([us for us, _ in lines[1]]) / 1e6
    assert np.diff(starts[starts > 1]).max() < 0.08
    heard = [("speed" in news, us / 1e6) for us, _, _, news in packets]
    assert {has for has, s in heard if 30.1 < s < 34.9} == {False}
    assert {has for has, s in heard if 1 < s < 29.9 or s > 35.1} == {True}
    gone = [data for us, data in lines[0] if 32e6 < us < 34.9e6]
    assert all(
        16 in data[2::3] for data in gone
    )  # the left one's speed is 0.5: an eighth of it, blue


def test_a_controller_says_what_it_never_hears_and_what_mends_that():
    """Without a wire the left one never hears the dial; with one at both it does."""
    alone = {name: {"type": "rp2040"} for name in SPLIT["controllers"]}
    found = fd.Design.from_values({**SPLIT, "controllers": alone}).check()
    told_of = {(f.path[1], f.remedy) for f in found if f.code == "never-heard"}
    assert {name for name, _ in told_of} == {"hand", "speed"}
    assert all("peers" in remedy for _, remedy in told_of)
    assert not [f for f in fd.Design.from_values(SPLIT).check() if f.code == "never-heard"]
