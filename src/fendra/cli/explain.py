"""`fendra explain`: why an LED looks as it does."""

from __future__ import annotations

from dataclasses import asdict
from typing import TYPE_CHECKING, Annotated

import typer

from fendra.cli.film import compile_on, render, say_if_unfed
from fendra.cli.made_up import (
    AnyTape,
    Long,
    Sets,
    Steps,
    Sweeps,
    Toggles,
    check_on_tape,
    tape_for,
)
from fendra.cli.options import AsJson, DesignFile
from fendra.cli.screen import said_aside, say, say_json
from fendra.core.quoting import visible

if TYPE_CHECKING:
    from fendra.core.insight.explain import Explanation, Light, Touch


def explain(
    design: DesignFile,
    spot: Annotated[
        str,
        typer.Option(
            metavar="LED",
            help="The LED: tail-bar:4, keys:esc by its name, trail[0], or a condition.",
        ),
    ],
    at: Annotated[float, typer.Option(metavar="SECONDS", help="The moment on the tape.")],
    tape: AnyTape = None,
    sets: Sets = None,
    sweeps: Sweeps = None,
    steps: Steps = None,
    toggles: Toggles = None,
    duration: Long = None,
    as_json: AsJson = False,
) -> None:
    """Say why an LED looks as it does at a moment: layer by layer, down to the bytes."""
    from fendra.front import load

    loaded = load(design)
    played = tape_for(loaded, tape, sets, sweeps, steps, toggles, duration)
    check_on_tape("--at", at, played)
    program = compile_on(loaded, "numpy")
    with said_aside(as_json):
        say_if_unfed(program.fed, played)
        film = render(program, played.until(at + 1.0))
    why = film.explain(spot, at)
    if as_json:
        say_json({**asdict(why), "sent": why.sent.hex()})
    else:
        say_explanation(why)


def say_explanation(why: Explanation) -> None:
    """An explanation, from the lowest layer to the bytes."""
    from fendra.core.findings import path_to_text

    say(f"{why.spot} at {why.at_s:g} s (line {why.line}, address {why.address})", style="bold")
    for name, there, reason in why.scenes:
        if there > 0:
            say(f"scene {name}: {there:.0%} there, {_because(reason)}")
    for number, touch in enumerate(why.touches, start=1):
        _say_touch(number, touch)
    if not why.touches:
        say("no layer is on this LED")
    for path, before, after in why.finished:
        what = "white balance" if path[0] == "leds" else _FINISHES[str(path[-1])]
        where = path_to_text(path[:2] if path[0] == "leds" else path).removesuffix(": ")
        say(f"{what} ({where}): {_name(before)} becomes {_name(after)}")
    _say_light("all layers", why.light)
    say(f"master level: {why.master:.1%} of the light")
    if why.let_through < 1:
        say(f"limiter of its supply: passes {why.let_through:.1%}", style="yellow")
    red, green, blue = why.rgb
    say(f"bytes: red {red}, green {green}, blue {blue}; sent as {why.order}: {why.sent.hex(' ')}")


_FINISHES = {"off": "switched off", "most": "ceiling"}
"""The finishes of the light of all layers, each by the key that asks for it."""


def _because(why: str) -> str:
    """A reason as part of a sentence; conditions with `when` before them."""
    from fendra.core.insight.timeline import ALWAYS, OTHERWISE

    return why if why in (ALWAYS, OTHERWISE) or why.startswith("in scene") else f"when {why}"


def _say_touch(number: int, touch: Touch) -> None:
    scene = f", for scene {touch.scene}" if touch.scene else ""
    state = "on" if touch.is_on else "off"
    say(f"{number:>2}. {touch.layer} ({touch.effect}{scene}): {state}, {_because(touch.why)}",
        style="" if touch.is_on else "dim")  # fmt: skip
    if touch.read:
        say("    reads " + ", ".join(f"{name} = {value}" for name, value in touch.read.items()),
            style="" if touch.is_on else "dim")  # fmt: skip
    if not touch.is_on:
        return
    if touch.parameters:
        say("    with " + ", ".join(f"{name} {value}" for name, value in touch.parameters.items()))
    say(f"    paints {_name(touch.colour)} at level {touch.level:.2f}, covers {touch.cover:.0%}, "
        f"{touch.blend}: {_name(touch.before)} becomes {_name(touch.after)}")  # fmt: skip
    if touch.hidden > 0:
        say(f"`hides_below` hides {touch.hidden:.0%} of the layers below")


def _say_light(what: str, light: Light) -> None:
    from rich.text import Text

    from fendra.cli.screen import console
    from fendra.core.insight.explain import hex_of

    screen = console()
    text = Text(visible(f"{what}: {hex_of(light)} "))
    if screen.is_terminal and screen.color_system == "truecolor":
        text.append("●", style=hex_of(light))
    screen.print(text)


def _name(light: Light) -> str:
    from fendra.core.insight.explain import hex_of

    return hex_of(light)
