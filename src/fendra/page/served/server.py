"""The server: in a thread of its own, beside the loop, which never waits for it."""

from __future__ import annotations

import asyncio
import errno
import logging
import socket
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from ipaddress import ip_address
from pathlib import Path
from threading import Thread
from typing import TYPE_CHECKING, Any

from fendra.core.errors import PageError, internal_error, reason
from fendra.page.served.access import Gate, own_addresses
from fendra.page.served.tokens import Tokens, read_tokens

if TYPE_CHECKING:
    from fendra.page.served.served import Served

HOST, PORT = "127.0.0.1", 8480
MORE_PORTS = 10
"""Ports to try, one after the other, if the user names none."""
MOST_CONNECTIONS = 200
"""Connections in all."""
LONGEST_HEAD = 16_384
LONGEST_MESSAGE = 4096
"""Bytes of a request's head, and of what a page says over its socket."""


@dataclass(frozen=True)
class Place:
    """Where a page is served.

    host, port: that are listened on; port 0: the first that is free from `PORT` on. hosts: more
    names of this computer. certificate, key: files, for TLS. tokens_anew: old tokens end.
    """

    host: str = HOST
    port: int = 0
    hosts: tuple[str, ...] = ()
    certificate: Path | None = None
    key: Path | None = None
    tokens_anew: bool = False

    @property
    def is_open(self) -> bool:
        """Whether other computers can get there."""
        return self.host not in ("127.0.0.1", "::1", "localhost")


def place_of(address: str, port: int = 0) -> Place:
    """A place from `HOST:PORT`, `HOST`, `PORT`, or nothing. Raises PageError.

    port: if the address has none.

    >>> place_of("0.0.0.0:8080").port, place_of("[::1]").host, place_of("9000").host
    (8080, '::1', '127.0.0.1')
    """
    host, number = address.strip(), str(port)
    if host.isdigit():
        host, number = "", host
    elif host.startswith("["):
        host, _, rest = host[1:].partition("]")
        number = rest.removeprefix(":") or number
    elif host.count(":") == 1:
        host, _, number = host.partition(":")
    if not number.isdigit() or int(number) > 65535:
        raise PageError(f"'{address}' is not an address for a page; write --page 127.0.0.1:8480")
    return Place(host or HOST, int(number))


class Server(Thread):
    """Serves a page until it is stopped. tell: reports failures.

    It listens as soon as it is made; if the address is not free, it raises PageError. announced:
    its name in the local network, if it announces one.
    """

    def __init__(self, place: Place, tell: Callable[[str], object] = lambda _: None) -> None:
        super().__init__(name="page", daemon=True)
        _need("starlette", "uvicorn", "websockets")
        self._tell = tell
        self.tokens: Tokens | None = read_tokens(anew=place.tokens_anew) if place.is_open else None
        self.socket = _listening(place)
        self.place = place
        self.port: int = self.socket.getsockname()[1]
        self.gate = Gate(place.host, frozenset(place.hosts), self.tokens)
        self.announced = ""
        self._server: Any = None

    @property
    def scheme(self) -> str:
        return "https" if self.place.certificate is not None else "http"

    def addresses(self, token: str | None = None, path: str = "/") -> list[str]:
        """Where the page can be opened: first on this computer, then from its networks."""
        hosts = [self.place.host]
        if is_every(self.place.host):
            own = own_addresses()
            if ":" not in self.place.host:
                own = [address for address in own if ":" not in address]
            hosts = ["127.0.0.1", *own]
        names = [f"[{host}]" if ":" in host else host for host in hosts]
        end = f"#token={token}" if token else ""
        return [f"{self.scheme}://{name}:{self.port}{path}{end}" for name in names]

    @contextmanager
    def serving(self, served: Served) -> Iterator[None]:
        """Serve something while the block runs. Raises PageError, as `serve` does."""
        self.serve(served)
        try:
            yield
        finally:
            self.stop()

    @contextmanager
    def closed_if_it_fails(self) -> Iterator[None]:
        """Stop listening if the content cannot be made."""
        try:
            yield
        except BaseException:
            self.socket.close()
            raise

    def serve(self, served: Served) -> None:
        """Begin to serve something. Raises PageError if the certificate cannot be used."""
        import uvicorn

        from fendra.page.served.app import make_app
        from fendra.page.served.patience import Patient

        config = uvicorn.Config(
            make_app(served), http=Patient, ws="websockets-sansio", log_config=None,
            access_log=False, lifespan="on", server_header=False, proxy_headers=False,
            ws_max_size=LONGEST_MESSAGE, ws_per_message_deflate=False, timeout_keep_alive=15,
            limit_concurrency=MOST_CONNECTIONS, h11_max_incomplete_event_size=LONGEST_HEAD,
            timeout_graceful_shutdown=1, ssl_certfile=self.place.certificate,
            ssl_keyfile=self.place.key,
        )  # fmt: skip
        try:
            config.load()
        except OSError as exc:  # ssl.SSLError is one of them
            self.socket.close()
            raise PageError(f"the certificate or its key cannot be used: {exc}") from exc
        self._server = uvicorn.Server(config)
        self.start()

    def run(self) -> None:
        logging.getLogger("uvicorn").addHandler(logging.NullHandler())
        logging.getLogger("uvicorn").propagate = False
        try:
            asyncio.run(self._serve())
        except Exception as exc:  # the light continues anyway
            self._tell(internal_error(exc, "in the page's server"))

    async def _serve(self) -> None:
        from fendra.page.served.patience import cut_all

        await self._server.serve(sockets=[self.socket])
        await cut_all()

    def stop(self) -> None:
        """End it; pages that are open lose it."""
        if self._server is not None:
            self._server.should_exit = True
            self.join(3)
        self.socket.close()


def is_every(host: str) -> bool:
    """Whether a host means every network of this computer, as 0.0.0.0 does."""
    try:
        return ip_address(host).is_unspecified
    except ValueError:
        return False


def _need(*packages: str) -> None:
    """Raises PageError if a package is missing."""
    import importlib.util

    for package in packages:
        if importlib.util.find_spec(package) is None:
            raise PageError(f"the page needs the package '{package}': pip install 'fendra[page]'")


def _listening(place: Place) -> socket.socket:
    """A socket that listens there. Raises PageError."""
    first = place.port or PORT
    ports = [first] if place.port else range(first, first + MORE_PORTS)
    problem = ""
    for port in ports:
        family = socket.AF_INET6 if ":" in place.host else socket.AF_INET
        made = socket.socket(family, socket.SOCK_STREAM)
        try:
            if hasattr(socket, "SO_REUSEPORT"):  # of POSIX: a port of a run that has just ended
                made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            made.bind((place.host, port))
            made.listen(128)
        except OSError as exc:
            made.close()
            taken = exc.errno == errno.EADDRINUSE
            problem = "it is in use" if taken else reason(exc)
            continue
        made.setblocking(False)
        return made
    where = f"{place.host}:{place.port}" if place.port else f"{place.host}, ports {first} to {port}"
    raise PageError(
        f"the page cannot be served on {where}: {problem}. Choose another: --page "
        f"{HOST}:{first + 100}"
    )
