"""Ports: why one does not open, in the words of each system, and ports without a device."""

from __future__ import annotations

import threading
from types import SimpleNamespace

import pytest
import serial

import fendra as fd
from fendra.demo.controller import Receiver, serve
from fendra.files.design_file import read_design
from fendra.live.connect import connect
from fendra.live.loop import run_live
from fendra.outputs.serial_port import SerialOutput
from fendra.sources.lines import LinesSource
from fendra.sources.tape import TapeSource
from fendra.system.ends import FORMS, SocketEnd
from fendra.system.ports import PortError, known_ports, line_to, open_port
from helpers import design, layer, tape

WINDOWS = "could not open port 'COM7': {}"
LISTED = [
    SimpleNamespace(device="COM10", name="COM10", description="Trike board (COM10)"),
    SimpleNamespace(device="COM9", name="COM9", description="n/a"),
]


@pytest.mark.parametrize(
    ("told", "words", "is_missing"),
    [
        ("FileNotFoundError(2, 'The system cannot find the file specified.', None, 2)",
         "there is no port COM7. Ports: COM9, COM10 (Trike board).", True),
        ("PermissionError(13, 'Access is denied.', None, 5)",
         "port COM7 is busy: it is in use by another program. End that program.", False),
        ("PermissionError(13, 'Zugriff verweigert', None, 5)",
         "port COM7 is busy: it is in use by another program. End that program.", False),
        ("OSError(22, 'A device attached to the system is not functioning.', None, 31)",
         "there is no port COM7. Ports: COM9, COM10 (Trike board).", True),
        ("OSError(22, 'The semaphore timeout period has expired.', None, 121)",
         "the device at port COM7 does not answer. Is it switched on and near?", False),
    ],
)  # fmt: skip
def test_windows_words_become_ours(monkeypatch, told, words, is_missing):
    def fail(*_, **__):
        raise serial.SerialException(WINDOWS.format(told))

    monkeypatch.setattr(serial, "Serial", fail)
    monkeypatch.setattr("fendra.system.ports.list_ports.comports", lambda: LISTED)
    monkeypatch.setattr("fendra.system.ports.holders", lambda _: [])
    with pytest.raises(PortError) as caught:
        open_port("COM7", 115_200)
    assert (str(caught.value), caught.value.is_missing) == (words, is_missing)


def test_ports_are_sorted_by_their_numbers(monkeypatch):
    monkeypatch.setattr("fendra.system.ports.list_ports.comports", lambda: LISTED)
    assert known_ports() == "COM9, COM10 (Trike board)"


@pytest.mark.parametrize("form", FORMS)
def test_a_controller_without_a_device_shows_the_last_frame(form, monkeypatch):
    """20 frames of 8 LEDs, the last one green: over a pseudo-terminal and over a socket."""
    monkeypatch.setattr("fendra.demo.controller.far_end", form)
    lit = design(layer(colour="lime"), count=8, signals={"s": {}})
    where, has_port, seen = [], threading.Event(), []

    def listen():
        seen.append(serve([24], lambda port: (where.append(port), has_port.set())))

    thread = threading.Thread(target=listen, daemon=True)
    thread.start()
    assert has_port.wait(5)
    run_live(lit.compile(), TapeSource(tape(s=[0] * 20)), SerialOutput(where[0]))
    thread.join(10)
    (receiver,) = seen
    assert isinstance(receiver, Receiver)
    assert receiver.shown == [bytes([255, 0, 0] * 8)]  # GRB
    assert (receiver.lost, receiver.damaged) == (0, 0)


def test_lines_come_over_a_socket_and_a_program_that_ends_is_told():
    end = SocketEnd()
    source = LinesSource(end.address)
    source.open(design(layer()), None)
    end.give(b"speed=12.5 left=on\r\nspeed=13\r\n")
    heard = dict(source.read(2.0))
    assert heard == {"speed": "13", "left": "on"}
    end.close()
    with pytest.raises(fd.SourceError, match="is gone"):
        source.read(2.0)
    source.close()


def test_nobody_at_a_socket_is_one_line_and_tried_again():
    end = SocketEnd()
    end.close()
    with pytest.raises(fd.OutputError, match=r"^no program serves port socket://127") as caught:
        SerialOutput(end.address).open(design(layer()))
    assert caught.value.code == ""


@pytest.mark.parametrize(
    "table", ["[sources.a]\ntype = 'lines'", "[outputs.a]\ntype = 'serial'",
              "[sources.a]\ntype = 'keys'"],
)  # fmt: skip
def test_a_stranger_s_design_does_not_reach_out_by_a_port(table, tmp_path):
    path = tmp_path / "stranger.toml"
    text = fd.demo_file("bare.toml").read_text(encoding="utf-8")
    path.write_text(f"{text}\n{table}\naddress = 'socket://example.com:80'\n", encoding="utf-8")
    with pytest.raises(fd.FendraError, match="only within your own network"):
        connect(read_design(path))


def test_a_socket_without_a_number_is_named_as_it_is_written():
    with pytest.raises(
        PortError, match=r"socket://pi\.local names no number; write socket://HOST:P"
    ):
        open_port("socket://pi.local", 115_200)
    for address in ("socket://pi.local", "socket://pi.local:0", "socket://pi.local:99999"):
        with pytest.raises(OSError, match="is not a port; write socket://HOST:PORT"):
            line_to(address, 1.0)
