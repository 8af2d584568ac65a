"""Firmware: does the program of a controller that makes its own light fit, and how fast is it?"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fendra.core.catalogue.controllers import ControllerType
from fendra.core.checks import Subject, check
from fendra.core.composition.plan import Plan
from fendra.core.document.design import Design
from fendra.core.engines.c99 import emit
from fendra.core.engines.c99.beside import beside
from fendra.core.engines.c99.cost import Cost, cost_of, most_baud
from fendra.core.engines.c99.count import Count
from fendra.core.engines.c99.lines_alone import lines_alone
from fendra.core.film import Film
from fendra.core.findings import KeyPath, Report
from fendra.core.insight.played import played
from fendra.core.names import listed
from fendra.core.signals.autopilot import said_to
from fendra.core.signals.inputs import heard_by_peers, inputs_of, pin_of, read_by

SURELY = 1.25
"""How much more flash than there is an estimate must be to be an error and not a warning."""
TELLING = 0.1
"""The share of a frame's work from which on a layer is named among those that cost most."""


@check
def firmware(subject: Subject, report: Report) -> None:
    """The needs of a controller that runs the design without a computer: signals at its pins."""
    design = subject.design
    for name, controller in design.controllers.items():
        kind = controller.known_type
        lines = design.lines_of(name)
        if not lines or not any(_hears(design, each) for each in design.controllers):
            continue
        plan = lines_alone(subject.plan, lines)
        _tell_unheard(plan, name, report)
        if kind is None or not _hears(design, name):
            continue
        told = tell(plan, emit(plan).count, kind, subject.film, controller=name)
        if told is not None:
            told.report(("controllers", name), report)


def _hears(design: Design, controller: str) -> bool:
    """Whether a controller has inputs of its own, so that it should make the light itself."""
    given = design.controllers[controller]
    wires = (given.peers, given.mavlink, given.values)
    return bool(inputs_of(design, controller)) or any(wire is not None for wire in wires)


def _tell_unheard(plan: Plan, controller: str, report: Report) -> None:
    """Report signals that the light of a controller reads and that no pin of it feeds."""
    design, heard = plan.design, {*inputs_of(plan.design, controller)}
    if design.controllers[controller].peers is not None:
        heard |= {*heard_by_peers(design)}
    heard |= {name for name, _, _ in said_to(design, controller)}
    if design.controllers[controller].values is not None:
        return
    read = read_by(plan.graph, design)
    for name, signal in design.signals.items():
        if name not in read or name in heard:
            continue
        pin = pin_of(signal)
        other = pin.controller or next(iter(design.controllers)) if pin else ""
        why = f"it is at a pin of '{other}'" if pin else "it has no pin"
        message = (
            f"the firmware of '{controller}' never receives '{name}': {why}. It "
            "stays at its fallback there."
        )
        remedy = "Give it a pin, set it in board_read, or run this controller as a receiver."
        if pin:
            remedy = "Give both controllers `peers`, a wire between them."
        report.note(("signals", name), "never-heard", message, remedy)


@dataclass(frozen=True)
class Told:
    """The cost of firmware, in words.

    on_tape: cycles of a frame on average and at most, and the time of the longest, s; None without
    a tape. layers: those that cost most, each with its share. most_baud: the fastest link of a
    receiver.
    """

    design: Design
    kind: ControllerType
    cost: Cost
    on_tape: tuple[float, float, float] | None = None
    layers: tuple[str, ...] = ()
    most_baud: float | None = None

    @property
    def rows(self) -> list[str]:
        """In a few rows."""
        cost, kind = self.cost, self.kind
        flash = f" of {kind.flash:,}" if kind.flash else ""
        found = [
            f"about {_rounded(cost.flash):,} bytes of flash{flash}",
            (
                f"about {_rounded(cost.ram):,} bytes of RAM of {kind.ram:,}, of which "
                f"the stack takes {_rounded(cost.stack):,}"
            ),
            f"{cost.operations:,} operations in a frame with everything on: about "
            f"{_few(cost.rate_hz)} frames a second at {kind.mhz:g} MHz",
        ]
        if self.on_tape is not None:
            mean, most, at_s = self.on_tape
            found.append(
                f"on the tape about {_few(cost.rate_of(mean))} frames a second on "
                f"average, {_few(cost.rate_of(most))} at {at_s:.4g} s"
            )
        if self.most_baud is not None:
            found.append(
                f"its serial link can have up to {self.most_baud // 1000 * 1000:,.0f} baud"
            )
        if self.layers:
            found.append(f"{listed(self.layers)} cost most")
        return found

    @property
    def most_work(self) -> float:
        """Cycles of the frame that counts: on the tape, else with everything on."""
        return self.on_tape[1] if self.on_tape else self.cost.work

    def report(self, path: KeyPath, report: Report) -> None:
        """Report what does not fit, or is too slow; else the needs, as a note."""
        cost, kind, design = self.cost, self.kind, self.design
        most = f" {listed(self.layers)} cost most." if self.layers else ""
        fits = True
        if kind.flash is not None and cost.flash > kind.flash:
            message = (
                f"the firmware needs about {_rounded(cost.flash):,} bytes of flash; "
                f"the {kind.name} has {kind.flash:,}."
            )
            remedy = "Use fewer or simpler layers, or a larger controller."
            tell = report.error if cost.flash > SURELY * kind.flash else report.warning
            tell(path, "too-little-flash", message, remedy)
            fits = False
        if cost.ram > kind.ram:
            message = (
                f"the firmware needs about {_rounded(cost.ram):,} bytes of RAM, of "
                f"which the stack takes {_rounded(cost.stack):,}; the {kind.name} "
                f"has {kind.ram:,}."
            )
            remedy = "Use fewer LEDs, compile with -DAT_ONCE=4, or use a larger controller."
            tell = report.error if cost.memory > kind.ram else report.warning
            tell(path, "too-little-memory", message, remedy)
            fits = False
        rate_hz = cost.rate_of(self.most_work)
        if rate_hz < design.rate:
            when = "in the tape's longest frame" if self.on_tape else "with everything on"
            message = (
                f"the firmware makes about {_few(rate_hz)} frames a second {when}; "
                f"the design asks for {design.rate:g}.{most}"
            )
            remedy = f"Set rate = {max(int(rate_hz), 1)}, or use fewer layers at a time."
            report.warning(path, "firmware-slow", message, remedy)
        elif fits:
            message = f"as firmware it needs {'; '.join(self.rows)}."
            report.note(path, "firmware", message)


def tell(
    plan: Plan,
    count: Count,
    kind: ControllerType,
    film: Film | None = None,
    *,
    controller: str | None = None,
    is_receiver: bool = False,
) -> Told | None:
    """The cost of a program; None if the processor is unknown.

    controller: whose inputs and wires it has.
    """
    more = (0, 0) if controller is None else beside(plan.design, controller, kind)
    cost = cost_of(count, kind, is_receiver=is_receiver, beside=more)
    if cost is None:
        return None
    on_tape = None if film is None else _on_tape(plan, film, cost)
    names = [
        f"'{plan.design.layer[layer].name}' ({100 * cycles / cost.work:.0f} %)"
        for layer, cycles in sorted(cost.layers, key=lambda each: -each[1])[:3]
        if cycles > TELLING * cost.work
    ]
    most = most_baud(kind) if is_receiver else None
    return Told(plan.design, kind, cost, on_tape, tuple(names), most)


def _on_tape(plan: Plan, film: Film, cost: Cost) -> tuple[float, float, float]:
    """Cycles of a frame on average and at most, and the time of the longest."""
    paints, count = plan.paints, len(plan.paints)
    work = np.array(
        [
            cost.work_of(
                (paint.layer for paint, is_on in zip(paints, values[:count], strict=True) if is_on),
                sum(share > 0 for share in values[count:]),
            )
            for values in played(plan, film).there
        ]
    )
    place = int(work.argmax())
    return float(work.mean()), float(work[place]), float(film.times[place] - film.times[0])


def _rounded(number: float) -> int:
    """To two digits that count: it is an estimate."""
    step: int = 10 ** max(len(str(round(number))) - 2, 0)
    return round(number / step) * step


def _few(rate_hz: float) -> str:
    return f"{_rounded(rate_hz):,}" if rate_hz >= 10 else f"{rate_hz:.2g}"
