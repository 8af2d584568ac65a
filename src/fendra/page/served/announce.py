"""Announcing the page on the local network, so that `NAME.local` leads to it (DNS-SD over mDNS)."""

from __future__ import annotations

from ipaddress import ip_address
from typing import Any

from fendra.core.errors import PageError
from fendra.page.served.access import own_addresses


class Announcement:
    """Announces a page in the local network, until it is closed.

    name: without `.local`. Raises PageError if that cannot be done, for example without a network.
    """

    def __init__(self, name: str, port: int) -> None:
        try:
            from zeroconf import NonUniqueNameException, ServiceInfo, Zeroconf
        except ImportError as exc:
            problem = "to announce the page the package 'zeroconf' is needed"
            raise PageError(f"{problem}: pip install 'fendra[page]'") from exc
        addresses = [ip_address(each).packed for each in own_addresses()]
        if not addresses:
            raise PageError("this computer is in no network where the page could be announced")
        self.host = f"{name}.local"
        info = ServiceInfo(
            "_http._tcp.local.", f"{name}._http._tcp.local.", port=port, addresses=addresses,
            server=f"{self.host}.", properties={"path": "/"},
        )  # fmt: skip
        self._zeroconf: Any = None
        try:
            self._zeroconf = Zeroconf()
            self._zeroconf.register_service(info)
        except NonUniqueNameException as exc:
            self.close()
            raise PageError(
                f"'{name}' is already used on this network; write another `name` into [page]"
            ) from exc
        except OSError as exc:
            self.close()
            raise PageError(f"the page cannot be announced: {exc}") from exc

    def close(self) -> None:
        """Say that it is gone."""
        if self._zeroconf is not None:
            self._zeroconf.close()
            self._zeroconf = None
