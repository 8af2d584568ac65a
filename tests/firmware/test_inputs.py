"""Conditioning in its order, walked by every way in: a source, a pin, a tape and a call."""

from __future__ import annotations

import re
import subprocess
from pathlib import Path

import numpy as np
import pytest

import fendra as fd
from fendra.core.signals.condition import NUMBER_STEPS, SWITCH_STEPS
from fendra.core.signals.door import INPUT_STEPS
from fendra.firmware.project import make_project
from fendra.live.inbox import Inbox
from helpers import strip

BUS = {"type": "udp"}
PEDAL = {"calibrate": [400, 3600], "range": [0, 100]}
SIGNALS = {
    "pedal": {**PEDAL, "source": "bus:p", "pin": {"name": "A0", "calibrate": [0.2, 0.7]}},
    "middle": {**PEDAL, "dead_band": 10, "centre": 50, "source": {"name": "bus:p"},
               "pin": {"name": "A1", "curve": [[0.2, 0], [0.7, 100]]}},
    "slow": {**PEDAL, "average": 0.04, "slew": 1000, "source": "bus:p",
             "pin": {"name": "A2", "calibrate": [0.7, 0.2], "invert": True}},
    "pack": {"cells": "guess", "range": [3, 5], "fallback": 3.5,
             "source": {"name": "bus:b", "curve": [[0, 0], [1023, 25.575]]},
             "pin": {"name": "A3", "curve": [[0, 0], [1, 25.575]]}},
    "four": {"cells": 4, "calibrate": [100, 200], "range": [3, 4.5], "source": "bus:f",
             "pin": {"name": "A4", "calibrate": [0.25, 0.75]}},
    "dusk": {"kind": "switch", "on_at": 20, "off_at": 40, "hold": 0.06, "source": "bus:lux",
             "pin": {"name": "D2", "kind": "switch", "invert": True}},
    "beam": {"kind": "switch", "debounce": 0.04, "source": {"name": "bus:on", "invert": True},
             "pin": {"name": "A5", "on_at": 0.6, "off_at": 0.4}},
    "mode": {"kind": "choice", "choices": {"off": 0, "eco": 3, "boost": 7},
             "source": {"name": "bus:m", "bands": [-0.3, 0.3]},
             "pin": {"name": "A6", "bands": [0.2, 0.8]}},
}  # fmt: skip
SHOWN = {"pedal": "pedal / 100", "middle": "middle / 100", "slow": "slow / 100",
         "pack": "(pack - 3) / 2", "four": "(four - 3) / 1.5", "dusk": "dusk", "beam": "beam",
         "mode": "0.2 if mode == 'off' else 0.4 if mode == 'eco' else 1"}  # fmt: skip
VALUES = {
    "name": "Walk", "rate": 50, "sources": {"bus": BUS},
    "controllers": {"main": {"type": "atmega328p"}},
    "line": [{"name": "a", "pin": "D6", "order": "RGB", "part": [strip("s", len(SIGNALS))]}],
    "signals": SIGNALS,
    "layer": [{"name": name, "on": f"s[{i}]", "effect": "solid", "colour": f"rgb({text}, 0, 0)"}
              for i, (name, text) in enumerate(SHOWN.items())],
}  # fmt: skip

# What happens, by frame, in each way's own numbers. Pedal at 54 and then at 70 of 100: 2128 and 2640
# of 400 to 3600. 16.3 V are four cells of 4.075 V. 150 of 100 to 200 is the middle of 12 to 18 V: 3.75
# a cell. Lux 15 is on; 45 off. Frames come every 20 ms.
FRAMES = [  # pedal, volts, four, lux, beam, stick
    (54, 16.3, 0.5, 15, True, 0.0),
    (70, 16.3, 0.5, 45, True, 0.0),
    (70, 16.3, 0.8, 45, True, 0.9),
    (70, 16.3, 0.8, 45, True, 0.9),
    (70, 16.3, 0.8, 45, True, -0.9),
]
# Dead band 10 about 50 of 0 to 100: 54 is 50, and 70 is 50 + 10 * 50 / 40 = 62.5. An average over two
# frames of 54, 70, 70 is 54, 62, 70; at most 20 a frame. Four: 0.5 is 3.75 V, 0.8 is 4.2 V, shown from
# 3 to 4.5. Dusk holds for 60 ms. The beam bounces for two frames and is then on. The switch of three
# is in its middle, then up, then down.
EXPECTED = {
    "pedal": [0.54, 0.7, 0.7, 0.7, 0.7],
    "middle": [0.5, 0.625, 0.625, 0.625, 0.625],
    "slow": [0.54, 0.62, 0.7, 0.7, 0.7],
    "pack": [0.5375] * 5,
    "four": [0.5, 0.5, 0.8, 0.8, 0.8],
    "dusk": [1, 1, 1, 0, 0],
    "beam": [1, 1, 1, 1, 1],
    "mode": [0.4, 0.4, 1, 1, 0.2],
}


def raw_of_signals(pedal, volts, four, lux, beam, stick):
    """As tapes and calls hold it: raw numbers of the signals."""
    raw = 400 + 32 * pedal
    word = "eco" if abs(stick) < 0.3 else "boost" if stick > 0 else "off"
    return {"pedal": raw, "middle": raw, "slow": raw, "pack": volts, "four": 100 + 100 * four,
            "dusk": lux, "beam": beam, "mode": word}  # fmt: skip


def by_call(program, folder):
    return [program.frame(raw_of_signals(*now), at=i / 50) for i, now in enumerate(FRAMES)]


def by_tape(program, folder):
    path = folder / "walk.csv"
    rows = [raw_of_signals(*now) for now in FRAMES]
    lines = [",".join(["time", *rows[0]])]
    lines += [",".join(map(str, [i / 50, *row.values()])) for i, row in enumerate(rows)]
    path.write_text("\n".join(lines))
    film = program.film(fd.read_tape(path, program.design))
    return [film.frame(i / 50) for i in range(len(FRAMES))]


def by_source(program, folder):
    inbox = Inbox(program.design)
    frames = []
    for i, (pedal, volts, four, lux, beam, stick) in enumerate(FRAMES):
        for name, raw in (("p", 400 + 32 * pedal), ("b", volts * 40), ("f", 100 + 100 * four),
                          ("lux", lux), ("on", "off" if beam else "on"), ("m", stick)):  # fmt: skip
            inbox.put("bus", name, raw)
        frames.append(program.frame(inbox.take(), at=i / 50))
    return frames


@pytest.mark.parametrize("way", [by_call, by_tape, by_source], ids=lambda way: way.__name__)
def test_every_step_is_taken_in_its_order(way, tmp_path):
    design = fd.Design.from_values(VALUES)
    assert [f for f in design.check() if f.severity != "note"] == []
    frames = way(design.compile(engine="numpy"), tmp_path)
    for place, (name, shares) in enumerate(EXPECTED.items()):
        found = [int(frame.rgb[place, 0]) for frame in frames]
        assert found == pytest.approx([255 * share for share in shares], abs=1), name


HOST = """
#include <stdio.h>
#include "walk.h"
static unsigned PIND, PINC, PINB;
static float volts[16];
static float read_analogue(unsigned channel) {{ return volts[channel]; }}
{read}
int main(void)
{{
    static struct walk light;
    static struct walk_signals signals;
    static uint8_t bytes[WALK_BYTES];
    float v[7];
    unsigned ms, pin;
    walk_init(&light);
    while (scanf("%u %u %f %f %f %f %f %f %f", &ms, &pin, v, v + 1, v + 2, v + 3, v + 4, v + 5,
                 v + 6) == 9) {{
        for (int i = 0; i < 7; i++) {{
            volts[i] = v[i];
        }}
        {port} = pin << 2;
        board_read(&signals);
        walk_step(&light, &signals, ms, bytes);
        for (int i = 0; i < WALK_LEDS; i++) {{
            printf("%d ", bytes[3 * i]);
        }}
        printf("\\n");
    }}
    return 0;
}}
"""


def by_pins(compiler, folder: Path, values) -> np.ndarray:
    """The red bytes of each frame, of what the board reads at its pins, compiled for this machine."""
    project = make_project(fd.Design.from_values(values).examined.sound)
    board = project.files["board.c"]
    body = re.search(r"^void board_read\(.*?^}\n", board, re.MULTILINE | re.DOTALL)[0]
    for name in ("walk.h", "walk.c"):
        (folder / name).write_text(project.files[name])
    (folder / "host.c").write_text(HOST.format(read=body, port="PIND"))
    program = folder / "host"
    command = [*compiler.command, "-std=c99", "-O1", "-ffp-contract=off", "-o", program]
    subprocess.run([*command, folder / "host.c", folder / "walk.c"], check=True)
    rows = []
    for i, (pedal, volts, four, lux, beam, stick) in enumerate(FRAMES):
        at_pins = [0.2 + pedal / 200] * 3
        at_pins += [volts / 25.575, 0.25 + four / 2, 0.9 if beam else 0.1, (stick + 1) / 2]
        is_high = lux < 20  # pulled up and reverses it: on while it is not at ground
        rows.append(" ".join(map(str, [20 * i, int(is_high), *at_pins])))
    done = subprocess.run(
        [program], input="\n".join(rows), capture_output=True, text=True, check=True
    )
    return np.array([[int(word) for word in row.split()] for row in done.stdout.splitlines()])


def test_every_step_is_taken_in_its_order_at_pins(compiler, tmp_path):
    found = by_pins(compiler, tmp_path, VALUES)
    for place, (name, shares) in enumerate(EXPECTED.items()):
        assert found[:, place] == pytest.approx([255 * share for share in shares], abs=1), name


def test_the_docs_have_the_steps_of_the_code():
    """One table, in docs and code: the same keys in the same order."""
    text = Path("docs/design-file.md").read_text(encoding="utf-8")
    table = text.split("### The order of steps")[1].split("\n## ")[0]
    rows = [line.split("|")[1:4] for line in table.splitlines() if line.startswith("| ")][2:]
    told = [(where.strip(), tuple(re.findall(r"`(\w+)`", keys))) for where, keys, _ in rows]
    expected = [("input", keys) for keys, _ in INPUT_STEPS]
    expected += [("number", step.keys) for step in NUMBER_STEPS]
    expected += [("switch", step.keys) for step in SWITCH_STEPS]
    assert told == [*filter(lambda row: row[1], expected)]


WILD = ["inf", "-inf", "1e30", "-3e38", "1e9", "6.4", "-7", "0.0"]


def test_what_comes_in_is_held_in_c_as_it_is_in_python(compiler, tmp_path):
    """Within +-1e9, so that x_of has its first or last LED (0 and 70); what is no number, or has no
    end, is no news: at first it is lost."""
    design = fd.Design.from_values({
        "name": "walk", "line": [{"name": "a", "order": "RGB", "part": [strip("s", 8)]}],
        "signals": {"v": {}},
        "layer": [{"name": f"l{i}", "on": f"s[{i}]", "effect": "solid", "colour": f"rgb({red}, 0, 0)"}
                  for i, red in enumerate(["x_of('s', v) / 70", "0.5 + v / 400000000 / 10",
                                           "0 if lost(v) else 1"])],
    })  # fmt: skip
    emitted = design.emit()
    (tmp_path / "walk.h").write_text(emitted.header)
    (tmp_path / "walk.c").write_text(emitted.source)
    read = "static void board_read(struct walk_signals *s) { s->v.value = volts[0]; s->v.is_new = true; }"
    (tmp_path / "host.c").write_text(HOST.format(read=read, port="PIND"))
    command = [*compiler.command, "-std=c99", "-O2", "-ffp-contract=off", "-o", tmp_path / "host"]
    subprocess.run([*command, tmp_path / "host.c", tmp_path / "walk.c"], check=True)
    rows = [f"0 0 {value} 0 0 0 0 0 0" for value in ("nan", *WILD)]
    done = subprocess.run(
        [tmp_path / "host"], input="\n".join(rows), capture_output=True, text=True, check=True
    )
    lines = [[*map(int, line.split())][:3] for line in done.stdout.splitlines()]
    assert [line[0] for line in lines] == [0, 0, 0, 255, 0, 255, 219, 0, 0]
    assert [line[1] for line in lines] == [128, 128, 128, 191, 64, 191, 128, 128, 128]
    assert [line[2] for line in lines] == [0] * 3 + [255] * 6
