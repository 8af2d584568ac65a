"""Announcing the page: by the real protocol, on this computer's own network."""

from __future__ import annotations

import pytest

from fendra.core.errors import PageError
from fendra.page.served import announce
from fendra.page.served.access import own_addresses
from fendra.page.served.announce import Announcement


def test_an_announced_page_is_found_under_its_name_until_it_is_gone():
    zeroconf = pytest.importorskip("zeroconf", reason="zeroconf is not installed")
    try:
        announced = Announcement("heron-of-a-test", 8123)
    except PageError as exc:
        pytest.skip(f"nothing can be announced here: {exc}")
    assert announced.host == "heron-of-a-test.local"
    asking = zeroconf.Zeroconf()
    try:
        service = ("_http._tcp.local.", "heron-of-a-test._http._tcp.local.")
        found = asking.get_service_info(*service, timeout=5000)
        assert (found.port, found.server) == (8123, "heron-of-a-test.local.")
        assert {*found.parsed_addresses()} <= {*own_addresses()}
        announced.close()
        announced.close()  # twice does no harm
    finally:
        asking.close()


def test_without_a_network_it_says_so(monkeypatch):
    pytest.importorskip("zeroconf", reason="zeroconf is not installed")
    monkeypatch.setattr(announce, "own_addresses", list)
    with pytest.raises(PageError, match="this computer is in no network"):
        Announcement("heron", 8123)
