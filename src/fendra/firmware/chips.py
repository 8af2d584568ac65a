"""The chips with a board layer: the bit and the functions of each pin.

All of it is data, in chips.toml.
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from importlib.resources import files
from importlib.util import find_spec
from shutil import which
from typing import Any

from fendra.core.catalogue.controllers import CONTROLLERS, ControllerType, unfold_pins
from fendra.system.process import NAME


@dataclass(frozen=True)
class Timer:
    """A timer's output at a pin, and what of DMA its update asks: a channel, or of a unit a stream
    by a request. function: the pin's alternate function.
    """

    number: int
    output: int
    dma: int
    unit: int = 1
    request: int = 0
    function: int = 0


@dataclass(frozen=True)
class Serial:
    """A serial link: its pins; `at`, `note`: they in words. words: the rest of its table."""

    tx: str
    rx: str
    words: Mapping[str, Any]
    at: str
    note: str = ""

    @property
    def tx_at(self) -> tuple[str, int]:
        """The port and the place in it of TX."""
        return port_and_bit(self.tx)

    @property
    def rx_at(self) -> tuple[str, int]:
        """The port and the place in it of RX."""
        return port_and_bit(self.rx)

    def __getattr__(self, name: str) -> Any:
        try:
            return self.words[name]
        except KeyError:
            raise AttributeError(name) from None


@dataclass(frozen=True)
class Chip:
    """One chip with a board layer; chips.toml says what each key is. clocked: of a data pin its
    clock pin and the link that both are of; None if any two pins do. words: its table whole,
    with what its family has, for templates.
    """

    name: str
    family: str
    about: str
    outputs: tuple[str, ...]
    inputs: tuple[str, ...]
    channels: Mapping[str, int]
    timers: Mapping[str, Timer]
    serial: tuple[Serial, ...]
    clocked: Mapping[str, tuple[str, int]] | None
    words: Mapping[str, Any]

    @property
    def type(self) -> ControllerType:
        """Its figures."""
        return CONTROLLERS[self.name]

    @property
    def files(self) -> dict[str, str]:
        """The files of its own, each with its template."""
        return {file.format(chip=self.name): page for file, page in self.words["files"].items()}

    @property
    def edge_pins(self) -> tuple[str, ...]:
        """The inputs whose edges give an interrupt."""
        groups = self.words.get("edges")
        return tuple(pin for pin in self.inputs if groups is None or port_and_bit(pin)[0] in groups)

    @property
    def lacks(self) -> str:
        """The missing tools that build its firmware, with how to get them; empty if all
        is there.
        """
        tool = self.words["tool"]
        has_zig = "zig_cpu" in self.words and find_spec("ziglang") is not None
        if which(tool) or has_zig:
            return ""
        is_debian = NAME == "linux" and tool != "idf.py"
        packages = self.words["packages" if NAME == "linux" else f"packages_{NAME}"]
        how = f"apt install {packages}" if is_debian else packages
        zig = ', or pip install "fendra[firmware]"' if "zig_cpu" in self.words else ""
        return f"{tool} ({how}{zig})"

    def label(self, pin: str) -> str:
        """A pin as boards print it, followed by the chip's own name if that differs."""
        if pin.startswith("GP"):
            return pin
        names = self.type.own_names.items()
        others = [other for other, own in names if own == pin and re.match(r"[AD]\d", other)]
        return f"{others[0]} ({pin})" if others else pin


def port_and_bit(pin: str) -> tuple[str, int]:
    """The port and the place in it of a pin.

    >>> port_and_bit("PD6"), port_and_bit("PA15"), port_and_bit("GP22")
    (('D', 6), ('A', 15), ('', 22))
    """
    found = re.fullmatch(r"(?:P([A-Z])|GP(?:IO)?)(\d+)", pin)
    if found is None:
        raise ValueError(f"'{pin}' is not a pin of a port")
    return found[1] or "", int(found[2])


def _chip(name: str, words: dict[str, Any]) -> Chip:
    return Chip(
        name,
        words["family"],
        words["about"],
        tuple(unfold_pins(words["outputs"])),
        tuple(unfold_pins(words["inputs"])),
        words["channels"],
        {pin: Timer(*each) for pin, each in words.get("pulses", {}).items()},
        tuple(_serial(each) for each in words["serial"]),
        {data: (clock, unit) for data, clock, unit in words["clocked"]}
        if "clocked" in words
        else None,
        {"name": name, **words, "timer": words.get("timers", {}).get(words.get("timer"))},
    )


def _serial(words: dict[str, Any]) -> Serial:
    at = words.get("at") or f"{words['rx']}, {words['tx']}"
    return Serial(words["tx"], words["rx"], words, at, words.get("note", ""))


def _read() -> dict[str, Chip]:
    tables = tomllib.loads(files(__package__).joinpath("chips.toml").read_text(encoding="utf-8"))
    families = tables["families"]
    return {
        name: _chip(name, {**families[words["family"]], **words})
        for name, words in tables["chips"].items()
    }


CHIPS: Mapping[str, Chip] = _read()
"""By controller type."""

GENERIC = "generic"
"""The target of a board that is to be filled in."""

TARGETS: Mapping[str, str] = {
    GENERIC: "",
    **{name: name for name in CHIPS},
    **{chip.family: name for name, chip in reversed([*CHIPS.items()])},
}
"""The targets: a chip by its name, or a family for its first chip; and that chip."""
