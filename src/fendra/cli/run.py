"""`fendra run`: a design live, from its sources to its outputs."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from fendra.cli.film import compile_on, say_if_unfed
from fendra.cli.made_up import Sets, Steps, Sweeps, Toggles
from fendra.cli.options import DesignFile, Engine
from fendra.cli.screen import said_aside, say, say_columns, say_json
from fendra.cli.served import (
    Page,
    PageAnnounce,
    PageCert,
    PageKey,
    PageNewTokens,
    make_server,
    say_where,
    serving,
)
from fendra.cli.status import Foot, Ticker, status_line, typing

if TYPE_CHECKING:
    from fendra.core.checks.examine import Examined
    from fendra.core.program import Program
    from fendra.front import Design
    from fendra.live.connect import Connected
    from fendra.live.loop import Loop
    from fendra.live.session import Session
    from fendra.live.stats import RunReport
    from fendra.live.steering import Steering
    from fendra.outputs import Output
    from fendra.page.served.served import Served
    from fendra.page.served.server import Server

From = Annotated[
    list[str] | None,
    typer.Option(
        "--from", metavar="SOURCE",
        help=(
"Where signals come from, instead of the design's sources: udp:9400, osc:9000, "
"mqtt:HOST, can:can0, mavlink:14550, lines:PORT, audio:FILE, ... With a name "
"before it, desk=screen:1, it replaces that source of the design."
),
    ),
]  # fmt: skip
Lines = Annotated[
    str,
    typer.Option(
        metavar="A,B,...", help="Send only these lines: for several nodes with one design."
    ),
]
Played = Annotated[
    Path | None,
    typer.Option("--tape", metavar="TAPE", help="Play a tape, a CSV file.", show_default=False),
]


def run(
    design: DesignFile,
    tape: Played = None,
    from_: From = None,
    to: Annotated[
        list[str] | None,
        typer.Option(
            metavar="OUTPUT",
            help="Where frames go, instead of the design's outputs: serial:PORT, sacn:HOST, "
            "spi:DEVICE, terminal:, film:FILE, gif:FILE, null:",
        ),
    ] = None,
    loop: Annotated[
        bool, typer.Option("--loop", help="Play the tape again and again, until Ctrl-C.")
    ] = False,
    speed: Annotated[
        float, typer.Option(min=0.01, max=1000, help="Play the tape this many times as fast.")
    ] = 1.0,
    start: Annotated[
        float | None, typer.Option(metavar="SECONDS", help="Start playing the tape at this time.")
    ] = None,
    set_: Sets = None,
    sweep: Sweeps = None,
    steps: Steps = None,
    toggle: Toggles = None,
    seconds: Annotated[
        float | None,
        typer.Option("--for", metavar="SECONDS", min=0.01, help="End after this time."),
    ] = None,
    lines: Lines = "",
    in_phase: Annotated[
        bool,
        typer.Option(
            "--in-phase",
            help="Use the time of day as the clock, so that nodes with one clock agree.",
        ),
    ] = False,
    lead: Annotated[
        bool,
        typer.Option(
            "--lead", help="With --in-phase, by MQTT: send the motion to the other nodes."
        ),
    ] = False,
    record: Annotated[
        Path | None, typer.Option(metavar="TAPE", help="Record what arrives as a tape.")
    ] = None,
    stats: Annotated[
        bool, typer.Option("--stats", help="Print at the end how late frames were.")
    ] = False,
    as_json: Annotated[
        bool, typer.Option("--json", help="Print the final report as one JSON object.")
    ] = False,
    log: Annotated[bool, typer.Option("--log", help="Log events with their time.")] = False,
    engine: Engine = "auto",
    page: Page = None,
    page_cert: PageCert = None,
    page_key: PageKey = None,
    page_new_tokens: PageNewTokens = False,
    page_announce: PageAnnounce = False,
) -> None:
    """Run a design live: signals from its sources, frames to its outputs, until Ctrl-C.

    It reloads the design whenever you save it. While it runs, type a value and press Enter:
    rpm=3000, or rpm=0:6000:4s. rpm= clears it.
    """
    from fendra.core.signals.courses import written
    from fendra.front import load
    from fendra.live.session import Session
    from fendra.sources.hand import HandSource

    with said_aside(as_json):
        start_logging(log)
        loaded = load(design)
        from_ = from_ or ([] if tape is not None else None)  # a tape replaces all sources
        is_seen = page is not None or loaded.served is not None
        connected = connect_as_told(loaded, design, from_, to, lines, is_seen=is_seen)
        if tape is not None:
            connected.polled["tape"] = play(loaded, tape, loop, speed, start)
        courses, _ = written(
            loaded, sets=set_ or (), sweeps=sweep or (), steps=steps or (), toggles=toggle or ()
        )
        hand = HandSource(loaded, courses)
        tell_connections(loaded, connected, bool(courses))
        foot = Foot(is_full=any(output.fills_screen for output in connected.outputs.values()))

        def session_of(program: Program) -> Session:
            return Session(
                program, connected, polled=[hand] if courses else [], tell=foot.tell, record=record,
                for_s=seconds, in_phase=in_phase, leads=lead,
                recorded=loaded.examined.subject.recorded,
            )  # fmt: skip

        server = make_server(loaded, page, page_cert, page_key, page_new_tokens, page_announce)
        served = None
        if server is None:
            session = session_of(compile_on(loaded, engine))
        else:
            session, served = served_session(server, loaded, design, engine, session_of)
            session.beside.append(serving(server, served, foot.tell))
            say_where(server)
        steering = served.steering if served is not None else None
        done = run_session(session, foot, loaded.examined, design, engine, hand, steering)
        say(str(done))
        from fendra.core.names import counted

        refused = session.inbox.refused() + sum(f.source.refused for f in session.feeders)
        if refused:
            say(f"{counted(refused, 'value')} rejected")
            for wrong in session.inbox.wrong():
                say(f"  {wrong}")
        if stats:
            say_stats(session.loop)
            if served is not None:
                light, shown = (
                    session.loop.cpu_s / done.seconds,
                    served.streams.cpu_s / done.seconds,
                )
                say(f"processor time: light {light:.1%}, page {shown:.1%}")
        if as_json:
            say_json(came_to(done, session, refused))
        is_sent = any(sender.sent for sender in session.senders) or not session.senders
        has_lost = any(sender.loss for sender in session.senders)
        if not is_sent or has_lost or session.can_never:
            raise typer.Exit(1)


def connect_as_told(
    loaded: Design, path: Path, from_: list[str] | None, to: list[str] | None, lines: str,
    *, is_seen: bool = False,
) -> Connected:  # fmt: skip
    """The sources and outputs of a run. Raises BadParameter.

    is_seen: on a page, so that it needs no output.
    """
    from fendra.core.errors import OutputError, SourceError
    from fendra.live.connect import connect

    chosen = [line.strip() for line in lines.split(",") if line.strip()]
    if not to and not loaded.outputs and not is_seen:
        raise typer.BadParameter(
            "say where frames go: --to terminal: or --to serial:PORT, or write [outputs.main] "
            f"into {path.name}"
        )
    try:
        return connect(loaded, folder=loaded.origin.folder, sources=from_, outputs=to, lines=chosen)
    except OutputError as exc:
        raise typer.BadParameter(str(exc), param_hint="--to") from exc
    except SourceError as exc:
        raise typer.BadParameter(str(exc), param_hint="--from") from exc


def play(loaded: Design, tape: Path, loop: bool, speed: float, start: float | None) -> Any:
    """A tape, ready to play."""
    from fendra.core.signals.inputs import fed
    from fendra.files.tape_file import read_tape
    from fendra.sources.tape import TapeSource

    played = read_tape(tape, loaded)
    say_if_unfed(tuple(fed(loaded)), played)
    if start is not None and not played.start_s <= start <= played.end_s:
        raise typer.BadParameter(
            f"--start {start:g} is not on the tape, which goes from {played.start_s:g} to "
            f"{played.end_s:g} s"
        )
    return TapeSource(played, loop=loop, speed=speed, start_s=start, gap_s=1 / loaded.rate)


def run_session(
    session: Session, foot: Foot, examined: Examined, path: Path, engine: Any, hand: Any = None,
    steering: Steering | None = None,
) -> RunReport:  # fmt: skip
    """Run with a status at the foot of the terminal, and the design taken up when it is saved."""
    from fendra.core.errors import FendraError, internal_error
    from fendra.live.notify import notify
    from fendra.live.process import keep_quiet, stopped_by_signals, undisturbed
    from fendra.live.reload import Reloader
    from fendra.native.choose import choose_engine

    def use(after: Program) -> None:
        keep_quiet()
        session.use(after, reloader.running.recorded)
        if hand is not None:
            hand.use(after.design)

    def taken(text: str) -> None:
        notify(status=text.splitlines()[0])
        foot.tell(text)

    reloader = Reloader(
        path, examined, use, taken, engine=lambda plan: choose_engine(plan, engine)[0],
        prepare=steering.prepare if steering is not None else lambda read: read,
    )  # fmt: skip
    unheard = Unheard(session, foot)
    is_once = any(source.can_end and not source.loops for source in session.loop.polled)

    def tick() -> None:
        if is_once and has_no_output(session):
            session.loop.stop()
        unheard.look()
        foot.show(status_line(session.loop, name=session.loop.program.design.name))

    def typed(text: str) -> None:
        try:
            hand.say(text)
        except FendraError as exc:
            foot.tell(str(exc))
        except Exception as exc:
            foot.tell(internal_error(exc, "in what was typed"))
        else:
            if hand not in session.loop.polled:
                session.loop.polled.append(hand)

    ticker = Ticker(tick, foot.tell)
    reloader.start()
    ticker.start()
    try:
        with typing(typed, foot.type), stopped_by_signals(session.loop.stop), undisturbed():
            return session.run()
    finally:
        reloader.stop()
        ticker.stop()
        foot.end()


GIVE_UP_S = 1.0
"""How long a tape that is played once waits for an output."""


def has_no_output(session: Session) -> bool:
    """Whether no output could be opened yet, though it was tried for a while."""
    senders = session.senders
    has_tried = session.loop.stats.rendered > GIVE_UP_S * session.loop.program.design.rate
    return bool(senders) and has_tried and not any(s.sent or not s.trouble.problem for s in senders)


class Unheard:
    """Reports each once: values that make no sense; and, some seconds after the start, signals
    without a source and names that no signal uses.
    """

    AFTER_S = 3.0

    def __init__(self, session: Session, foot: Foot) -> None:
        self._session, self._foot = session, foot
        self._told: set[str] = set()

    def look(self) -> None:
        """Tell what there is to tell by now."""
        inbox, loop = self._session.inbox, self._session.loop
        for feeder in self._session.feeders:
            if feeder.source.refused:
                self._once(
                    f"{feeder.source} received a value that makes no sense: ", feeder.source.problem
                )
        for name, heard in [*inbox.heard.items()]:
            if heard.refused:
                self._once(f"A value for {name} makes no sense: ", heard.problem)
        if self._session.feeders and loop.stats.rendered >= self.AFTER_S * loop.program.design.rate:
            unfed, unused = inbox.unfed(), sorted({name for _, name in [*inbox.unused]})
            if unfed:
                self._once("No value has arrived yet for: ", ", ".join(unfed))
                speaking = {each.source for each in [*inbox.heard.values()] if each.count}
                for feeder in self._session.feeders:
                    if feeder.source_name not in speaking and feeder.source.hint:
                        self._once(f"Nothing arrives from {feeder.source}, ", feeder.source.hint)
            if unused:
                more = f" and {len(unused) - 12} more" if len(unused) > 12 else ""
                self._once("No signal uses: ", f"{', '.join(unused[:12])}{more}")

    def _once(self, begins: str, ends: str) -> None:
        """Tell something that begins so, once, however it ends."""
        if begins not in self._told:
            self._told.add(begins)
            self._foot.tell(f"{begins}{ends.rstrip('.')}.")


def tell_connections(design: Design, connected: Connected, has_courses: bool) -> None:
    """List the sources and outputs, and report those that cannot work."""
    from fendra.live.connect import unreached

    from_ = [*map(str, connected.sources.values())]
    from_ += [*map(str, connected.polled.values())]
    from_ += ["values set by hand"] * has_courses
    to = [*map(str, connected.outputs.values())] or ["its page"]
    say(f"{design.name}: {', '.join(from_) or 'no source'} to {', '.join(to)}; Ctrl-C ends it")
    say_if_several(design, connected.outputs.values())
    for text in unreached(design, connected):
        say(text, style="yellow")
    for output in connected.outputs.values():
        say_if_slow(output, design)


def say_if_several(design: Design, outputs: Iterable[Output]) -> None:
    """Say when one output alone carries the lines of several controllers."""
    only = [*outputs]
    is_whole = len(only) == 1 and len(only[0].lines_of(design)) == len(design.line)
    if len(design.controllers) > 1 and is_whole and str(only[0]).startswith("port "):
        say(
            (
                f"The design has {len(design.controllers)} controllers, and this one "
                "output gets the lines of all of them. Give each an output: --to "
                "serial:PORT,controller=NAME"
            ),
            style="yellow",
        )


def say_if_slow(output: Output, design: Design) -> None:
    """Say before it begins when the output cannot carry the design's rate."""
    most_hz = output.most_frames_hz(design)
    if most_hz is not None and most_hz < design.rate:
        say(
            (
                f"{output} can carry {most_hz:.0f} frames a second; the design makes "
                f"{design.rate:g}, and only the newest is sent. Raise the baud rate or "
                "lower the design's rate."
            ),
            style="yellow",
        )


def came_to(done: RunReport, session: Session, refused: int) -> dict[str, Any]:
    """The results of a run, as plain values."""
    plain = {key: value for key, value in vars(done).items() if key != "last"}
    return plain | {
        "refused": refused,
        "late_and_took": [
            {"ms": name, "began_late": late, "took": took}
            for name, late, took in session.loop.stats.table()
        ],
        "outputs": [
            {"output": str(sender.output), "sent": sender.sent, "busy_ms": sender.busy_s * 1000,
             "problem": sender.trouble.problem, "lost": sender.loss}
            for sender in session.senders
        ],
    }  # fmt: skip


def served_session(
    server: Server, loaded: Design, path: Path, engine: Any, session_of: Callable[[Any], Session]
) -> tuple[Session, Served]:
    """A session that is seen and steered on a page."""
    from fendra.core.program import compile_design
    from fendra.native.choose import choose_engine
    from fendra.page.served.begin import served_run

    def compiled(examined: Examined) -> Program:
        return compile_design(examined, engine=lambda plan: choose_engine(plan, engine)[0])

    return served_run(server, loaded.examined, compiled, session_of, path)


def say_stats(loop: Loop) -> None:
    """How late frames began, and how long they took, as a table."""
    rows = [
        (name, str(late), str(work), "#" * round(40 * late / max(loop.stats.rendered, 1)))
        for name, late, work in loop.stats.table()
    ]
    for sender in loop.senders:
        if sender.busy_s > 0:
            say(
                f"{sender.output} can carry {1 / sender.busy_s:,.0f} frames a second of this design"
            )
    while len(rows) > 1 and rows[-1][1:3] == ("0", "0"):
        rows.pop()
    say_columns(("ms", "began late", "took", ""), rows, right=("ms", "began late", "took"))


def start_logging(wanted: bool) -> None:
    """Log to standard error, if wanted."""
    import logging

    if wanted:
        form = "%(asctime)s %(levelname)s %(name)s: %(message)s"
        logging.basicConfig(level=logging.INFO, format=form)
