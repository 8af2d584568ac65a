"""Telling the service manager how a run goes: the datagrams of sd_notify (systemd.service(5))."""

from __future__ import annotations

import os
import socket
from contextlib import suppress


def notify(**states: object) -> bool:
    """Tell `READY=1` and the like; does nothing if no service manager listens.

    >>> notify(ready=1)
    False
    """
    address = os.environ.get("NOTIFY_SOCKET", "")
    if not address:
        return False
    if address.startswith("@"):
        address = f"\0{address[1:]}"
    text = "\n".join(f"{name.upper()}={value}" for name, value in states.items())
    with suppress(OSError), socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM) as there:
        there.sendto(text.encode(), address)
        return True
    return False
