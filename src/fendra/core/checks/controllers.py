"""Controllers: do they have enough pins and memory, and does anything clash?"""

from __future__ import annotations

from collections.abc import Iterator

from fendra.core.catalogue.controllers import unfold_pins
from fendra.core.checks import Subject, check
from fendra.core.document.line import Controller
from fendra.core.electric.controller_budget import ControllerBudget
from fendra.core.findings import KeyPath, Report
from fendra.core.names import counted, did_you_mean, listed
from fendra.core.signals.inputs import inputs_of
from fendra.core.signals.pins import pin_names


def _controllers(subject: Subject) -> Iterator[tuple[str, Controller, list[int]]]:
    for name, controller in subject.design.controllers.items():
        yield name, controller, subject.design.lines_of(name)


@check
def line_controllers(subject: Subject, report: Report) -> None:
    """Lines with an unknown controller, or without one if there are several."""
    known = subject.design.controllers
    for i, line in enumerate(subject.design.line):
        if line.controller is not None and line.controller not in known:
            message = f"there is no controller '{line.controller}'."
            remedy = did_you_mean(line.controller, known, "controllers")
            report.error(("line", i, "controller"), "unknown-name", message, remedy)
        elif line.controller is None and len(known) > 1:
            message = f"there are {len(known)} controllers; which one is this line plugged into?"
            remedy = f"Add controller = '{next(iter(known))}', or another."
            report.error(("line", i), "missing-key", message, remedy)
    for name, _, lines in _controllers(subject):
        if not lines:
            message = f"no line is plugged into controller '{name}'."
            report.note(
                ("controllers", name), "unused", message, "Remove it, or name it in a line."
            )


@check
def serial_links(subject: Subject, report: Report) -> None:
    """A controller with two serial links; its firmware has only one."""
    for name, controller, _ in _controllers(subject):
        others = [each for each in subject.design.controllers.values() if each is not controller]
        links = [key for key in ("mavlink", "values") if getattr(controller, key)]
        if controller.peers and any(each.peers for each in others):
            links.insert(0, "peers")
        if len(links) > 1:
            message = f"{listed(links, 'and')} each need a serial link, and the firmware has one."
            remedy = f"Keep {links[0]}, or {listed(links[1:])}, on this controller."
            report.error(("controllers", name, links[1]), "serial-links", message, remedy)


@check
def led_limits(subject: Subject, report: Report) -> None:
    """More addresses than a line, a controller or its memory has room for."""
    sizes = subject.layout.line_sizes
    for i, line in enumerate(subject.design.line):
        if line.most_leds is not None:
            _hold(sizes[i], line.most_leds, "this line", ("line", i), ("most_leds",), report)
    for name, controller, lines in _controllers(subject):
        path: KeyPath = ("controllers", name)
        if controller.most_leds_a_line is not None:
            for i in lines:
                whose = f"a line of '{name}'"
                _hold(sizes[i], controller.most_leds_a_line, whose, ("line", i), (), report)
        if controller.most_leds is not None:
            total = sum(sizes[i] for i in lines)
            _hold(total, controller.most_leds, f"'{name}'", path, ("most_leds",), report)
    for budget in subject.budget.controllers:
        _hold_in_ram(budget, report)


def _hold(count: int, most: int, whose: str, path: KeyPath, key: KeyPath, report: Report) -> None:
    if count > most:
        message = (
            f"{count} addresses are {counted(count - most, 'LED')} more than the {most} that "
            f"{whose} can have."
        )
        remedy = "Move parts to another line or controller."
        report.error((*path, *key), "too-many-leds", message, remedy)


def _hold_in_ram(budget: ControllerBudget, report: Report) -> None:
    ram, need, path = budget.ram, budget.pixel_bytes, ("controllers", budget.name)
    if ram is None:
        return
    figures = f"the pixels of its lines need {need:,} bytes, and its RAM has {ram:,}."
    if need > ram:
        report.error(path, "too-little-memory", figures, "Use fewer LEDs, or a larger controller.")
    elif need > 0.75 * ram:
        remedy = "Little RAM is left for everything else; two copies of a frame do not fit."
        report.warning(path, "too-little-memory", figures, remedy)


@check
def pins(subject: Subject, report: Report) -> None:
    """Unknown pins, pins that two things use, and pins that share a part of the chip."""
    for name, controller, lines in _controllers(subject):
        users = _users(subject, controller, name, lines)
        kind = controller.known_type
        known = unfold_pins(controller.pins or (kind.pins if kind else ()))
        readable = [*known, *(unfold_pins(kind.analogue) if kind else ())]
        taken: dict[str, tuple[str, str]] = {}
        for user, pin, path in users:
            there = readable if path[0] == "signals" else known
            if known and pin not in there:
                message = f"'{name}' has no pin '{pin}' for {user}."
                report.error(path, "no-such-pin", message, did_you_mean(pin, there, "pins"))
            own = kind.own_name(pin) if kind else pin
            if own in taken:
                other, other_pin = taken[own]
                called = pin if pin == other_pin else f"{other_pin}, which is {pin}"
                message = f"{other} and {user} both use pin {called}."
                report.error(path, "pin-taken", message, "Give one of them another pin.")
            taken.setdefault(own, (user, pin))
        _hold_shared(controller, name, users, known, report)


_User = tuple[str, str, KeyPath]
"""Who it is in words, the pin it uses, and where that is written."""


def _users(subject: Subject, controller: Controller, name: str, lines: list[int]) -> list[_User]:
    users: list[_User] = []
    for use, pins_used in controller.uses.items():
        each = [pins_used] if isinstance(pins_used, str) else pins_used
        users += [(f"'{use}'", pin, ("controllers", name, "uses", use)) for pin in each]
    for key in ("peers", "mavlink", "values"):
        wire = getattr(controller, key)
        for end in ("tx", "rx") if wire is not None else ():
            if own := getattr(wire, end):
                users.append((f"{key}.{end}", own, ("controllers", name, key, end)))
    for i in lines:
        line = subject.design.line[i]
        if line.pin:
            users.append((f"line '{line.name}'", line.pin, ("line", i, "pin")))
        if line.clock:
            users.append((f"the clock of line '{line.name}'", line.clock, ("line", i, "clock")))
    for signal, pin in inputs_of(subject.design, name).items():
        for at, key_path in pin_names(pin):
            users.append((f"signal '{signal}'", at, ("signals", signal, "pin", *key_path)))
    return users


def _hold_shared(
    controller: Controller, name: str, users: list[_User], known: list[str], report: Report
) -> None:
    """Two users of what only one can have: that one disables the other."""
    for thing, members in controller.shared.items():
        needed = unfold_pins(members)
        path: KeyPath = ("controllers", name, "shared", thing)
        for member in needed:
            if member not in (*known, *controller.uses, *(pin for _, pin, _ in users)) and known:
                message = f"'{member}' is neither a pin nor a use of '{name}'."
                remedy = did_you_mean(member, [*known, *controller.uses], "pins and uses")
                report.warning(path, "unknown-name", message, remedy)
        claims: dict[str, tuple[str, KeyPath]] = {}
        for user, pin, place in users:
            if pin in needed or user.strip("'") in needed:
                claims.setdefault(user, (pin, place))
        for use in controller.uses:
            if use in needed:
                claims.setdefault(f"'{use}'", ("", path))
        if len(claims) < 2:
            continue
        both = [*claims.items()][:2]
        texts = [user + (f" (pin {pin})" if pin else "") for user, (pin, _) in both]
        message = f"{' and '.join(texts)} both need {thing} of '{name}', which only one can have."
        remedy = "Move one of them to a pin that does not need it."
        report.error(both[1][1][1], "shared", message, remedy)
