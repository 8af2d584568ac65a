"""Stand-ins for what a design connects to: each plays a tape as the real thing would send it.

They know nothing of the sources that receive them. `STAND_INS` names them.
"""

from __future__ import annotations

import importlib
from abc import ABC, abstractmethod
from collections.abc import Mapping


class StandIn(ABC):
    """Something that sends values.

    file: the tape that suits it; design: the design that does. hears: the signals that it can send;
    None if it can send all. about: what it is. source: the type of source that hears it, if
    `BY_SOURCE` does not say so. address: where it sends them; its usual place if empty.
    """

    about: str
    source: str = ""
    file: str = "ride.csv"
    design: str = "heron.toml"
    hears: frozenset[str] | None = None

    def __init__(self, address: str = "") -> None:
        self.address = address

    @abstractmethod
    def start(self) -> str:
        """Start; return the text for `--from` of a run that receives it."""

    @abstractmethod
    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        """Send values, at a time of the tape; called often, with the new values."""

    @abstractmethod
    def close(self) -> None:
        """End."""


class WritesFiles(StandIn):
    """A stand-in that writes files as it starts, and then sends nothing more."""

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        pass

    def close(self) -> None:
        pass


STAND_INS: dict[str, tuple[str, str]] = {
    "broker": ("fendra.demo.stand_ins.broker", "Broker"),
    "flight": ("fendra.demo.stand_ins.flight", "Flight"),
    "game": ("fendra.demo.stand_ins.game", "Game"),
    "gamepad": ("fendra.demo.stand_ins.gamepad", "Gamepad"),
    "lines": ("fendra.demo.stand_ins.lines", "Lines"),
    "osc": ("fendra.demo.stand_ins.osc", "Osc"),
    "pins": ("fendra.demo.stand_ins.pins", "Pins"),
    "memory": ("fendra.demo.stand_ins.simulator", "Shared"),
    "screen": ("fendra.demo.stand_ins.screen", "Screen"),
    "simulator": ("fendra.demo.stand_ins.simulator", "Simulator"),
    "song": ("fendra.demo.stand_ins.song", "Song"),
    "typing": ("fendra.demo.stand_ins.typing", "Typing"),
    "vehicle": ("fendra.demo.stand_ins.vehicle", "Vehicle"),
    "web": ("fendra.demo.stand_ins.web", "Web"),
}
"""Name to module and class."""


BY_SOURCE = {
    "audio": "song", "can": "vehicle", "gpio": "pins", "http": "web", "keys": "typing",
    "mavlink": "flight", "mqtt": "broker", "obd": "vehicle", "udp": "game",
}  # fmt: skip
"""The stand-in that a source of another name hears."""


def stand_in(name: str) -> type[StandIn]:
    """The class of a name. Raises KeyError."""
    module, attribute = STAND_INS[name]
    found: type[StandIn] = getattr(importlib.import_module(module), attribute)
    return found
