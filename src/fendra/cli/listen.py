"""`fendra listen`: a table of every live signal and its range."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from fendra.cli.options import AsJson
from fendra.cli.raw import listen_raw
from fendra.cli.run import From, Played, play, run, start_logging
from fendra.cli.screen import said_aside, say, say_json
from fendra.cli.served import Page
from fendra.cli.status import said
from fendra.core.names import counted
from fendra.core.quoting import in_lines, visible
from fendra.core.shown import in_digits

if TYPE_CHECKING:
    from rich.console import Group

    from fendra.front import Design
    from fendra.live.connect import Connected
    from fendra.live.ear import Row
    from fendra.live.inbox import Heard
    from fendra.live.listening import Listening

STEP_S, SHOW_S = 0.02, 0.2


def listen(
    design: Annotated[
        Path | None,
        typer.Argument(metavar="DESIGN", help="The design, a TOML file.", show_default=False),
    ] = None,
    from_: From = None,
    tape: Played = None,
    seconds: Annotated[
        float | None, typer.Option("--for", metavar="SECONDS", min=0.1, help="End after this time.")
    ] = None,
    learn: Annotated[
        bool, typer.Option("--learn", help="Write the ranges that it saw into the design.")
    ] = False,
    record: Annotated[
        Path | None, typer.Option(metavar="TAPE", help="Record what arrives as a tape.")
    ] = None,
    log: Annotated[bool, typer.Option("--log", help="Log events with their time.")] = False,
    raw: Annotated[
        str | None,
        typer.Option(
            metavar="ADDRESS", show_default=False,
            help="Show the bytes that arrive and guess what they are, without a design: "
            "udp:PORT or memory:NAME.",
        ),
    ] = None,
    page: Page = None,
    as_json: AsJson = False,
) -> None:  # fmt: skip
    """Show each signal: raw and conditioned, with its age, rate, range and trace.

    Ctrl-C ends it. With --page a browser shows the signals and the light; no frame is sent. With
    --learn, move everything from end to end: signals with a range get a `calibrate`, the others a
    `range`. Comments in the file stay. With --raw, press Enter while everything rests, then move
    one thing: the values that moved stand out.
    """
    if raw is not None:
        listen_raw(raw, seconds, as_json=as_json)
        return
    if design is None:
        raise typer.BadParameter("name a design, or give --raw udp:PORT", param_hint="DESIGN")
    from fendra.core.errors import SourceError
    from fendra.front import load
    from fendra.live.connect import connect, unreached

    if page is not None:
        if learn:
            raise typer.BadParameter("--learn works without a page: leave --page out")
        run(
            design, tape=tape, from_=from_, to=["null:"], seconds=seconds, record=record, log=log,
            page=page,
        )  # fmt: skip
        return
    start_logging(log)
    loaded = load(design)
    from_ = from_ or ([] if tape is not None else None)  # a tape replaces all sources
    try:
        connected = connect(loaded, folder=loaded.origin.folder, sources=from_, outputs=["null:"])
    except SourceError as exc:
        raise typer.BadParameter(str(exc), param_hint="--from") from exc
    if tape is not None:
        connected.polled["tape"] = play(loaded, tape, False, 1.0, None)
    if not connected.sources and not connected.polled:
        raise typer.BadParameter(
            "say where signals come from: --from udp:9400, or write [sources.NAME] "
            f"into {design.name}"
        )
    with said_aside(as_json):
        for text in unreached(loaded, connected):
            say(text, style="yellow")
    seen = _listen(loaded, connected, seconds, record, as_json=as_json)
    if learn:
        _learn(design, loaded, seen)


def _listen(
    design: Design,
    connected: Connected,
    seconds: float | None,
    record: Path | None,
    *,
    as_json: bool,
) -> dict[str, Heard]:
    """Listen and show it until Ctrl-C; return the values of each signal."""
    from threading import Event

    from rich.console import Console
    from rich.live import Live

    from fendra.live.listening import Listening
    from fendra.live.process import stopped_by_signals

    messages: list[str] = []
    over = Event()
    console = Console(highlight=False, emoji=False, markup=False)
    shown_s = -SHOW_S
    heard = Listening(design.examined.subject.recorded, connected, record, messages.append)
    view = Live(console=console, auto_refresh=False)
    with heard, stopped_by_signals(over.set):
        try:
            if console.is_terminal and not as_json:
                view.start()
            while heard.step() and not over.wait(STEP_S):
                if seconds is not None and heard.since_s >= seconds:
                    break
                if console.is_terminal and not as_json and heard.since_s - shown_s >= SHOW_S:
                    shown_s = heard.since_s
                    view.update(_table(design, heard, messages, console.width), refresh=True)
        except KeyboardInterrupt:
            pass  # the usual way to end it
        finally:
            view.stop()
    if as_json:
        say_json({"signals": [_plain(design, row) for row in heard.ear.rows()],
                  "unused": sorted({name for _, name in heard.inbox.unused}),
                  "messages": messages})  # fmt: skip
    elif not console.is_terminal:
        console.print(_table(design, heard, messages, console.width))
    return {name: seen for name, seen in heard.inbox.heard.items() if seen.count}


HEADS = (
    "signal", "from", "raw", "value", "unit", "age", "rate", "lowest", "highest", "trace", "",
)  # fmt: skip
RIGHT = {"raw", "value", "age", "rate", "lowest", "highest"}
SPARE = ("trace", "rate", "from", "unit", "highest", "lowest", "age", "raw")
"""Columns to leave out if the terminal is narrow, in this order."""


def _table(design: Design, heard: Listening, messages: list[str], width: int) -> Group:
    """A table with a row for each signal, and remarks below it. Names and values are shown in full;
    if the terminal is narrow, other columns are left out.
    """
    from rich.console import Group
    from rich.table import Table
    from rich.text import Text

    table = Table(box=None, pad_edge=False, header_style="dim")
    rows = [dict(zip(HEADS, _cells(design, row), strict=True)) for row in heard.ear.rows()]
    heads = _that_fit({head: max(len(head), *(len(row[head]) for row in rows), 0)
                       for head in HEADS}, width)  # fmt: skip
    for head in heads:
        table.add_column(head, justify="right" if head in RIGHT else "left", no_wrap=True)
    for row in rows:
        table.add_row(*(row[head] for head in heads))
    notes = [Text(in_lines(text), style="yellow") for text in messages[-4:]]
    for source in heard.sources:
        if source.refused:
            text = f"{source}: {counted(source.refused, 'value')} rejected: {source.problem}"
            notes.append(Text(visible(text), style="yellow"))
    unused = sorted({name for _, name in [*heard.inbox.unused]})
    if unused:
        more = f" and {len(unused) - 10} more" if len(unused) > 10 else ""
        text = f"No signal uses: {', '.join(unused[:10])}{more}."
        notes.append(Text(visible(text), style="dim"))
    return Group(table, *notes)


def _that_fit(widths: dict[str, int], width: int) -> list[str]:
    """The columns that fit into a width, with two blanks between."""
    found = dict(widths)
    for head in SPARE:
        if sum(found.values()) + 2 * (len(found) - 1) <= width:
            break
        del found[head]
    return [*found]


def _plain(design: Design, row: Row) -> dict[str, Any]:
    """A signal as plain values."""
    cells = dict(zip(HEADS, map(str, _cells(design, row)), strict=True))
    return {
        "signal": row.name, "from": cells["from"], "raw": row.heard.raw, "value": cells["value"],
        "unit": cells["unit"], "age_s": row.age_s, "lost": row.is_lost,
        "rate_hz": row.heard.rate_hz if row.heard.count else 0.0,
        "span": row.heard.span, "refused": row.heard.refused, "problem": row.heard.problem,
    }  # fmt: skip


def _cells(design: Design, row: Row) -> list[Any]:
    from rich.text import Text

    signal, heard = design.signals[row.name], row.heard
    is_known = heard.count > 0
    low, high = map(in_digits, heard.span) if heard.span is not None else ("", "")
    raw = said(heard.raw)[:18] if is_known and heard.raw is not None else ""
    age = "" if row.age_s is None else f"{row.age_s:.1f} s" if row.age_s < 600 else "long"
    rate = f"{heard.rate_hz:.1f} Hz" if is_known and row.age_s is not None and row.age_s < 5 else ""
    source = "computed" if signal.of is not None else heard.source
    note = Text("")
    if heard.refused:
        times = f"{heard.refused} times: " if heard.refused > 1 else ""
        note = Text(visible(f"{times}{heard.problem}")[:60], style="red")
    elif row.is_lost:
        note = Text("lost" if is_known else "nothing yet", style="yellow")
    value = _shown(signal, row.value)
    words = [row.name, source, raw, value, signal.unit, age, rate, low, high, row.trace, note]
    return [Text(visible(word)) if isinstance(word, str) else word for word in words]


def _shown(signal: Any, value: Any) -> Any:
    """A conditioned value in a few letters; a colour as itself."""
    import numpy as np
    from rich.text import Text

    from fendra.core.light.colours import linear_to_srgb
    from fendra.core.signals.kinds import kind_of

    if np.ndim(value) == 1:
        code = "".join(f"{round(float(v) * 255):02x}" for v in linear_to_srgb(value))
        return Text(f"#{code}", style=f"#{code}")
    if isinstance(value, (bool, np.bool_)):
        return "on" if value else "off"
    word = kind_of(signal).word(signal, float(value))
    if word is not None:
        return word
    number = float(value)
    return in_digits(number if abs(number) > 5e-5 else 0.0)  # what fades never quite gets there


def _learn(path: Path, design: Design, heard: dict[str, Heard]) -> None:
    """Write the ranges that were seen into the design."""
    from fendra.files.learned import learn as learned
    from fendra.whole import read_text, write_text

    text, told = read_text(path), []
    for place in sorted({place for each in heard.values() for place in each.spans}, key=str):
        seen = {name: each.spans[place] for name, each in heard.items() if place in each.spans}
        text, more = learned(text, design, seen, place)
        told += more
    if not told:
        say("Nothing moved, so nothing was written.", style="yellow")
        return
    write_text(path, text)
    for line in told:
        say(f"{path}: {line}")
