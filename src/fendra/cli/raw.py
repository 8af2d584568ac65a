"""`fendra listen --raw`: the bytes that arrive, and guesses at what they are."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

import typer

from fendra.cli.screen import say, say_json
from fendra.core.names import counted
from fendra.core.toml_text import value_text

if TYPE_CHECKING:
    from threading import Event

    from rich.console import Group
    from rich.live import Live

    from fendra.core.senses.raw import Guess, Watched
    from fendra.sources.raw import Raw

SHOW_S = 0.2
MOVED = 0.2
"""From this share of its range on a value has moved."""
ACROSS = 16
MOST_LENGTHS = 8
"""Lengths of packets that are looked at; others are counted."""


def listen_raw(address: str, seconds: float | None, *, as_json: bool) -> None:
    """Show what arrives at a UDP port or in shared memory until Ctrl-C."""
    from threading import Event

    from rich.console import Console
    from rich.live import Live

    from fendra.live.process import stopped_by_signals
    from fendra.sources.raw import open_raw
    from fendra.system.terminal import typed

    over, seen = Event(), dict[int, "Watched"]()
    try:
        raw = open_raw(address)
    except ValueError as exc:
        raise typer.BadParameter(str(exc), param_hint="--raw") from exc
    console = Console(highlight=False, emoji=False, markup=False)
    is_shown = console.is_terminal and not as_json
    if is_shown:
        say(f"Listening to {raw}. Let everything rest, press Enter, then move one thing.")
    view = Live(console=console, auto_refresh=False)
    with raw, stopped_by_signals(over.set), typed() as keys:
        try:
            if is_shown:
                view.start()
            _watch(raw, seen, over, seconds, keys if is_shown else None, view)
        except KeyboardInterrupt:
            pass  # the usual way to end it
        finally:
            view.stop()
    if as_json:
        say_json({"packets": [_plain(each) for each in seen.values()]})
        return
    if not seen:
        say(f"Nothing arrived at {raw}. Is that where its program sends?", style="yellow")
        return
    if not is_shown:
        console.print(_view(seen))
    say("To read them, name the values that you need, and delete the others:")
    say(_as_toml(address, seen))


def _watch(
    raw: Raw, seen: dict[int, Watched], over: Event, seconds: float | None,
    keys: Callable[[float], str | None] | None, view: Live,
) -> None:  # fmt: skip
    """Take packets until it is over, and show them where the view has been started. Enter says that
    everything rests.
    """
    import time

    from fendra.core.senses.raw import Watched

    start_s = shown_s = time.perf_counter()
    while not over.is_set():
        for packet in raw.take(0.05):
            if len(packet) in seen or (packet and len(seen) < MOST_LENGTHS):
                seen.setdefault(len(packet), Watched(len(packet))).take(packet)
        pressed = keys(0.0) if keys is not None else ""
        if pressed and ("\r" in pressed or "\n" in pressed):
            for each in seen.values():
                each.rest()
        now_s = time.perf_counter()
        if view.is_started and now_s - shown_s >= SHOW_S:
            shown_s = now_s
            view.update(_view(seen), refresh=True)
        if seconds is not None and now_s - start_s >= seconds:
            return


def _view(seen: dict[int, Watched]) -> Group:
    """The newest packet of each length, and the guesses."""
    from rich.console import Group
    from rich.table import Table
    from rich.text import Text

    parts: list[Any] = []
    for watched in seen.values():
        parts.append(Text(f"{watched.length} bytes, {counted(watched.count, 'packet')}"))
        parts.append(_bytes(watched))
        table = Table(box=None, pad_edge=False, header_style="dim")
        for head in ("byte", "type", "order", "now", "lowest", "highest", ""):
            table.add_column(head, justify="left" if head in ("type", "order", "") else "right")
        guesses = watched.guesses()
        for guess in guesses:
            style = "bold green" if guess.moved >= MOVED else "dim" if guess.is_still else ""
            table.add_row(*_cells(guess), style=style)
        none = Text("nothing here looks like a number or a text yet", style="dim")
        parts += [table if guesses else none, Text("")]
    return Group(*parts)


def _bytes(watched: Watched) -> Any:
    """The newest packet as rows of bytes; those that change stand out."""
    from rich.text import Text

    changing, text = watched.changing(), Text()
    for start in range(0, watched.length, ACROSS):
        text.append(f"{start:5} ", style="dim")
        for place, value in enumerate(watched.newest[start : start + ACROSS], start):
            text.append(f" {value:02x}", style="bold cyan" if place in changing else "dim")
        text.append("\n" if start + ACROSS < watched.length else "")
    return text


def _cells(guess: Guess) -> list[str]:
    if guess.type == "text":
        return [str(guess.byte), "text", "", str(guess.now), "", "", ""]
    numbers = [f"{value:.5g}" for value in (guess.now, guess.low, guess.high)]
    order = "" if guess.type in ("u8", "i8") else guess.order
    moved = "moved" if guess.moved >= MOVED else ""
    return [str(guess.byte), guess.type, order, *numbers, moved]


def _plain(watched: Watched) -> dict[str, Any]:
    """A length's packets as plain values."""
    return {
        "length": watched.length, "count": watched.count, "newest": watched.newest.hex(),
        "guesses": [vars(guess) for guess in watched.guesses()],
    }  # fmt: skip


def _as_toml(address: str, seen: dict[int, Watched]) -> str:
    """The guesses as tables of a design."""
    kind = "memory" if address.startswith("memory:") else "udp"
    where = address.removeprefix(f"{kind}:")
    lines = ["", "[sources.sim]", f'type = "{kind}"', f"address = {value_text(where)}"]
    for watched in seen.values():
        fields = [*map(_field, watched.guesses())]
        if fields:
            lines += ["", "[[sources.sim.packets]]", f"length = {watched.length}"]
            lines += ["[sources.sim.packets.fields]", *fields]
    return "\n".join(lines)


def _field(guess: Guess) -> str:
    keys = f'byte = {guess.byte}, type = "{guess.type}"'
    if guess.type == "text":
        return f"value-{guess.byte} = {{ {keys}, length = {guess.length} }}"
    keys += ', order = "big"' if guess.order == "big" else ""
    moved = ", moved" if guess.moved >= MOVED else ""
    return f"value-{guess.byte} = {{ {keys} }}  # {guess.low:.5g} to {guess.high:.5g}{moved}"
