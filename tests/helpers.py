"""What tests build things with."""

from __future__ import annotations

import os
import socket
import time
from collections.abc import Callable
from contextlib import suppress
from typing import Any

import numpy as np

import fendra as fd


def pipe_like_a_port() -> tuple[int, int]:
    """Both ends of a pseudo-terminal through which bytes pass unchanged, as through a serial port."""
    import tty

    ours, theirs = os.openpty()
    tty.setraw(theirs)
    return ours, theirs


def keep_in(patch: Any, what: str, folder: Any) -> None:
    """Keep what a program keeps for its user elsewhere. what: "cache", "config" or "data"."""
    patch.setenv(f"XDG_{what.upper()}_HOME", str(folder))
    patch.setenv("WIN_PD_OVERRIDE_LOCAL_APPDATA", str(folder))  # all of it, on Windows


def make_pipe(path: Any) -> None:
    """A named pipe, as Unix has them."""
    os.mkfifo(path)


def strip(name: str = "bar", count: int = 8, **keys: Any) -> dict[str, Any]:
    """A strip along x, 10 mm from LED to LED, from x = 0."""
    ends = {"start": [0.0, 0.0], "end": [10.0 * (count - 1), 0.0]}
    return {"name": name, "shape": "strip", "count": count, **ends, **keys}


def layer(effect: str = "solid", **keys: Any) -> dict[str, Any]:
    """A layer on all LEDs."""
    return {"name": f"{effect} layer", "on": "all", "effect": effect, **keys}


def finished(**keys: Any) -> dict[str, Any]:
    """Keys of a design whose light is finished in every way. Lopsided: a cold line, one with a white
    channel, an odd group, ceilings of which one moves with `s`, and dither; keys replace and add.
    """
    cold = {"name": "a", "led": "cold", "supply": "s", "most": "0.9 - 0.4 * s"}
    own_white = {"name": "b", "led": "sk6812-rgbw", "supply": "s"}
    return {
        "line": [
            {**cold, "part": [strip("bar", 7)]},
            {**own_white, "part": [strip("far", 5, at=[0, 50])]},
        ],
        "leds": {
            "cold": {"like": "ws2812b", "white": [1.0, 0.8, 0.6]},
            "sk6812-rgbw": {"white_point": [0.29, 0.3]},
        },
        "groups": {"face": {"of": "index % 3 == 1", "most": 0.4}},
        "most": 0.8,
        "dither": True,
        **keys,
    }


def design(*layers: dict[str, Any], count: int = 8, **keys: Any) -> fd.Design:
    """One line with one strip, and the layers; keys replace and add."""
    line = [{"name": "line", "part": [strip(count=count)]}]
    named = [{**item, "name": f"{i}: {item['name']}"} for i, item in enumerate(layers)]
    return fd.Design.from_values({"name": "Test", "line": line, "layer": named, **keys})


def reds(frame: fd.Frame) -> list[int]:
    """The red byte of every spot."""
    return frame.rgb[:, 0].tolist()


def tape(rate_hz: float = 20.0, **signals: Any) -> fd.Tape:
    """A tape of equally long lists; None is no news."""
    columns = {
        name: np.array([np.nan if v is None else v for v in values], float)
        for name, values in signals.items()
    }
    rows = len(next(iter(columns.values())))
    return fd.Tape(np.arange(rows) / rate_hz, columns)


def free_port() -> int:
    """A UDP and TCP port of this computer that nobody listens at."""
    while True:
        with (
            socket.socket() as there,
            socket.socket(type=socket.SOCK_DGRAM) as too,
            suppress(OSError),
        ):
            there.bind(("127.0.0.1", 0))
            too.bind(there.getsockname())
            return int(there.getsockname()[1])


class FakeClock:
    """Time that passes only while somebody sleeps, or works."""

    def __init__(self) -> None:
        self.now_s = 0.0

    def __call__(self) -> float:
        return self.now_s

    def sleep(self, duration_s: float) -> None:
        self.now_s += duration_s


def until(
    condition: Callable[[], Any], what: str, *, seconds: float = 30.0, step_s: float = 0.01
) -> None:
    """Wait until something is so."""
    end_s = time.monotonic() + seconds
    while not condition():
        if time.monotonic() > end_s:
            raise AssertionError(f"{what} did not come")
        time.sleep(step_s)


OWN_EFFECT = '''
from fendra.effects import Led, Look, colour, effect, number, select, fraction

@effect
def stripes(led: Led, colour=colour("red", "of the stripes"),
            size=number(4, "LEDs", 1, 100, "from stripe to stripe")) -> Look:
    """Every second run of LEDs is lit."""
    return Look(colour, select(fraction(led.rank / size) < 0.5, 1.0, 0.0))
'''


"""An effect of one's own, as the docs show it."""


def with_own_effect(tmp_path, code, **keys):
    """A design of eight LEDs on 70 mm that shows the effect `stripes` of a file that may run."""
    (tmp_path / "mine.py").write_text(code)
    fd.trust(tmp_path / "mine.py")
    layer = {"name": "l", "on": "bar", "effect": "stripes", **keys}
    part = {"name": "bar", "shape": "strip", "start": [0, 0], "end": [70, 0], "count": 8}
    values = {"line": [{"name": "a", "part": [part]}], "effects": ["mine.py"], "layer": [layer]}
    return fd.Design.from_values(values, folder=tmp_path)
