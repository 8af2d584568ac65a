"""The inbox: the newest of each, events one by one, and what nobody uses."""

from __future__ import annotations

import numpy as np
import pytest

from fendra.core.signals.raw import Event
from fendra.live.inbox import LONGEST_ROW, MOST_NAMES, Inbox
from helpers import FakeClock, design, layer


def inbox(**signals) -> tuple[Inbox, FakeClock]:
    clock = FakeClock()
    sources = {"bus": {"type": "can"}, "home": {"type": "mqtt"}}
    return Inbox(design(layer(), signals=signals, sources=sources), clock=clock), clock


def test_the_newest_of_each_signal_is_given_once():
    box, _ = inbox(speed={}, left={"kind": "switch"})
    for speed in range(5):
        box.put("udp", "speed", speed)
    box.put("udp", "left", "on")
    assert box.take() == {"speed": 4.0, "left": 1.0}
    assert box.take() == {}


def test_a_signal_hears_its_own_source_and_name_and_others_do_not():
    box, _ = inbox(speed={"source": "bus:WheelSpeed"}, brake={"source": ["bus:b", "home:brake"]})
    box.put("bus", "WheelSpeed", 3)
    box.put("home", "WheelSpeed", 4)
    box.put("home", "speed", 5)
    box.put("home", "brake", 1)
    assert box.take() == {"speed": 3.0, "brake": 1.0}
    assert {*box.unused} == {("home", "WheelSpeed"), ("home", "speed")}


def test_tables_and_lists_go_by_their_parts_where_nobody_wants_them_whole():
    box, _ = inbox(
        left={"source": "bus:wheel.left"}, third={"source": "bus:cells[2]"}, hit={"kind": "event"},
        bands={"kind": "vector", "size": 2},
    )  # fmt: skip
    box.put("bus", "wheel", {"left": 1, "right": 2})
    box.put("bus", "cells", [4.1, 4.2, 3.9])
    box.put("bus", "hit", {"x": 3})
    box.put("bus", "bands", [0.1, 0.2])
    assert box.take() == {
        "left": 1.0, "third": 3.9, "hit": 1.0, "hit.x": 3.0, "hit.y": 0.0, "hit.z": 0.0,
        "bands[0]": 0.1, "bands[1]": 0.2,
    }  # fmt: skip
    assert ("bus", "wheel.right") in box.unused


def test_events_are_given_one_at_a_time_with_a_frame_between():
    box, _ = inbox(hit={"kind": "event"}, say={"kind": "text", "choices": ["go", "stop"]})
    for x in (1, 2):
        box.put("keys", "hit", Event(0.5, x))
    box.put("keys", "say", "stop")
    given = [box.take() for _ in range(5)]
    assert [news.get("hit.x") for news in given] == [1.0, None, 2.0, None, None]
    assert [news.get("say") for news in given] == [1.0, None, None, None, None]


def test_a_flood_of_events_and_of_names_is_bounded():
    box, _ = inbox(hit={"kind": "event"})
    for i in range(1000):
        box.put("udp", "hit", 1)
        box.put("udp", f"name {i}", 1)
    assert sum("hit" in box.take() for _ in range(200)) == LONGEST_ROW
    assert len(box.unused) == MOST_NAMES


def test_what_makes_no_sense_is_counted_and_the_last_value_stays():
    box, _ = inbox(speed={}, mode={"kind": "choice", "choices": ["calm", "wild"]})
    box.put("udp", "speed", 3)
    box.put("udp", "speed", "fast")
    box.put("udp", "mode", "wilt")
    assert box.take() == {"speed": 3.0}
    assert (box.heard["speed"].refused, box.heard["mode"].refused, box.refused()) == (1, 1, 2)
    assert "Did you mean 'wild'?" in box.heard["mode"].problem


def test_what_is_lost_and_what_was_never_fed():
    box, clock = inbox(speed={"lost_after": 0.5}, heat={}, total={"of": "speed + heat"})
    assert box.unfed() == ["speed", "heat"]
    box.put("udp", "speed", 1)
    clock.sleep(0.4)
    assert box.lost() == ["heat"]
    clock.sleep(0.1)
    assert box.lost() == ["speed", "heat"]
    assert box.unfed() == ["heat"]


def test_rate_and_range_of_what_is_heard():
    box, clock = inbox(speed={})
    for i in range(100):
        box.put("udp", "speed", i % 7)
        clock.sleep(0.05)
    heard = box.heard["speed"]
    assert (*heard.span, heard.count) == (0, 6, 100)
    assert heard.rate_hz == pytest.approx(20, rel=0.01)


def test_a_picture_comes_as_it_is():
    box, _ = inbox(screen={"kind": "picture"})
    light = np.ones((8, 3), np.float32)
    box.put("screen", "screen", light)
    assert box.take()["screen"] is light


def test_another_design_is_served_from_then_on():
    box, _ = inbox(speed={})
    box.use(design(layer(), signals={"rpm": {}}))
    box.put("udp", "speed", 1)
    box.put("udp", "rpm", 2)
    assert box.take() == {"rpm": 2.0}


def test_the_first_few_values_that_made_no_sense_are_remembered_each_once():
    box, _ = inbox(glow={"kind": "colour"}, s={})
    for raw in ("puce", "rosee", "puce", "red", "#12", "1,2", "x", "y"):
        box.put("net", "glow", raw)
    assert box.refused() == 7
    assert box.wrong() == ["glow: 'puce', 'rosee', '#12', '1,2', 'x'"]


def test_columns_of_a_line_are_the_numbers_of_a_vector():
    """Each is news of the vector; what came before stays. Numbers that it does not have are unused."""
    box, _ = inbox(
        acc={"kind": "vector", "size": 3, "source": {"name": "bus:a", "calibrate": [0, 10]}}
    )
    for place, value in ((0, "2"), (1, 4), (2, 6), (3, 8)):
        box.put("bus", f"a[{place}]", value)
    assert box.take() == {"acc[0]": 0.2, "acc[1]": 0.4, "acc[2]": 0.6}
    box.put("bus", "a[2]", 1)
    assert box.take() == {"acc[0]": 0.2, "acc[2]": 0.1}
    box.put("bus", "a[1]", "much")
    assert box.take() == {}
    assert box.heard["acc"].refused == 1
    assert ("bus", "a[3]") in box.unused


def test_each_source_has_its_own_numbers():
    """Of one the switch is reverses it; of the other it goes on above 30, off below 20."""
    box, _ = inbox(on={"kind": "switch", "source": [
        {"name": "bus:a", "invert": True}, {"name": "home:b", "on_at": 30, "off_at": 20}]})  # fmt: skip
    found = []
    for source, name, raw in (("bus", "a", "on"), ("home", "b", 25), ("home", "b", 31), ("home", "b", 25),
                              ("home", "b", 19), ("bus", "a", 0)):  # fmt: skip
        box.put(source, name, raw)
        found.append(box.take()["on"])
    assert found == [0, 0, 1, 1, 0, 1]
    box, _ = inbox(lux={"range": [0, 1], "curve": [[0, 1], [50, 0.2], [1000, 0]],
                        "source": ["bus:l", {"name": "home:l", "calibrate": [100, 0]}]})  # fmt: skip
    for percent, raw in (
        (40, 25),
        (80, 50),
        (90, 525),
        (100, 1000),
    ):  # that the curve makes 1 - percent
        box.put("home", "l", percent)
        assert box.take()["lux"] == pytest.approx(raw)
    words = {"off": 0, "eco": 3, "boost": 7}
    box, _ = inbox(mode={"kind": "choice", "choices": words,
                         "source": {"name": "bus:stick", "bands": [-0.3, 0.3]}})  # fmt: skip
    for stick, number in ((-0.31, 0), (-0.3, 3), (0.29, 3), (0.3, 7), ("1", 7)):
        box.put("bus", "stick", stick)
        assert box.take() == {"mode": number}
