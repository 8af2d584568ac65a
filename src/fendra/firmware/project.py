"""The project: a folder of C that builds, and can be tried on a computer before it is flashed."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from jinja2 import Environment, PackageLoader, StrictUndefined

from fendra.core.checks.firmware import Told, tell
from fendra.core.composition.plan import Plan
from fendra.core.electric.data import SLOTS
from fendra.core.engines.c99 import Emitted, emit
from fendra.core.engines.c99.lines_alone import lines_alone
from fendra.core.errors import FirmwareError
from fendra.core.findings import Report, Severity, with_places
from fendra.core.names import counted, did_you_mean, listed
from fendra.core.quoting import Ready, c_comment, c_string, make_text, markdown
from fendra.core.shown import as_table, brief
from fendra.core.signals.autopilot import said_to
from fendra.core.signals.inputs import fed, heard_by_peers
from fendra.core.version import VERSION
from fendra.firmware.chips import CHIPS, GENERIC, TARGETS, Chip
from fendra.firmware.kept import kept_of
from fendra.firmware.lamps import Lamps, lamps_of
from fendra.firmware.mavlink import heard_of
from fendra.firmware.peers import Peers, peers_of
from fendra.firmware.pins import Wiring, hears_network, inputs_in_words, wire
from fendra.firmware.tape import tape_text

if TYPE_CHECKING:
    from fendra.core.checks import Subject
    from fendra.core.document.design import Design
    from fendra.core.document.line import Controller
    from fendra.core.findings import Finding
    from fendra.core.signals.tape import Tape

NETWORK = ("network.h", "network.c", "sacn.h", "sacn.c")
"""Files of a receiver that hears a network."""
BAUD = 500_000
"""Of the serial link, where the design says nothing."""
IDENTITY_HEAD = 3 + 4 + 4 + 4 + 1 + 2
"""Bytes of the answer to `who are you` beside lines and name, before it is stuffed."""


@dataclass(frozen=True)
class Project:
    """Firmware as text.

    files: from path to text. emitted, plan: the light itself. chip: None if the user fills in the
    board. controller: the design's controller that it is for. title: the design's name. pins: each
    with its use. notes: differences from the design. told: its cost. unheard: fields of signals
    without an input.
    """

    name: str
    files: Mapping[str, str]
    emitted: Emitted
    plan: Plan
    chip: Chip | None
    controller: str | None
    is_receiver: bool
    title: str
    pins: tuple[tuple[str, str], ...] = ()
    notes: tuple[str, ...] = ()
    told: Told | None = None
    unheard: tuple[str, ...] = ()

    def __repr__(self) -> str:
        on = f"for {self.chip.type.name}" if self.chip else "for a board to be filled in"
        cost = f"about {self.told.cost.flash:,} bytes of flash" if self.told else ""
        return brief("Project", self.name, on, counted(len(self.files), "file"), cost)

    def _repr_markdown_(self) -> str:
        """Its pins and what it costs, in a notebook."""
        rows = [*self.pins, *(("cost", row) for row in (self.told.rows if self.told else []))]
        return as_table(f"{self.title}: {', '.join(sorted(self.files))}", ("pin", "what"), rows)

    @property
    def kind(self) -> str:
        """Its board, in a word: a family of chips, or the one to fill in."""
        if self.chip is None:
            return GENERIC
        words = self.chip.words
        return str(words.get("templates", self.chip.family))

    @property
    def cost_rows(self) -> list[str]:
        """Its needs, in a few rows; none if they are unknown."""
        return self.told.rows if self.told is not None else []

    @property
    def findings(self) -> list[Finding]:
        """Problems: the program does not fit into the controller, or is too slow."""
        if self.told is None:
            return []
        report, origin = Report(), self.plan.origin
        self.told.report(("controllers", self.controller or "main"), report)
        wrong = [finding for finding in report if finding.severity != Severity.NOTE]
        return with_places(wrong, origin.file, origin.lines)


def make_project(
    subject: Subject,
    target: str | None = None,
    *,
    tape: Tape | None = None,
    controller: str | None = None,
    is_receiver: bool = False,
) -> Project:
    """Make the project of a design without errors.

    subject: the design and what was made of it; its film shows how much work a frame is. target:
    one of `TARGETS`; by default the one of the controller's type, else generic. tape: to try it on
    a computer. controller: which one, if there are several. is_receiver: it shows frames from a
    serial link, and the design's own light while none arrive.

    Raises FirmwareError for an unknown target or controller, and for pins that cannot do what the
    design asks.
    """
    design = subject.design
    controller = _controller(design, controller)
    chip = _chip(design, controller, target)
    lines = design.lines_of(controller) if controller else range(len(design.line))
    plan = lines_alone(subject.plan, [*lines])
    if not plan.wires:
        raise FirmwareError(f"no line is plugged into controller '{controller}'.")
    emitted = emit(plan)
    wiring = Wiring((), (), None, ())
    peers = None if is_receiver else peers_of(subject.plan, controller)
    if chip is not None:
        wiring = wire(
            plan, chip, controller, emitted, is_receiver=is_receiver, has_peers=peers is not None
        )
    told = None
    given = design.controllers[controller] if controller else None
    kind = chip.type if chip else given.known_type if given else None
    if kind is not None and given is not None:
        kind = given.as_said(kind)
    if kind is not None:
        film = None if is_receiver else subject.film
        told = tell(plan, emitted.count, kind, film, controller=controller, is_receiver=is_receiver)
    rows = told.rows if told else ["nothing is known of its processor"]
    tape_name = f"the tape {tape.name}" if tape else "ten seconds without any signal"
    pages = _Pages(
        plan, emitted, chip, wiring, controller, tape_name, rows, peers,
        is_receiver=is_receiver,
    )  # fmt: skip
    files = pages.files()
    files["host/tape.txt"] = tape_text(plan, tape, design.rate, emitted.name)
    return Project(
        emitted.name, files, emitted, plan, chip, controller, is_receiver, design.name,
        _pins(wiring), (*wiring.notes, *pages.notes), told, pages.unheard,
    )  # fmt: skip


def _own_lamps(plan: Plan, emitted: Emitted, chip: Chip | None, given: Controller) -> Lamps | None:
    """The lamps of a controller that is a lamp array. Raises FirmwareError."""
    if given.lamps is None:
        return None
    if chip is None or not chip.words.get("has_usb"):
        raise FirmwareError("a lamp array of your own needs an RP2040; leave `lamps` out.")
    names = {line.line for line in emitted.lines}
    lines = [number for number, line in enumerate(plan.design.line) if line.name in names]
    return lamps_of(plan, emitted, given.lamps, lines)


def _pins(wiring: Wiring) -> tuple[tuple[str, str], ...]:
    """The use of each pin, in words."""
    rows = [(line.pin, f"line {line.line}: {line.led}") for line in wiring.lines]
    rows += [(line.clock, f"line {line.line}: clock") for line in wiring.lines if line.clock]
    return (*rows, *((each.pin, f"signal {each.signal}: {each.about}") for each in wiring.inputs))


def _controller(design: Design, wanted: str | None) -> str | None:
    known = design.controllers
    if wanted is not None and wanted not in known:
        remedy = did_you_mean(wanted, known, "controllers")
        raise FirmwareError(
            f"there is no controller '{wanted}'.", remedy=remedy, code="unknown-name"
        )
    if wanted is None and len(known) > 1:
        names = listed([*known])
        raise FirmwareError(f"firmware for which controller, {names}? Add --controller NAME.")
    return wanted or next(iter(known), None)


def _chip(design: Design, controller: str | None, target: str | None) -> Chip | None:
    if target is not None and target not in TARGETS:
        remedy = did_you_mean(target, TARGETS, "targets")
        raise FirmwareError(f"there is no target '{target}'.", remedy=remedy, code="unknown-name")
    kind = design.controllers[controller].type if controller else None
    own = CHIPS.get(kind or "")
    if target is None or (own is not None and target in (own.name, own.family)):
        return own
    return CHIPS.get(TARGETS[target])


def _edge_groups(chip: Chip | None, wiring: Wiring) -> list[int]:
    """The groups of pins whose edges share one interrupt, on chips with such groups."""
    groups = chip.words.get("edges") if chip is not None else None
    used = [at.port for each in wiring.inputs if each.has_edges for at in each.digital]
    return sorted({groups[port] for port in used}) if groups else []


def _edge_interrupts(chip: Chip | None, wiring: Wiring) -> list[int]:
    """The interrupts of pins by their numbers, on chips that have those."""
    table = chip.words.get("edge_interrupts") if chip is not None else None
    used = [at.bit for each in wiring.inputs if each.has_edges for at in each.digital]
    return sorted({table[bit] for bit in used}) if table else []


def _universes(emitted: Emitted) -> list[tuple[int, int]]:
    """For each universe of sACN, the place and number of its slots: whole pixels."""
    found = []
    for line in emitted.lines:
        chunk = SLOTS // len(line.order) * len(line.order)
        found += [(line.at + i, min(chunk, line.size - i)) for i in range(0, line.size, chunk)]
    return found


def _told_signals(
    plan: Plan, wiring: Wiring, controller: str | None, peers: Peers | None
) -> frozenset[str]:
    """The signals that a pin or a wire feeds on this controller."""
    design = plan.design
    found = {each.signal for each in wiring.inputs}
    if controller is not None:
        found |= {name for name, _, _ in said_to(design, controller)}
    if peers is not None:
        found |= {*heard_by_peers(design)} if peers.count > 1 else {*design.signals}
    return frozenset(found)


class _Pages:
    """Fills in the templates."""

    def __init__(
        self, plan: Plan, emitted: Emitted, chip: Chip | None, wiring: Wiring,
        controller: str | None, tape_name: str, cost: Sequence[str], peers: Peers | None,
        *, is_receiver: bool,
    ) -> None:  # fmt: skip
        self._chip, self._emitted, self._is_receiver = chip, emitted, is_receiver
        self.notes: tuple[str, ...] = ()
        self.unheard: tuple[str, ...] = ()
        design = plan.design
        lines = emitted.lines
        given = design.controllers[controller] if controller else None
        link = given.link if given else None
        longest = max(line.size for line in lines)
        name, c_name = emitted.name, c_string(design.name)
        sources = ["main.c", f"{name}.c", "board.c"]
        sources += [f"{name}_receiver.c"] if is_receiver else []
        sources += ["peers.c"] if peers else []
        kept = None if is_receiver else kept_of(plan, emitted, wiring)
        if kept is not None and chip is not None and chip.words.get("keeps") is None:
            self.notes = (f"{chip.about} cannot keep values: they start again after power-up.",)
            kept = None
        names = dict(zip(plan.fed, emitted.fields, strict=True))
        mavlink = {} if is_receiver else heard_of(design, controller, names)
        sources += ["mavlink.c"] if mavlink else []
        lamps = None if is_receiver or given is None else _own_lamps(plan, emitted, chip, given)
        sources += ["lamps.c", "usb.c"] if lamps else []
        wire_baud = peers.baud if peers else None
        if mavlink and given is not None and given.mavlink is not None:
            wire_baud = given.mavlink.baud
        by_network = is_receiver and chip is not None and hears_network(chip, given)
        sources += [each for each in NETWORK if each.endswith(".c")] if by_network else []
        sources += chip.words["sources"] if chip is not None else []
        about = emitted.fields
        told = _told_signals(plan, wiring, controller, peers)
        of = fed(design)
        unfed = [
            field
            for part, field in zip(plan.fed, about.items(), strict=True)
            if of[part] not in told
        ]
        if not is_receiver:
            self.unheard = tuple(dict.fromkeys(field.partition("[")[0] for field, _ in unfed))
        at_pins = {} if chip is not None else inputs_in_words(plan, controller, emitted)
        size = IDENTITY_HEAD + 4 * len(lines) + len(design.name.encode())
        self._words: dict[str, Any] = {
            "design": design, "file": plan.origin.file, "title": design.name,
            "name": name,
            "NAME": name.upper(), "lines": lines,
            "board": chip.words if chip is not None else {"about": "a controller of your own"},
            "is_generic": chip is None, "fields": [*about], "is_receiver": is_receiver,
            "pinned": wiring.lines, "inputs": wiring.inputs, "serial": wiring.serial,
            "unfed": unfed,
            "inputs_in_words": [
                (field, "; ".join(filter(None, (text, at_pins.get(field)))))
                for field, text in about.items()
            ],
            "kinds": {line.kind for line in wiring.lines},
            "analogue": [e for e in wiring.inputs if e.needs in ("analogue", "temperature")],
            "edged": [each for each in wiring.inputs if each.has_edges],
            "edge_groups": _edge_groups(chip, wiring),
            "edge_interrupts": _edge_interrupts(chip, wiring),
            "has_matrix": any(each.needs == "matrix" for each in wiring.inputs),
            "reset_us": max(design.line[line.number].led_type.reset_s for line in lines) * 1e6,
            "period_us": round(1e6 / design.rate), "longest": longest,
            "by_network": by_network, "controller": controller or "",
            "by_idf": chip is not None and chip.words["tool"] == "idf.py",
            "universes": _universes(emitted),
            "sacn_stream": sum(line.size + line.size // 254 + 12 for line in lines) + 24,
            "peers": peers, "mavlink": mavlink, "kept": kept, "lamps": lamps,
            "has_serial": is_receiver or peers is not None or bool(mavlink),
            "baud": wire_baud or (link.baud if link else None) or BAUD,
            "identity_size": size + size // 254 + 4, "c_name": c_name,
            "place_bits": 16 if sum(line.size for line in lines) < 2**16 else 32,
            "sources": sources, "version": VERSION, "tape_name": tape_name, "cost": cost,
            "c_text": c_string, "notes": (*wiring.notes, *self.notes),
        }  # fmt: skip

    def files(self) -> dict[str, str]:
        """Every file that the target has."""
        name, chip = self._emitted.name, self._chip
        family = chip.words.get("templates", chip.family) if chip else GENERIC
        pages = {
            "README.md": "README.md.j2",
            "Makefile": f"{family}/Makefile.j2",
            "main.c": "main.c.j2",
            "board.h": "board.h.j2",
            "board.c": f"{family}/board.c.j2",
            "host/main.c": "host/main.c.j2",
        }
        if self._chip is not None:
            pages |= self._chip.files
        if self._words["edged"]:
            pages["edges.h"] = "edges.h.j2"
        if self._words["by_network"]:
            pages |= {each: f"esp/{each}.j2" for each in NETWORK}
        if self._words["has_serial"] or self._words["kept"]:
            pages["packets.h"] = "packets.h.j2"
        if self._words["mavlink"]:
            pages |= {"mavlink.h": "mavlink.h.j2", "mavlink.c": "mavlink.c.j2"}
        if self._words["lamps"]:
            pages |= {each: f"lamps/{each}.j2" for each in ("lamps.h", "lamps.c")}
            pages |= {each: f"{family}/{each}.j2" for each in ("usb.h", "usb.c")}
        if self._words["peers"]:
            pages |= {"peers.h": "peers.h.j2", "peers.c": "peers.c.j2"}
        if self._is_receiver:
            pages |= {
                f"{name}_receiver.h": "receiver/receiver.h.j2",
                f"{name}_receiver.c": "receiver/receiver.c.j2",
                "host/board.c": "host/receiver_board.c.j2",
            }
        files = {
            path: _ENVIRONMENTS[_language(path)].get_template(page).render(self._words)
            for path, page in pages.items()
        }
        return {f"{name}.h": self._emitted.header, f"{name}.c": self._emitted.source, **files}


def _environment(escape: Callable[[str], str]) -> Environment:
    """Templates of one language: each text that is put in is escaped, unless it is Ready."""

    def finish(value: Any) -> Any:
        return escape(value) if isinstance(value, str) and not isinstance(value, Ready) else value

    return Environment(  # nosec B701
        loader=PackageLoader("fendra.firmware", "templates"),
        autoescape=False,  # that is for HTML; `finish` escapes for these languages
        finalize=finish,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
        keep_trailing_newline=True,
    )


_ENVIRONMENTS = {
    "c": _environment(c_comment), "make": _environment(make_text), "md": _environment(markdown),
}  # fmt: skip
"""In C, texts are comments; in code from the emitter this changes nothing."""


def _language(path: str) -> str:
    """The language of a page, by its name."""
    return "make" if path.endswith("Makefile") else "md" if path.endswith(".md") else "c"
