"""Telling the service manager how a run goes: the datagrams of sd_notify (systemd.service(5))."""

from __future__ import annotations

import os

from fendra.system.process import tell_manager


def notify(**states: object) -> bool:
    """Tell `READY=1` and the like; does nothing if no service manager listens.

    >>> notify(ready=1)
    False
    """
    address = os.environ.get("NOTIFY_SOCKET", "")
    if not address:
        return False
    text = "\n".join(f"{name.upper()}={value}" for name, value in states.items())
    return tell_manager(address, text)
