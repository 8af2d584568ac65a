"""Frames over a network, as sACN (ANSI E1.31-2018)."""

from __future__ import annotations

import contextlib
import socket
import time
from collections.abc import Callable
from typing import Annotated, Any
from uuid import NAMESPACE_URL, uuid5

import numpy as np
from pydantic import Field

from fendra.core.arrays import Array
from fendra.core.document.design import Design
from fendra.core.electric.data import sacn_mbit
from fendra.core.errors import OutputError, reason
from fendra.core.film import Frame
from fendra.core.layout import place
from fendra.outputs import Output, OutputOptions
from fendra.outputs.sacn_packets import (
    DISCOVERY,
    HIGHEST,
    LOWEST,
    PORT,
    Universes,
    discovery_packets,
    fill,
    multicast_group,
    slots_of,
    sync_packet,
)

REPEATS = 3
"""How often a universe that has stopped changing is sent (section 6.6.2)."""
KEEP_S = 0.8
"""How often after that (the standard: every 0.8 to 1 s)."""
DISCOVERY_S = 10.0
"""How often a source sends the list of its universes (section 4.3.3)."""

UniverseNumber = Annotated[int, Field(ge=LOWEST, le=HIGHEST)]


class SacnOptions(OutputOptions):
    """Options of sACN receivers.

    Attributes:
        address: `multicast`, or a receiver's host for unicast, with a port if it is not
            5568
        universe: of the first line; each line begins at a universe of its own, one after
            another
        universes: of lines that begin elsewhere: `{ tail = 10 }`
        priority: 0 to 200
        sync: the universe of synchronisation packets; none by default
        interface: the address of the network that sends multicast
        ttl: how many routers multicast may pass
    """

    address: str = "multicast"
    universe: UniverseNumber = 1
    universes: dict[str, UniverseNumber] = {}
    priority: Annotated[int, Field(ge=0, le=200)] = 100
    sync: Annotated[int, Field(ge=0, le=HIGHEST)] = 0
    interface: str = ""
    ttl: Annotated[int, Field(ge=1, le=255)] = 1


class SacnOutput(Output):
    """Receivers in a network. Universes that do not change are sent three times, then now and then.

    `deal` says which universes each line has, once it is open.
    """

    Options = SacnOptions
    options: SacnOptions
    example = "sacn:multicast,universe=1 or sacn:192.168.1.60"

    def __init__(
        self, address: str = "", *, clock: Callable[[], float] = time.perf_counter,
        **options: Any,
    ) -> None:  # fmt: skip
        if not address:
            raise OutputError(
                "sacn needs the receiver's address, as in sacn:192.168.1.60; sacn:multicast sends "
                "to the whole network."
            )
        super().__init__(address, **options)
        self._clock = clock
        self._socket: socket.socket | None = None
        self.deal: dict[str, range] = {}

    def __str__(self) -> str:
        return f"sACN {self.options.address}"

    @property
    def host(self) -> str:
        """The receiver's; none for multicast, which stays in the local network."""
        address = self.options.address
        return "" if address == "multicast" else address.rpartition(":")[0] or address

    def most_frames_hz(self, design: Design) -> float | None:
        """The frames a second that the design's network carries; None if the design names none."""
        link = next(
            (c.link for c in design.controllers.values() if c.link and c.link.network == "sacn"),
            None,
        )
        if link is None:
            return None
        lines = [design.line[number] for number in self.lines_of(design)]
        sizes = place(design).line_sizes
        pairs = [(sizes[design.line.index(line)], len(line.wire_order)) for line in lines]
        return link.mbit / sacn_mbit(pairs, 1.0)

    def _open(self, design: Design) -> None:
        options = self.options
        self._first, numbers, used = self._dealt(design)
        host, port = options.address, PORT
        if ":" in host and host.count(":") == 1:
            host, _, text = host.partition(":")
            port = int(text) if text.isdigit() else PORT
        try:
            self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
            self._socket.setsockopt(socket.SOL_SOCKET, socket.SO_SNDBUF, 1 << 20)
            self._socket.setsockopt(socket.IPPROTO_IP, socket.IP_MULTICAST_TTL, options.ttl)
            if options.interface:
                packed = socket.inet_aton(options.interface)
                self._socket.setsockopt(socket.IPPROTO_IP, socket.IP_MULTICAST_IF, packed)
            if host == "multicast":
                self._to = [(multicast_group(number), port) for number in numbers]
                self._sync_to = (multicast_group(options.sync), port)
                self._discovery_to = (multicast_group(DISCOVERY), port)
            else:
                there = (socket.gethostbyname(host), port)
                self._to = [there] * len(numbers)
                self._sync_to = self._discovery_to = there
        except OSError as exc:
            raise OutputError(f"{self} cannot be reached: {reason(exc)}") from exc
        name = f"Fendra {design.name}"
        self._sender = uuid5(NAMESPACE_URL, f"{socket.gethostname()}/{design.name}/{numbers}")
        self._name = name
        self._universes = Universes(
            numbers, used, name=name, sender=self._sender, priority=options.priority,
            sync=options.sync,
        )  # fmt: skip
        self._before = np.zeros_like(self._universes.slots)
        self._sent_at = np.full(len(numbers), -1e9)
        self._same = np.zeros(len(numbers), np.int64)
        self._told_at = -1e9
        self._sync_sequence = 0

    def _dealt(self, design: Design) -> tuple[list[int], list[int], list[int]]:
        """The place of each line's first universe, all universes, and the slots that each uses.

        Raises OutputError if two lines would share one.
        """
        first: list[int] = []
        numbers: list[int] = []
        used: list[int] = []
        following = self.options.universe
        self.deal = {}
        unknown = [n for n in self.options.universes if n not in {x.name for x in design.line}]
        if unknown:
            raise OutputError(f"{self}: the design has no line '{unknown[0]}'")
        for number, size, order in zip(
            self.wire.lines, self.wire.sizes, self.wire.orders, strict=True
        ):
            line = design.line[number].name
            begin = self.options.universes.get(line, following)
            slots = slots_of(size, len(order))
            mine = range(begin, begin + len(slots))
            following = mine.stop
            if mine.stop - 1 > HIGHEST:
                raise OutputError(f"{self}: line '{line}' goes beyond universe {HIGHEST}")
            taken = {*mine} & {*numbers}
            if taken:
                raise OutputError(
                    f"{self}: line '{line}' shares universe {min(taken)} with "
                    "another line; give it another start"
                )
            self.deal[line] = mine
            first.append(len(numbers))
            numbers += [*mine]
            used += slots
        return first, numbers, used

    def _send(self, frame: Frame) -> None:
        assert self._socket is not None
        slots, now_s = self._universes.slots, self._clock()
        for first, line, order in zip(
            self._first, self.wire.arrays(frame.rgb), self.wire.orders, strict=True
        ):
            fill(slots, first, line, len(order))
        changed = (slots != self._before).any(axis=1)
        self._same = np.where(changed, 0, self._same + 1)
        is_due = (self._same < REPEATS) | (now_s - self._sent_at >= KEEP_S)
        places = np.flatnonzero(is_due)
        np.copyto(self._before, slots)
        self._sent_at[places] = now_s
        self._send_places(places)
        if self.options.sync and len(places):
            packet = sync_packet(self.options.sync, self._sync_sequence, self._sender)
            self._sync_sequence += 1
            self._to_network(packet, self._sync_to)
        if now_s - self._told_at >= DISCOVERY_S:
            self._told_at = now_s
            numbers = sorted(self._universes.numbers)
            for packet in discovery_packets(numbers, self._name, self._sender):
                self._to_network(packet, self._discovery_to)

    def _send_places(self, places: Array) -> None:
        assert self._socket is not None
        send, to = self._socket.sendto, self._to
        try:
            for place, packet in zip(places.tolist(), self._universes.packets(places), strict=True):
                send(packet, to[place])
        except OSError as exc:
            raise OutputError(f"{self} cannot be reached: {reason(exc)}") from exc

    def _to_network(self, packet: bytes, to: tuple[str, int]) -> None:
        assert self._socket is not None
        try:
            self._socket.sendto(packet, to)
        except OSError as exc:
            raise OutputError(f"{self} cannot be reached: {reason(exc)}") from exc

    def _close(self) -> None:
        if self._socket is None:
            return
        with contextlib.suppress(OSError, OutputError):
            self._universes.end()
            for _ in range(REPEATS):
                self._send_places(np.arange(len(self._universes.numbers)))
        self._socket.close()
        self._socket = None
