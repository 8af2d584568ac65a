"""HTTP: a JSON object from an address, requested again and again; its items become the names.

Use it for a colour or a level that several places share, for a weather service, or for the page
of another run: `http:http://pi.local:8480/api/state,pick=signals`. In a list of objects with a
`name`, these names are used, with the `value` of each. The source sends no requests more often
than `every`, waits longer if the server says so (`Retry-After`), and does not download what has
not changed (`ETag`).
"""

from __future__ import annotations

import json
import os
import re
import time
from http.client import HTTPException
from typing import Annotated, Any, ClassVar
from urllib.error import HTTPError, URLError
from urllib.parse import urlsplit
from urllib.request import HTTPRedirectHandler, Request, build_opener

from pydantic import AfterValidator, Field

from fendra.core.document.design import Design
from fendra.core.errors import SourceError
from fendra.core.layout import Layout
from fendra.core.limits import PACKET_BYTES
from fendra.drivers import Options
from fendra.sources import News, Source
from fendra.sources.texts import check_size

TIMEOUT_S = 5.0
LONGEST_WAIT_S = 300.0


def _is_whole(address: str) -> str:
    if not re.match(r"https?://[^/?#]", address):
        raise ValueError(f"'{address}' is not a web address; write http:http://pi.local/light.json")
    return address


class HttpOptions(Options):
    """Options of an address.

    Attributes:
        address: the URL
        every: time from one answer to the next request, s
        pick: the item of the answer to take, such as `light.now`; all of it by default
        token: the name of an environment variable with a token; a design may name those
            that begin with FENDRA_
    """

    address: Annotated[str, AfterValidator(_is_whole)]
    every: Annotated[float, Field(ge=0.5, le=3600)] = 2.0
    pick: str = ""
    token: str = ""


class _Nowhere(HTTPRedirectHandler):
    """Follows no redirection: the user has allowed one host and no other."""

    def redirect_request(self, *_: Any) -> None:
        return None


class HttpSource(Source):
    """An address that answers with JSON."""

    is_public: ClassVar[bool] = True
    Options = HttpOptions
    options: HttpOptions
    example = "http:http://pi.local:8123/light.json,every=5"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._next_s = 0.0
        self._tag = ""
        self._opener = build_opener(_Nowhere)

    def __str__(self) -> str:
        return f"HTTP {self.host}"

    @property
    def host(self) -> str:
        """The server's."""
        return urlsplit(self.options.address).hostname or ""

    def check_from_design(self) -> None:
        """A design names no other environment variables than those that are meant for Fendra."""
        if self.options.token and not re.fullmatch(r"FENDRA_\w+", self.options.token):
            raise SourceError(
                "a design may only name environment variables that begin with FENDRA_, "
                f"not {self.options.token}"
            )

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        self._next_s, self._tag = 0.0, ""

    def _read(self, wait_s: float) -> News:
        left_s = self._next_s - time.perf_counter()
        if left_s > 0:
            time.sleep(min(left_s, wait_s))
            if left_s > wait_s:
                return []
        try:
            return self._ask()
        finally:
            self._next_s = max(self._next_s, time.perf_counter() + self.options.every)

    def _close(self) -> None:
        pass

    def _ask(self) -> News:
        headers = {"Accept": "application/json", "User-Agent": "fendra"}
        if self._tag:
            headers["If-None-Match"] = self._tag
        token = os.environ.get(self.options.token, "") if self.options.token else ""
        if token:
            headers["Authorization"] = f"Bearer {token}"
        request = Request(self.options.address, headers=headers)
        try:
            with self._opener.open(request, timeout=TIMEOUT_S) as answer:
                text = answer.read(PACKET_BYTES.most + 1)
                self._tag = answer.headers.get("ETag", "")
        except HTTPError as exc:
            with exc:
                return self._refused(exc)
        except (URLError, HTTPException, OSError) as exc:
            reason = getattr(exc, "reason", exc)
            raise SourceError(f"{self} does not answer: {reason}") from exc
        if len(text) > PACKET_BYTES.most:
            self.refuse(f"more than {PACKET_BYTES.most:,} bytes in one answer")
            return []
        try:
            return self._picked(json.loads(text)).items()
        except (ValueError, RecursionError) as exc:  # a UnicodeDecodeError is one
            self.refuse(f"the answer is not usable JSON: {exc}")
            return []

    def _refused(self, exc: HTTPError) -> News:
        """Handle an answer other than 200: no news, or SourceError."""
        if exc.code == 304:
            return []
        wait = exc.headers.get("Retry-After", "")
        if wait.isdigit():
            self._next_s = time.perf_counter() + min(float(wait), LONGEST_WAIT_S)
        if 300 <= exc.code < 400:
            there = exc.headers.get("Location", "elsewhere")
            raise SourceError(f"{self} redirects to {there:.100}; write that address instead")
        raise SourceError(f"{self} answers {exc.code} {exc.reason}")

    def _picked(self, found: Any) -> dict[str, Any]:
        for step in filter(None, self.options.pick.split(".")):
            if not isinstance(found, dict) or step not in found:
                raise ValueError(f"it has no '{step:.40}'")
            found = found[step]
        if isinstance(found, list) and all(isinstance(e, dict) and "name" in e for e in found):
            found = {str(each["name"]): each.get("value") for each in found}
        name = self.options.pick.rpartition(".")[2] or "value"
        picked: dict[str, Any] = found if isinstance(found, dict) else {name: found}
        check_size(picked)
        return picked
