"""Who may: what a request's host, origin and token let it do.

A page that listens only on this computer needs no token, because other computers cannot reach it.
Requests from browsers are checked anyway: a page of another site may send requests to this
computer, and its host name may lead here. So the `Host` must be a name of this computer, and the
`Origin`, if there is one, the page's own.
"""

from __future__ import annotations

import asyncio
import hmac
import socket
import time
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from enum import IntEnum
from ipaddress import ip_address

from fendra.page.served.tokens import Tokens

MOST_WRONG = 10
"""After this many wrong tokens an address must wait."""
FORGET_S = 60.0
"""How long wrong tokens count."""
SLOWEST_S = 4.0
"""How long an answer to a wrong token takes at most."""
MOST_KNOWN = 1000
"""Addresses that are remembered for their wrong tokens."""


class Right(IntEnum):
    """Rights: nothing, look, steer, or change the design's file as well."""

    NOTHING = 0
    LOOK = 1
    STEER = 2
    OWN = 3


class Refusal(Exception):  # noqa: N818 - it is an answer
    """An answer to what may not be: an HTTP status, and why."""

    def __init__(self, status: int, why: str) -> None:
        super().__init__(why)
        self.status, self.why = status, why


@dataclass
class Gate:
    """Looks at every request before anything else does.

    address: the one that is listened on. hosts: more names of this computer. tokens: None if
    this computer alone is let in.
    """

    address: str
    hosts: frozenset[str] = frozenset()
    tokens: Tokens | None = None
    clock: Callable[[], float] = time.perf_counter
    _wrong: dict[str, tuple[int, float]] = field(default_factory=dict)

    def check_place(
        self, headers: Mapping[str, str], scheme: str, *, is_shell: bool = False
    ) -> None:
        """Raises Refusal if host or origin are not this page's.

        is_shell: a request for the empty page, to which other sites may link.
        """
        host = headers.get("host", "")
        if not self._is_own(_name_of(host)):
            raise Refusal(
                421, f"this page is not known as '{host[:80]}'. Open it by its address, or add "
                "the name to `hosts` of [page]."
            )  # fmt: skip
        if is_shell:
            return
        origin = headers.get("origin")
        if origin is not None and origin != f"{scheme}://{host}":
            raise Refusal(403, "another site may not ask for this")
        if headers.get("sec-fetch-site", "none") not in ("none", "same-origin"):
            raise Refusal(403, "another site may not ask for this")

    def _is_own(self, name: str) -> bool:
        try:
            ip_address(name.strip("[]"))
        except ValueError:
            return name in self.hosts or name in known_names()
        return True  # a bare address cannot be made to lead elsewhere

    async def right(self, token: str, peer: str) -> Right:
        """The right that a token gives a peer. A wrong one is answered slowly. Raises Refusal."""
        if self.tokens is None:
            return Right.OWN
        count, since_s = self._wrong.get(peer, (0, 0.0))
        if count and self.clock() - since_s > FORGET_S:
            count = 0
        if count >= MOST_WRONG:
            raise Refusal(429, f"too many wrong tokens. Wait {FORGET_S:g} seconds.")
        if not token:
            raise Refusal(401, "a token is needed: open the address that the terminal shows")
        if _same(token, self.tokens.steer):
            self._wrong.pop(peer, None)
            return Right.OWN if is_this_computer(peer) else Right.STEER
        if _same(token, self.tokens.look):
            self._wrong.pop(peer, None)
            return Right.LOOK
        if len(self._wrong) >= MOST_KNOWN:
            self._wrong.pop(next(iter(self._wrong)))
        self._wrong[peer] = count + 1, self.clock()
        await asyncio.sleep(min(0.25 * 2**count, SLOWEST_S))
        raise Refusal(401, "this token is wrong or old: open the address that the terminal shows")


def needs(right: Right, wanted: Right) -> None:
    """Raises Refusal if a right is not enough."""
    if right < wanted:
        why = {
            Right.STEER: "this token lets you look; to steer, open the other address",
            Right.OWN: "only a browser on the design's own computer may change the design",
        }
        raise Refusal(403, why.get(wanted, "that may not be"))


def _same(one: str, other: str) -> bool:
    return hmac.compare_digest(one.encode(), other.encode())


def is_this_computer(peer: str) -> bool:
    """Whether a peer's address is this computer's own loopback."""
    try:
        found = ip_address(peer)
    except ValueError:
        return False
    mapped = getattr(found, "ipv4_mapped", None)
    return (mapped or found).is_loopback


def known_names() -> frozenset[str]:
    """The names of this computer, for itself and on the local network."""
    own = socket.gethostname().lower().rstrip(".")
    return frozenset({"localhost", own, f"{own.partition('.')[0]}.local"})


def own_addresses() -> list[str]:
    """The addresses of this computer in its networks, the likeliest first; nothing is sent."""
    found: list[str] = []
    for family, there in ((socket.AF_INET, "192.0.2.1"), (socket.AF_INET6, "2001:db8::1")):
        try:
            with socket.socket(family, socket.SOCK_DGRAM) as probe:
                probe.connect((there, 9))  # of UDP, this only chooses a way
                found.append(probe.getsockname()[0])
        except OSError:
            continue
    return [address for address in found if not is_this_computer(address)]


def token_of(headers: Mapping[str, str], protocols: Iterable[str] = ()) -> str:
    """The token of a request: `Authorization: Bearer TOKEN`, or a subprotocol `token.TOKEN`."""
    kind, _, token = headers.get("authorization", "").partition(" ")
    if kind.lower() == "bearer":
        return token.strip()
    return next((p.removeprefix("token.") for p in protocols if p.startswith("token.")), "")


def _name_of(host: str) -> str:
    """A host without its port, in lower case."""
    if host.startswith("["):
        return host.partition("]")[0].lower() + "]"
    return host.partition(":")[0].lower().rstrip(".")
