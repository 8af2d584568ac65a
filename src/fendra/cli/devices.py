"""`fendra devices`: what is plugged into this computer, and how a design names it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Literal, TypeAlias

import typer

from fendra.cli.options import AsJson
from fendra.cli.screen import say, say_columns, say_json
from fendra.core.errors import FendraError

Kind = Literal["ports", "sound", "screens", "gamepads", "keyboards", "lamps"]
Rows: TypeAlias = list[tuple[str, str]]
"""Of each device the text that names it, and what it is."""


def devices(
    kind: Annotated[
        Kind | None,
        typer.Argument(
            metavar="KIND",
            show_default=False,
            help="Only these: ports, sound, screens, gamepads, keyboards or lamps.",
        ),
    ] = None,
    as_json: AsJson = False,
) -> None:
    """List what is plugged in: ports, sound, screens, game controllers, keyboards, lamp arrays.

    The first column is what to write behind --from or --to, or as type and address in a design.
    """
    wanted: list[Kind] = [kind] if kind is not None else [*LISTS]
    found: dict[str, Rows] = {}
    missing: dict[str, str] = {}
    for each in wanted:
        try:
            found[each] = LISTS[each]()
        except FendraError as exc:
            missing[each] = str(exc)
        except Exception as exc:  # each system and package has errors of its own
            missing[each] = str(exc)[:120] or type(exc).__name__
    if as_json:
        plain = {
            each: [{"name": name, "about": about} for name, about in rows]
            for each, rows in found.items()
        }
        say_json({"devices": plain, "missing": missing})
        return
    rows = [(name, about) for each in found.values() for name, about in each]
    if rows:
        say_columns(("name", "what it is"), rows)
    for name, listed in found.items():
        if not listed:
            say(f"{name}: none", style="dim")
    for name, why in missing.items():
        say(f"{name}: {why}", style="yellow")


def _ports() -> Rows:
    from fendra.system.ports import plugged_in

    return [(f"serial:{port.device}", str(port.description)) for port in plugged_in()]


def _sound() -> Rows:
    from fendra.sources import package
    from fendra.sources.loopback import NO_LOOPBACK, monitors
    from fendra.system.process import NAME

    rows: Rows = []
    problem: FendraError | None = None
    try:
        for device in package("sounddevice").query_devices():
            if device["max_input_channels"] > 0:
                rate = f"{device['default_samplerate']:.0f} Hz"
                rows.append((f"audio:{device['name']}", f"a microphone or line in, {rate}"))
    except FendraError as exc:
        problem = exc
    if NAME == "macos":
        rows.append(("audio:loopback", f"what it plays: {NO_LOOPBACK}"))
    else:
        try:
            rows += [(f"audio:loopback {name}", "what it plays itself") for name, _ in monitors()]
        except FendraError as exc:
            problem = problem or exc
        except Exception as exc:  # no sound server
            problem = problem or FendraError(str(exc)[:120] or type(exc).__name__)
    if not rows and problem is not None:
        raise problem
    return rows


def _screens() -> Rows:
    from fendra.sources.captures import screens

    return [(f"screen:{number}", about) for number, about in screens()]


def _gamepads() -> Rows:
    from fendra.sources.gamepad import pad_names

    return [(f"gamepad:{name}", "a game controller") for name in pad_names()]


def _keyboards() -> Rows:
    from fendra.sources.keyboards import keyboard_names

    return [
        (f"keys:{name}", "a keyboard" if name else "all keyboards together")
        for name in keyboard_names()
    ]


def _lamps() -> Rows:
    from fendra.outputs.lamps import lamp_arrays

    return [(f"lamps:{array.name}", f"a lamp array at {array.address}") for array in lamp_arrays()]


LISTS: dict[Kind, Callable[[], Rows]] = {
    "ports": _ports, "sound": _sound, "screens": _screens, "gamepads": _gamepads,
    "keyboards": _keyboards, "lamps": _lamps,
}  # fmt: skip
"""Each kind of devices, and what lists them."""
