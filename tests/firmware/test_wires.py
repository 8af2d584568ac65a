"""What comes to a controller over a serial wire while it makes the light itself: an autopilot by MAVLink,
and values that a computer tells. Whole images of an RP2040, in the emulator."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.errors import DesignError, FirmwareError
from fendra.outputs.packets import news_packet
from helpers import strip
from rp2040 import MODULE, emulate, outs_of, uf2_of

common = pytest.importorskip("pymavlink.dialects.v20.common")


@pytest.fixture(scope="module", autouse=True)
def rp2040(need, arm):
    need([] if MODULE.exists() else ["rp2040js"], "npm; then npm ci in web/")


def design_of(signals, colours, **controller):
    return fd.Design.from_values({
        "name": "wing", "rate": 50, "controllers": {"main": {"type": "rp2040", **controller}},
        "sources": {"autopilot": {"type": "mavlink"}, "bus": {"type": "udp"}},
        "line": [{"name": "a", "pin": "GP2", "order": "RGB", "part": [strip("a", len(colours))]}],
        "signals": signals,
        "layer": [{"name": f"l{i}", "on": f"a[{i}]", "effect": "solid", "colour": f"rgb({text})"}
                  for i, text in enumerate(colours)],
    })  # fmt: skip


def shown(project, folder, events, uart, seconds):
    """Frames by ms, each as the shares of its LEDs' bytes."""
    events = [
        [us + 200 * i, "byte", uart, byte] for us, data in events for i, byte in enumerate(data)
    ]
    (board,) = emulate(
        {"uf2": str(uf2_of(project, folder)), "outs": outs_of(project), "events": events},
        seconds=seconds,
    )
    return {us / 1000: np.frombuffer(bytes.fromhex(data), np.uint8).reshape(-1, 3) / 255
            for us, data in board["lines"][0]["frames"]}  # fmt: skip


def at(frames, ms):
    return frames[min(frames, key=lambda each: abs(each - ms))]


AUTOPILOT = {
    "armed": {"kind": "switch", "lost_after": 0.5},
    "bank": {"source": {"name": "autopilot:roll", "curve": [[-90, 0], [90, 1]]}, "range": [0, 1]},
    "climb": {"range": [-5, 5]},
    "throttle": {"range": [0, 1]},
    "pack": {"source": "autopilot:volts", "range": [9, 13]},
    "mode": {"kind": "choice", "source": "autopilot:mode_number", "choices": {"manual": 0, "return": 11}},
    "gain": {"source": "autopilot:stick_7", "range": [-1, 1]},
    "link": {"source": "autopilot:rssi", "range": [0, 1]},
    "other": {"source": "bus:x", "fallback": 0.3},
}  # fmt: skip
COLOURS = (
    "1 if armed else 0, bank, (climb + 5) / 10",
    "throttle, (pack - 9) / 4, 1 if mode == 'return' else 0",
    "(gain + 1) / 2, link, other",
)


def messages(version, *, armed, roll, autopilot=12):
    """What an autopilot sends, as pymavlink packs it."""
    link = common.MAVLink(None, srcSystem=1, srcComponent=1)
    packets = [
        common.MAVLink_heartbeat_message(1, autopilot, 128 if armed else 0, 11, 4, 3),
        common.MAVLink_attitude_message(1, roll, 0, 0, 0, 0, 0),
        common.MAVLink_vfr_hud_message(12, 11, 90, 75, 300, 2.5),
        common.MAVLink_sys_status_message(0, 0, 0, 0, 11500, 1500, 60, 0, 0, 0, 0, 0, 0),
        common.MAVLink_rc_channels_message(0, 8, *([1500] * 6), 1750, *([65535] * 11), 127),
        common.MAVLink_statustext_message(5, b"nobody reads this"),
    ]
    return b"".join(bytes(packet.pack(link, force_mavlink1=version == 1)) for packet in packets)


@pytest.mark.parametrize("version", [1, 2])
def test_an_autopilot_is_read_as_the_source_reads_it(tmp_path, version):
    """By hand: 45 degrees of -90 to 90 are 0.75; 2.5 m/s of -5 to 5 too; throttle 75 %; 11.5 of 9 to
    13 V is 0.625; stick 1750 is 0.5 of -1 to 1, so 0.75; rssi 127 of 254. A broken byte, a message of a
    ground station and bytes between change nothing; half a second after the last heartbeat `armed` is
    lost."""
    design = design_of(AUTOPILOT, COLOURS, mavlink={"rx": "GP5", "baud": 115_200})
    project = design.firmware()
    heard = {f.path[1] for f in design.check() if f.code == "never-heard"}
    assert heard == {"other"}
    good = messages(version, armed=True, roll=np.pi / 4)
    broken = bytearray(messages(version, armed=False, roll=-1.0))
    broken[9] ^= 4
    station = messages(version, armed=False, roll=np.pi / 4, autopilot=8)
    events = [(50_000, b"noise\x55" + good), (250_000, bytes(broken[:21])), (320_000, station)]
    frames = shown(project, tmp_path, events, 1, 0.9)
    wanted = [[1, 0.75, 0.75], [0.75, 0.625, 1], [0.75, 0.5, 0.3]]
    assert at(frames, 30).ravel().tolist()[:2] == [0, 0]
    assert at(frames, 230) == pytest.approx(np.array(wanted), abs=0.004)
    assert at(frames, 480) == pytest.approx(np.array(wanted), abs=0.004)
    assert at(frames, 800)[0, 0] == 0


def test_values_that_a_computer_tells_move_the_light(tmp_path):
    """Of each packet only what it holds is news; one for another design is not taken."""
    signals = {
        "speed": {"range": [0, 1]},
        "v": {"kind": "vector", "size": 3},
        "mode": {"kind": "choice", "choices": ["a", "b"], "lost_after": 0.2},
    }
    design = design_of(signals, ("speed, v[0], v[2]", "1 if mode == 'b' else 0, v[1], 0"),
                       values={"tx": "GP0", "rx": "GP1"})  # fmt: skip
    fed = design.compile(engine="numpy").fed
    events = [
        (
            50_000,
            b"\0" + news_packet(fed, {"speed": 0.5, "v[0]": 0.0, "v[1]": 0.0, "v[2]": 0.25}, 0, 5),
        ),
        (150_000, news_packet(fed, {"v[0]": 1.0, "v[1]": 0.75, "v[2]": 0.25, "mode": 1.0}, 1, 6)),
        (250_000, news_packet([*fed, "more"], {"speed": 0.0}, 2, 7)),
        (350_000, news_packet(fed, {"speed": 1.0}, 3, 8)[:-3] + b"\0"),
    ]
    frames = shown(design.firmware(), tmp_path, events, 0, 0.6)
    assert at(frames, 130) == pytest.approx(np.array([[0.5, 0, 0.25], [0, 0, 0]]), abs=0.003)
    assert at(frames, 240) == pytest.approx(np.array([[0.5, 1, 0.25], [1, 0.75, 0]]), abs=0.003)
    assert at(frames, 570) == pytest.approx(np.array([[0.5, 1, 0.25], [0, 0.75, 0]]), abs=0.003)


def test_a_controller_has_one_wire_for_that(tmp_path):
    wires = {"mavlink": {"rx": "GP5"}, "values": {"tx": "GP0", "rx": "GP1"}}
    with pytest.raises(DesignError, match="mavlink and values each need a serial link"):
        design_of(AUTOPILOT, COLOURS, **wires).firmware()
    with pytest.raises(FirmwareError, match="no free serial link with tx at any pin and rx GP6"):
        design_of(AUTOPILOT, COLOURS, mavlink={"rx": "GP6"}).firmware()
