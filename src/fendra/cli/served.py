"""The page of a run or of the bench: its options, and its address in the terminal."""

from __future__ import annotations

import re
import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path
from threading import Thread
from typing import TYPE_CHECKING, Annotated

import typer

from fendra.cli.screen import say

if TYPE_CHECKING:
    from fendra.core.document.design import Design
    from fendra.page.served.announce import Announcement
    from fendra.page.served.served import Served
    from fendra.page.served.server import Server

Page = Annotated[
    str | None,
    typer.Option(
        "--page", metavar="[ADDRESS]",
        help=(
"Serve a page in the browser: look at the run and steer it. Without an "
"address, only for this computer; 0.0.0.0:8080 also for phones, with a token."
), show_default=False,
    ),
]  # fmt: skip
PageCert = Annotated[
    Path | None,
    typer.Option(metavar="FILE", help="The page's certificate, for TLS.", show_default=False),
]
PageKey = Annotated[
    Path | None,
    typer.Option(metavar="FILE", help="The key of that certificate.", show_default=False),
]
PageNewTokens = Annotated[
    bool,
    typer.Option(
        "--page-new-tokens", help="Make new tokens for the page; the old ones stop working."
    ),
]
PageAnnounce = Annotated[
    bool,
    typer.Option("--page-announce", help="Announce the page on the local network, as NAME.local."),
]
_ADDRESS = re.compile(r"(\[[0-9a-fA-F:]+\]|[0-9]+(\.[0-9]+){3}|localhost)(:\d+)?|:?\d+")
DEFAULT = "default"


def with_page_address(words: Sequence[str]) -> list[str]:
    """The words of a command, in which `--page` may have no address.

    >>> with_page_address(["run", "a.toml", "--page", "--for", "2"])
    ['run', 'a.toml', '--page=default', '--for', '2']
    >>> with_page_address(["run", "--page", "0.0.0.0:8080", "a.toml"])
    ['run', '--page', '0.0.0.0:8080', 'a.toml']
    """
    found = []
    for word, after in zip(words, [*words[1:], ""], strict=True):
        is_alone = word == "--page" and not _ADDRESS.fullmatch(after)
        found.append(f"--page={DEFAULT}" if is_alone else word)
    return found


def make_server(
    design: Design, page: str | None, cert: Path | None, key: Path | None, is_anew: bool,
    is_announced: bool,
) -> Server | None:  # fmt: skip
    """The page's server, which listens but serves nothing yet; None if no page is wanted.

    A design's `[page]` asks for one on this computer alone. Raises PageError.
    """
    from fendra.core.errors import PageError
    from fendra.page.served.server import Server, place_of

    keys = design.served
    if page is None and keys is None:
        others = {"--page-cert": cert, "--page-key": key, "--page-new-tokens": is_anew}
        for name, value in (others | {"--page-announce": is_announced}).items():
            if value:
                raise typer.BadParameter(f"{name} needs --page: add --page")
        return None
    if (cert is None) != (key is None):
        raise typer.BadParameter("--page-cert and --page-key belong together")
    port = keys.port if keys is not None and "port" in keys.model_fields_set else 0
    place = place_of("" if page in (None, DEFAULT) else page or "", port)
    hosts = tuple(keys.hosts) if keys is not None else ()
    if is_announced and not place.is_open:
        raise typer.BadParameter(
            "only this computer can open the page, so there is nobody to announce it "
            "to: --page 0.0.0.0:8080"
        )
    name = keys.name if keys is not None else "fendra"
    hosts = (*hosts, f"{name}.local") if is_announced else hosts
    asked = replace(place, certificate=cert, key=key, tokens_anew=is_anew, hosts=hosts)
    try:
        server = Server(asked, _tell)
    except PageError as exc:
        if page is not None:
            raise
        say(f"The design's [page] is not served: {exc}", style="yellow")
        return None
    server.announced = name if is_announced else ""
    return server


def _tell(text: str) -> None:
    print(text, file=sys.stderr)


@contextmanager
def serving(server: Server, served: Served, tell: Callable[[str], object]) -> Iterator[None]:
    """While the block runs the page is served, and announced if wanted. tell: takes what fails."""
    with server.serving(served):
        announcing = Announcing(server, tell) if server.announced else None
        try:
            yield
        finally:
            if announcing is not None:
                announcing.end()


class Announcing(Thread):
    """Announces the page on the local network. That takes a second or two, and the light does not
    wait.
    """

    def __init__(self, server: Server, tell: Callable[[str], object]) -> None:
        super().__init__(name="announces the page", daemon=True)
        self._server, self._tell = server, tell
        self._announcement: Announcement | None = None
        self.start()

    def run(self) -> None:
        from fendra.core.errors import PageError
        from fendra.page.served.announce import Announcement

        try:
            self._announcement = Announcement(self._server.announced, self._server.port)
        except PageError as exc:
            self._tell(f"{exc}. The page runs all the same.")

    def end(self) -> None:
        """Say that it is gone."""
        self.join(5)
        if self._announcement is not None:
            self._announcement.close()


def say_where(server: Server) -> None:
    """Where the page is, and, for phones, as a QR code."""
    if server.tokens is None:
        say(f"page: {server.addresses()[0]}   (this computer alone)")
        return
    steer, look = server.tokens.steer, server.tokens.look
    here, *there = server.addresses(steer)
    say(f"page, on this computer:  {here}")
    if server.announced:
        there = [f"{server.scheme}://{server.announced}.local:{server.port}/#token={steer}", *there]
    for address in there:
        say(f"page, steering:          {address}")
    for address in server.addresses(look)[1:] or server.addresses(look):
        say(f"page, only looking:      {address}")
    if server.scheme == "http":
        say(
            (
                "Anybody who can listen on this network can read the token; --page-cert "
                "and --page-key encrypt it."
            ),
            style="dim",
        )
    if sys.stdout.isatty():
        say_code(server.addresses(steer, "/panel")[1:2] or [here])


def say_code(addresses: Sequence[str]) -> None:
    """An address as a QR code, for the camera of a phone: the panel."""
    try:
        import segno
    except ImportError:
        say("install 'fendra[page]' to show the address as a code for a phone's camera")
        return
    for address in addresses:
        segno.make(address, error="l").terminal(compact=True)
