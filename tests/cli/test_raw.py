"""`fendra listen --raw`: the tables that it writes are a source that reads the same bytes."""

from __future__ import annotations

import json
import socket
import threading
import time
import tomllib

import pytest

from fendra.demo.stand_ins.simulator import Shared, car, people
from fendra.sources import DRIVERS
from helpers import free_port


@pytest.fixture
def port():
    """A port to which a simulator sends while the test runs: it drives faster and faster."""
    number, over = free_port(), threading.Event()

    def send():
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
            for count in range(4000):
                values = {
                    "speed": count / 5 % 90,
                    "rpm": 800 + 29 * count % 5000,
                    "battery": 47 + count % 7 / 9,
                }
                there.sendto(car(count, values), ("127.0.0.1", number))
                if count % 30 == 0:
                    there.sendto(people("Ada", "Bo"), ("127.0.0.1", number))
                if over.wait(0.005):
                    return

    threading.Thread(target=send, daemon=True).start()
    yield number
    over.set()


def test_what_it_writes_is_a_source_that_reads_the_packets(fendra, port):
    code, out, err = fendra("listen", "--raw", f"udp:{port}", "--for", "1.5")
    assert (code, err) == (0, "")
    assert "60 bytes, " in out
    table = tomllib.loads(out[out.index("[sources.sim]") :])["sources"]["sim"]
    fields = {row["length"]: row["fields"] for row in table["packets"]}[60]
    assert fields["value-8"]["type"] == "f32"
    assert fields["value-12"] == {"byte": 12, "type": "u16", "order": "big"}
    assert fields["value-44"] == {"byte": 44, "type": "text", "length": 16}
    source = DRIVERS.from_table(table)
    found = source.options.decoder(source.folder).decode(car(9, {"speed": 36.0, "rpm": 1234}))
    assert found["value-8"] == pytest.approx(10.0)
    assert (found["value-12"], found["value-44"]) == (1234, "Kiln Pass")


def test_it_says_it_in_json_and_says_when_nothing_comes(fendra, port):
    told = json.loads(fendra("listen", "--raw", str(port), "--for", "0.8", "--json")[1])
    assert {packet["length"] for packet in told["packets"]} == {60, 11}
    assert all(packet["count"] > 0 for packet in told["packets"])
    code, out, _ = fendra("listen", "--raw", f"udp:{free_port()}", "--for", "0.2")
    assert (code, "Nothing arrived at UDP" in out) == (0, True)


def test_memory_is_shown_as_well(fendra):
    shared = Shared(f"fendra-{free_port()}")
    shared.start()
    over = threading.Event()

    def drive():
        count = 0
        while not over.wait(0.01):
            shared.say(count / 60, {"speed": count % 80, "rpm": 900 + 31 * count % 4000})
            count += 1

    thread = threading.Thread(target=drive, daemon=True)
    thread.start()
    time.sleep(0.1)
    try:
        code, out, _ = fendra("listen", "--raw", f"memory:{shared.address}", "--for", "1.2")
    finally:
        over.set()
        thread.join(2)
        shared.close()
    assert code == 0
    table = tomllib.loads(out[out.index("[sources.sim]") :])["sources"]["sim"]
    assert (table["type"], table["address"]) == ("memory", shared.address)


@pytest.mark.parametrize("address", ["can:can0", "memory:no-such-memory", "udp:99999"])
def test_what_cannot_be_listened_to_is_one_line(fendra, address):
    code, _, err = fendra("listen", "--raw", address, "--for", "0.1")
    assert code in (1, 2)
    assert "Traceback" not in err
