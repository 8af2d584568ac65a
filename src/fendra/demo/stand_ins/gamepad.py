"""A game controller: its stick and triggers by their names, over a socket of this computer."""

from __future__ import annotations

from collections.abc import Mapping

from fendra.demo.stand_ins import StandIn
from fendra.system.ends import SocketEnd

AXES = {"throttle": "rz", "brake": "z", "lean": "x", "left": "tl", "right": "tr"}
"""Which of the tape's signals is which part of it."""


class Gamepad(StandIn):
    """Somebody steers the trike with it: the right trigger is the throttle, the left one the brake,
    the stick leans, the bumpers are the turn signals.
    """

    about = "a game controller with which somebody steers"
    hears = frozenset(AXES)

    def start(self) -> str:
        self._end = SocketEnd()
        return f"gamepad:{self._end.address}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        for name, value in values.items():
            if name in AXES:
                share = value / 30 if name == "lean" else value
                self._end.give(f"{AXES[name]}={share:.4g}\n".encode())

    def close(self) -> None:
        self._end.close()
