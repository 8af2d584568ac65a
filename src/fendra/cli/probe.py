"""`fendra probe`: test patterns on the real lines, and conclusions from what people see."""

from __future__ import annotations

import sys
from typing import TYPE_CHECKING, Annotated, Literal

import typer

from fendra.cli.options import DesignFile
from fendra.cli.run import connect_as_told, say_if_several
from fendra.cli.screen import say
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
from fendra.system.terminal import enter_pressed

if TYPE_CHECKING:
    from pathlib import Path

    from fendra.core.probe.answers import Verdict
    from fendra.core.probe.bench import Bench, PatternStep
    from fendra.core.probe.patterns import Pattern
    from fendra.front import Design
    from fendra.outputs import Output
    from fendra.page.served.server import Server

PatternName = Literal["lines", "parts", "colours", "walk", "count", "corners", "axes", "ramp"]

_SPEED = 10.0
_QUESTIONS = {
    "lines": "Which colour had each line, or how often did it blink? As in: nose=red tail=green",
    "parts": "Which colour had each part? As in: nose-left=red nose-right=green",
    "colours": (
        "What did you see when red, green, blue (and white) were sent? As in: green red blue"
    ),
    "corners": "Where were red and green? As in: red=front-left green=front-right",
    "walk": "Where did it begin, and which way? As in: start=back-right runs=left",
    "count": "How many LEDs has the chain? As in: count=28",
    "axes": "Where on the whole thing was it lit? As in: at=front-left",
}
_OF_PART = ". If another part was lit, add lit=ITS-NAME"


def probe(
    design: DesignFile,
    pattern: Annotated[
        PatternName,
        typer.Argument(
            metavar="PATTERN",
            help="lines: each its colour, blinking its number. parts: each its colour. colours: "
            "red, green, blue, white. walk: one LED after another. count: every 10th and 100th "
            "marked. corners: front left "
            "red, front right green. axes: a plane of light along each axis. ramp: white, rising.",
        ),
    ] = "lines",
    to: Annotated[
        list[str] | None,
        typer.Option(metavar="OUTPUT", help=(
"Where to send it: serial:PORT[,baud=RATE]; repeat it for several.  [default: "
"the design's outputs]"
), show_default=False),
    ] = None,
    line: Annotated[
        str | None, typer.Option(metavar="NAME", help="Only this line.", show_default=False)
    ] = None,
    part: Annotated[
        str | None, typer.Option(metavar="NAME", help="Only this part.", show_default=False)
    ] = None,
    speed: Annotated[
        float | None,
        typer.Option(min=0.1, max=200, metavar="N",
                     help=(
"Steps a second, instead of a step each time you press Enter.  "
"[10 without a terminal]"
),
                     show_default=False),
    ] = None,
    level: Annotated[
        float | None,
        typer.Option(min=0.01, max=1, help="As the eye sees it; at most what the supply can give.",
                     show_default=False),
    ] = None,
    leds: Annotated[
        int | None,
        typer.Option(min=1, max=100_000, help="Send this many LEDs, to count a chain.",
                     show_default=False),
    ] = None,
    times: Annotated[
        int | None,
        typer.Option(min=1, help="How many times.  [a few times, or until Enter on a terminal]",
                     show_default=False),
    ] = None,
    saw: Annotated[
        str | None,
        typer.Option(
            metavar="TEXT",
            help=(
"What you saw: 'green red blue'; 'nose=red tail=green' for lines or parts; "
"'count=28'; or KEY=PLACE with red, green, start, runs (which way), then "
"(turns or jumps), lit (the part that was) and at (where on the whole "
"thing): 'red=top-right green=top-left'."
),
            show_default=False,
        ),
    ] = None,
    page: Page = None,
    page_cert: PageCert = None,
    page_key: PageKey = None,
    page_new_tokens: PageNewTokens = False,
    page_announce: PageAnnounce = False,
) -> None:  # fmt: skip
    """Test the map on the real LEDs: send a pattern, compare what you see, find the mistake.

    The level is low, and within what the supplies can give. With --saw and without --to, nothing is
    sent. With --page you do all of it in a browser, for example on a phone beside the bench.
    """
    from fendra.core.probe.answers import judge
    from fendra.core.probe.bench import make_bench, on_lines
    from fendra.front import load

    loaded = load(design)
    if page is not None:
        outputs = [*connect_as_told(loaded, design, [], to, "").outputs.values()]
        server = make_server(loaded, page, page_cert, page_key, page_new_tokens, page_announce)
        _on_page(server, loaded, design, pattern, line, part, outputs)
        return
    bench = make_bench(loaded, loaded.layout(), line=line, part=part, leds=leds)
    is_sent = bool(to) or saw is None
    if is_sent:
        outputs = [*connect_as_told(loaded, design, [], to, "").outputs.values()]
        bench = on_lines(bench, {line for each in outputs for line in each.lines_of(loaded)})
        try:
            _send(loaded, bench, pattern, outputs, speed, level, times)
        except KeyboardInterrupt:
            raise typer.Exit from None  # the usual way to end it, and nothing is asked then
        if saw is None and sys.stdin.isatty() and pattern in _QUESTIONS:
            more = _OF_PART if part and pattern in ("corners", "walk") else ""
            say(f"{_QUESTIONS[pattern]}{more}. Press Enter alone if it was as described.")
            saw = input("> ").strip() or None
    if saw is not None:
        verdict = judge(bench, line, part, saw, [pattern] if is_sent else [])
        _say_verdict(str(design), loaded, verdict)
        raise typer.Exit(0 if verdict.is_explained else 1)


def _send(
    design: Design, bench: Bench, pattern: str, outputs: list[Output], speed: float | None,
    level: float | None, times: int | None,
) -> None:  # fmt: skip
    from fendra.core.probe.patterns import PATTERNS
    from fendra.live.play import play

    say_if_several(design, outputs)
    chosen = PATTERNS[pattern]
    steps = chosen.steps(bench, speed or _SPEED)
    linear = _level(bench, chosen, steps, level)
    is_terminal = sys.stdin.isatty()
    is_stepped = is_terminal and speed is None
    ends = "Ctrl-C ends it"
    if is_terminal:
        ends = f"Enter steps, {ends}" if is_stepped and steps[0].waits else "Enter ends it"
    say(f"{design.name} to {', '.join(map(str, outputs))}: {pattern}. {ends}.")
    play(
        bench,
        steps,
        linear,
        outputs,
        say=say,
        times=times or (None if is_terminal else chosen.times),
        enter=enter_pressed if is_terminal else None,
        is_stepped=is_stepped,
    )


def _on_page(
    server: Server | None, design: Design, path: Path, pattern: str, line: str | None,
    part: str | None, outputs: list[Output],
) -> None:  # fmt: skip
    """Serve the bench until Ctrl-C."""
    from fendra.live.process import stopped_by_signals
    from fendra.page.served.bench import LiveBench
    from fendra.page.served.served import Served

    assert server is not None
    say_if_several(design, outputs)
    with server.closed_if_it_fails():
        live = LiveBench(path, design.examined, outputs, lambda text: say(text, style="yellow"))
        live.show(pattern, line, part)
    say(f"{design.name} to {', '.join(map(str, outputs))}: the bench. Ctrl-C ends it.")
    say_where(server)
    served = Served(server.gate, bench=live)
    with stopped_by_signals(live.stop), serving(server, served, say):
        live.start()
        while live.is_alive():
            live.join(0.2)


def _level(bench: Bench, pattern: Pattern, steps: list[PatternStep], wanted: float | None) -> float:
    """The linear level, and a text about it."""
    import numpy as np

    from fendra.core.light.colours import linear_to_srgb, srgb_to_linear

    safe = pattern.level(bench, steps)
    level = safe
    if wanted is not None:
        linear = float(srgb_to_linear(np.float64(wanted)))
        most = bench.level_for(steps, pattern.share, 1.0)
        level = min(linear, most)
        if linear > most:
            say("The supply limits the level.", style="yellow")
    drawn = np.max([bench.draw_a(step, level) for step in steps], axis=0)
    figures = [f"{amps:.2f} A of {feed}" for amps, feed in zip(drawn, bench.feeds, strict=True)]
    seen = float(linear_to_srgb(np.float64(level)))
    say(f"Level {seen:.2f}, at most about {', '.join(figures)}.")
    assumed = [feed for feed in bench.feeds if feed.is_assumed]
    if assumed:
        names = ", ".join(f"'{feed.name}'" for feed in assumed if feed.name) or "the supply"
        say(
            (
                f"{names} has no rating. Fendra assumes {assumed[0].amps:g} A, a USB "
                "port. Add amps to [supplies.NAME], and supply = NAME to the line."
            ),
            style="yellow",
        )
    if level == 0:
        say(
            "Even dark, the LEDs draw more than that; patterns use the lowest level.",
            style="yellow",
        )
    return level


def _say_verdict(file: str, design: Design, verdict: Verdict) -> None:
    from fendra.core.probe.words import cure_in_words

    words, hint = (
        text.replace("probe DESIGN", f"probe {file}") for text in (verdict.words, verdict.hint)
    )
    say(
        f"{words[:1].upper()}{words[1:]}",
        style="" if verdict.is_explained else "red",
    )
    for number, way in enumerate(verdict.ways):
        if number:
            say("or:")
        for cure in way:
            say(f"  {cure_in_words(cure, file, design, design.origin.lines)}")
    if hint:
        say(hint)
