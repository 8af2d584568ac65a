"""The ESP family: its board layer compiled against stand-ins of the headers that it uses, on a model of
the parts; its receiver of sACN against the packets that Fendra sends."""

from __future__ import annotations

import subprocess
from uuid import UUID

import numpy as np
import pytest

import fendra as fd
from every_kind import assert_told, every_kind, happenings
from fendra.demo.controller import Receiver
from fendra.firmware.chips import CHIPS
from fendra.firmware.write import write_project
from fendra.outputs.packets import Answers, ask, frame_to_packets
from fendra.outputs.sacn_packets import Universes, fill, slots_of, sync_packet
from helpers import strip
from targets import HERE, SANE, build, make, run

ESP = HERE / "esp"
HEADERS = [
    "driver/gpio.h",
    "driver/rmt_encoder.h",
    "driver/rmt_tx.h",
    "driver/spi_master.h",
    "driver/uart.h",
    "esp_err.h",
    "esp_adc/adc_oneshot.h",
    "esp_event.h",
    "esp_netif.h",
    "esp_task_wdt.h",
    "esp_timer.h",
    "esp_wifi.h",
    "sdkconfig.h",
    "freertos/FreeRTOS.h",
    "freertos/task.h",
    "nvs.h",
    "nvs_flash.h",
]
STRICT = ["-Wall", "-Wextra", "-Wconversion", "-Wno-sign-conversion", "-Wshadow", "-Werror"]
KIND = {
    "esp32": {
        "bar": ["GPIO16"], "keys": ["GPIO17"], "rpm": ["GPIO18"], "throttle": ["GPIO19"],
        "volume": ["GPIO21", "GPIO22"], "mode": ["GPIO25"], "dial": ["GPIO32"],
        "rows": ["GPIO26", "GPIO27"], "columns": ["GPIO13", "GPIO14", "GPIO33"], "horn": ["GPIO4"],
    },
    "esp32s3": {
        "bar": ["GPIO48"], "keys": ["GPIO38"], "rpm": ["GPIO4"], "throttle": ["GPIO5"],
        "volume": ["GPIO6", "GPIO7"], "mode": ["GPIO8"], "dial": ["GPIO1"],
        "rows": ["GPIO9", "GPIO10"], "columns": ["GPIO11", "GPIO12", "GPIO13"], "horn": ["GPIO14"],
    },
}  # fmt: skip


@pytest.fixture(scope="module")
def headers(tmp_path_factory):
    """Each header that is asked for is the one stand-in; sockets are this computer's."""
    folder = tmp_path_factory.mktemp("headers")
    for name in HEADERS:
        (folder / name).parent.mkdir(exist_ok=True)
        (folder / name).write_text('#include "stand_in.h"\n')
    (folder / "lwip").mkdir()
    names = ("arpa/inet.h", "netinet/in.h", "sys/socket.h", "unistd.h")
    text = "".join(f"#include <{name}>\n" for name in names)
    (folder / "lwip" / "sockets.h").write_text(text)
    return folder


def modelled(project, folder, headers, compiler, rows, *, more=()):
    """What a firmware does on the model: rows of text of each kind."""
    write_project(project.files, folder)
    sources = [folder / name for name in ("board.c", "main.c", f"{project.name}.c", *more)]
    program = folder / "model"
    build([*compiler.command, "-std=gnu11", *SANE, *STRICT, "-ffp-contract=off", f"-I{folder}", f"-I{headers}",
           f"-I{ESP}", "-Dmain=run_light", "-c", folder / "main.c", "-o", folder / "main.o"])  # fmt: skip
    sources[1] = folder / "main.o"
    build([*compiler.command, "-std=gnu11", *SANE, *STRICT, "-ffp-contract=off", f"-I{folder}", f"-I{headers}",
           f"-I{ESP}", *sources, ESP / "model.c", "-o", program, "-lm"])  # fmt: skip
    told = [
        row.split() for row in run([program], "\n".join(rows).encode()).stdout.decode().splitlines()
    ]
    zero, one, bit = next([int(word) for word in row[1:]] for row in told if row[0] == "pulses")
    assert 250 <= zero <= 380
    assert 650 <= one <= 750
    assert bit == 1250
    return told


def frames_of(told, project):
    """The bytes of all lines, frame after frame, and when each began, ms."""
    pins = [int(pin.removeprefix("GPIO")) for pin, what in project.pins if what.startswith("line")]
    lines = [[row for row in told if row[1:3] == ["line", str(pin)]] for pin in pins]
    return [(int(each[0][0]) / 1000, b"".join(bytes.fromhex(row[3]) for row in each))
            for each in zip(*lines, strict=True)]  # fmt: skip


@pytest.mark.parametrize("chip", KIND)
def test_every_kind_of_input_tells_what_its_design_says(compiler, headers, tmp_path, chip):
    """All but the keys, whose wires the model does not have."""
    design = every_kind(chip, KIND[chip])
    project = design.firmware()
    assert project.notes == ()
    at = {pin: int(pin.removeprefix("GPIO")) for pins in KIND[chip].values() for pin in pins}
    channel = CHIPS[chip].channels[KIND[chip]["dial"][0]]
    rows = []
    for ms, what, which, value in happenings(KIND[chip]):
        if what == "pin":
            rows.append(f"{ms} pin {at[which]} {value}")
        elif what == "share":
            rows.append(f"{ms} adc {channel} {round(value * 4095)}")
    told = modelled(project, tmp_path, headers, compiler, [*rows, "1300 end"])
    frames = frames_of(told, project)
    assert not any(frames[0][1])
    assert np.diff([ms for ms, _ in frames[1:]]) == pytest.approx(20, abs=1.6)
    assert_told(design, frames, loose=0.06, has_keys=False)


@pytest.mark.parametrize("chip", ["esp32", "esp32s3", "esp32c3"])
def test_clocked_leds_and_a_receiver_over_a_serial_port(compiler, headers, tmp_path, chip):
    outputs, spi = CHIPS[chip].outputs, CHIPS[chip].inputs
    design = fd.Design.from_values({
        "name": "far", "controllers": {"main": {"type": chip, "link": {"baud": 500_000}}},
        "line": [
            {"name": "a", "pin": outputs[0], "part": [strip("a", 5)]},
            {"name": "b", "pin": spi[1], "clock": spi[2], "led": "apa102", "part": [strip("b", 3)]},
        ],
        "layer": [{"name": "own", "on": "all", "effect": "solid", "colour": "rgb(1, 0.5, 0)"}],
    })  # fmt: skip
    project = design.firmware(receiver=True)
    random = np.random.default_rng(4)
    sent = [
        [random.integers(0, 256, size, np.uint8).tobytes() for size in (15, 9)] for _ in range(4)
    ]
    rows = []
    for number, lines in enumerate(sent):
        rows += [
            f"{50 + 20 * number} byte {byte} 0" for byte in b"\0" + frame_to_packets(number, lines)
        ]
    rows += [f"140 byte {byte} 0" for byte in ask()]
    told = modelled(
        project, tmp_path, headers, compiler, [*rows, "1300 end"], more=["far_receiver.c"]
    )
    wire = [bytes.fromhex(row[3]) for row in told if row[1] == "line"]
    clocked = [bytes.fromhex(row[3]) for row in told if row[1] == "spi"]
    assert wire[:5] == [bytes(15), *(lines[0] for lines in sent)]
    assert clocked[1][:16] == bytes(4) + b"".join(
        b"\xff" + sent[0][1][i : i + 3] for i in (0, 3, 6)
    )
    assert len(clocked[1]) == 4 + 12 + 5  # half a bit for each LED, and 32 more
    assert wire[-1] == bytes([128, 255, 0] * 5)
    (identity,) = Answers().feed(bytes.fromhex(next(row[1] for row in told if row[0] == "back")))
    assert (identity.name, identity.sizes, identity.frames) == ("far", (15, 9), 4)


FAR = {
    "name": "far", "controllers": {"main": {"type": "esp32", "link": {"network": "sacn"}}},
    "line": [
        {"name": "a", "pin": "GPIO16", "part": [strip("a", 171)]},
        {"name": "b", "pin": "GPIO17", "led": "sk6812-rgbw", "part": [strip("b", 3)]},
    ],
    "layer": [{"name": "own", "on": "all", "effect": "solid", "colour": "#203040"}],
}  # fmt: skip
SACN = """
#include <stdio.h>
#include "sacn.h"
int main(void)
{
    static struct sacn sacn;
    static uint8_t packet[SACN_MOST + 8], stream[SACN_STREAM];
    uint32_t head[2];
    sacn_init(&sacn);
    while (fread(head, sizeof head, 1, stdin) == 1) {
        const uint32_t size = head[1] > SACN_MOST ? SACN_MOST : head[1];
        if (fread(packet, 1, head[1], stdin) != head[1]) {
            return 1;
        }
        sacn_take(&sacn, packet, (uint16_t)size, head[0]);
        const uint16_t count = sacn_stream(&sacn, stream);
        fwrite(stream, 1, count, stdout);
    }
    return 0;
}
"""


@pytest.fixture(scope="module")
def sacn(compiler, headers, tmp_path_factory):
    """The receiver of sACN on this computer: datagrams (ms, bytes) in, what a receiver of the serial
    protocol saw of them out."""
    folder = tmp_path_factory.mktemp("sacn")
    project = fd.Design.from_values(FAR).firmware(receiver=True)
    write_project(project.files, folder)
    (folder / "try.c").write_text(SACN)
    build([*compiler.command, "-std=gnu11", *SANE, *STRICT, f"-I{folder}", folder / "try.c", folder / "sacn.c",
           "-o", folder / "try"])  # fmt: skip
    build([*compiler.command, "-std=gnu11", "-Wall", "-Wextra", "-Werror", f"-I{folder}", f"-I{headers}",
           f"-I{ESP}", "-c", folder / "network.c", "-o", folder / "network.o"])  # fmt: skip

    def play(datagrams):
        given = b"".join(
            ms.to_bytes(4, "little") + len(data).to_bytes(4, "little") + bytes(data)
            for ms, data in datagrams
        )
        receiver = Receiver((513, 12))
        receiver.feed(run([folder / "try"], given).stdout)
        return receiver

    return play


def universes(*, sender=1, priority=100, sync=0, first=1):
    used = [*slots_of(513, 3), *slots_of(12, 4)]
    return Universes([first + i for i in range(3)], used, name="test", sender=UUID(int=sender),
                     priority=priority, sync=sync)  # fmt: skip


def sent(source, line_a, line_b, places=(0, 1, 2)):
    fill(source.slots, 0, np.frombuffer(line_a, np.uint8), 3)
    fill(source.slots, 2, np.frombuffer(line_b, np.uint8), 4)
    return [bytes(packet) for packet in source.packets(np.array(places))]


def test_universes_become_the_lines(sacn):
    """170 pixels fill the first universe; the 171st is in a second one, and the other line has its own."""
    random = np.random.default_rng(6)
    a, b = (random.integers(0, 256, size, np.uint8).tobytes() for size in (513, 12))
    seen = sacn([(0, packet) for packet in sent(universes(), a, b)])
    assert (seen.shown, seen.damaged, seen.incomplete) == ([a, b], 0, 0)


def test_a_source_that_synchronises_is_shown_when_it_says_so(sacn):
    source = universes(sync=9)
    packets = sent(source, b"\x10" * 513, b"\x20" * 12)
    assert sacn([(0, packet) for packet in packets]).frames == 0
    other = sync_packet(8, 1, UUID(int=1))
    assert sacn([(0, packet) for packet in [*packets, other]]).frames == 0
    seen = sacn([(0, packet) for packet in [*packets, sync_packet(9, 1, UUID(int=1))]])
    assert seen.shown == [b"\x10" * 513, b"\x20" * 12]


@pytest.mark.parametrize(
    ("priority", "after_ms", "is_heard"),
    [(100, 100, False), (99, 2400, False), (101, 100, True), (1, 2500, True)],
)
def test_another_source_takes_over_by_priority_or_once_the_first_is_gone(
    sacn, priority, after_ms, is_heard
):
    """E1.31 calls data lost after 2.5 s."""
    first = [(0, packet) for packet in sent(universes(), b"\1" * 513, b"\1" * 12)]
    other = sent(universes(sender=2, priority=priority), b"\2" * 513, b"\2" * 12)
    seen = sacn([*first, *((after_ms, packet) for packet in other)])
    assert seen.shown[0][0] == (2 if is_heard else 1)


def test_what_comes_late_or_is_no_packet_is_left_out(sacn):
    source = universes()
    early, late = sent(source, b"\1" * 513, b"\1" * 12), sent(source, b"\2" * 513, b"\2" * 12)
    seen = sacn([(0, packet) for packet in [*late, *early]])
    assert seen.shown[0][0] == 2
    broken = [packet[:60] for packet in early] + [b"\0" * 638, b"", early[0][:126]]
    broken.append(bytes([*early[0][:125], 0xDD, *early[0][126:]]))  # another start code
    broken.append(bytes([*early[0][:113], 0xFF, 0xFF, *early[0][115:]]))  # another universe
    seen = sacn([(0, packet) for packet in broken])
    assert seen.frames <= 1  # a packet without slots changes nothing
    assert not seen.frames or not any(seen.shown[0])


@pytest.mark.parametrize("chip", ["esp32", "esp32s3", "esp32c3"])
def test_its_folder_says_what_was_tried_and_holds_no_credentials(tmp_path, chip):
    values = {**FAR, "controllers": {"main": {"type": chip, "link": {"network": "sacn"}}}}
    for line, pin in zip(values["line"], CHIPS[chip].outputs, strict=False):
        line["pin"] = pin
    project = fd.Design.from_values(values).firmware(receiver=True)
    readme = project.files["README.md"]
    assert "has not run on a real" in readme
    assert "menuconfig" in readme
    assert f'CONFIG_IDF_TARGET="{chip}"' in project.files["sdkconfig.defaults"]
    assert "sdkconfig" in project.files[".gitignore"].split()
    write_project(project.files, tmp_path)
    assert "byte for byte" in make(tmp_path, "check").stderr
    done = subprocess.run(["make", "-C", tmp_path], capture_output=True, text=True, check=False)
    assert "install ESP-IDF" in done.stdout + done.stderr


def test_controllers_of_the_family_tell_each_other_and_keep_what_was_chosen(
    compiler, headers, tmp_path
):
    """Two of them on one wire: the first tells each frame, and its knob is kept after two seconds."""
    wire = {"tx": "GPIO23", "rx": "GPIO22"}
    design = fd.Design.from_values({
        "name": "pair",
        "controllers": {"one": {"type": "esp32", "peers": wire}, "two": {"type": "esp32", "peers": wire}},
        "line": [{"name": n, "controller": c, "pin": "GPIO16", "order": "RGB", "part": [strip(n, 2)]}
                 for n, c in (("a", "one"), ("b", "two"))],
        "signals": {"v": {"range": [0, 1], "keep": True, "lost_after": 0.5, "pin": {
            "name": "GPIO18", "kind": "knob", "other": "GPIO19", "step": 0.25}}},
        "layer": [{"name": "x", "on": "all", "effect": "solid", "colour": "rgb(v, 0, 0)"}],
    })  # fmt: skip
    first, second = (design.firmware(controller=name) for name in ("one", "two"))
    assert (first.unheard, second.unheard) == ((), ())
    turn = [(18, 0), (19, 0), (18, 1), (19, 1)]
    rows = [
        "0 pin 18 1",
        "0 pin 19 1",
        *(f"{100 + i} pin {p} {v}" for i, (p, v) in enumerate(turn)),
    ]
    told = modelled(first, tmp_path / "one", headers, compiler, [*rows, "2600 end"],
                    more=["peers.c"])  # fmt: skip
    packets = [bytes.fromhex(row[1]) for row in told if row[0] == "back"]
    assert len(packets) > 120
    (kept,) = [row for row in told if row[1] == "kept"]
    moved = np.frombuffer(bytes.fromhex(kept[3]), "<f4").tolist()
    assert moved == [0.25]
    later = packets[60]
    rows = [f"{50 + i / 50} byte {byte} 0" for i, byte in enumerate(later)]
    told = modelled(
        second, tmp_path / "two", headers, compiler, [*rows, "300 end"], more=["peers.c"]
    )
    shown = [bytes.fromhex(row[3])[0] for row in told if row[1] == "line"]
    assert shown[1] == round(255 * moved[0])
    assert len([row for row in told if row[0] == "back"]) == 1
