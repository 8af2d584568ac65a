"""The page of a run, and the panel on it: how a design is steered by hand."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from pydantic import AfterValidator, Field, model_validator

from fendra.core.document.signal import SignalName
from fendra.core.values import Model, Title


def _check_name(name: str) -> str:
    if not re.fullmatch(r"[a-z0-9]([a-z0-9-]{0,40}[a-z0-9])?", name):
        raise ValueError("a name for the network has small letters, digits and -, as in heron-2")
    return name


def _check_host(host: str) -> str:
    if not re.fullmatch(r"[a-z0-9][a-z0-9.-]{0,200}", host):
        raise ValueError("a host is only its name, in small letters, as in trike.home")
    return host


class PageKeys(Model):
    """The page of a run.

    Attributes:
        port: the port on this computer; by default the first free one from 8480 on
        name: the name that `--page-announce` announces on the local network: `NAME.local`
        hosts: more names of this computer, for example behind a router
    """

    port: Annotated[int, Field(ge=1, le=65535)] = 8480
    name: Annotated[str, AfterValidator(_check_name)] = "fendra"
    hosts: list[Annotated[str, AfterValidator(_check_host)]] = []


class PanelRow(Model):
    """A control on the panel, the page that a phone shows.

    Attributes:
        signal: the signal that it sets
        control: instead of `signal`: `on`, `level`, `scene` or `cues`
        name: the text above it
    """

    signal: SignalName | None = None
    control: Literal["level", "on", "scene", "cues"] | None = None
    name: Title | None = None

    @model_validator(mode="after")
    def _is_one_thing(self) -> PanelRow:
        if (self.signal is None) == (self.control is None):
            raise ValueError(
                'a [[panel]] has either a `signal` or a `control`, as in signal = "speed"'
            )
        return self


PANEL = (PanelRow(control="on"), PanelRow(control="level"), PanelRow(control="scene"))
"""The panel of a design that has none of its own."""
