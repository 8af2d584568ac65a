"""From a design, or from the user's options instead, to sources and outputs that can be opened."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from ipaddress import ip_address
from pathlib import Path
from typing import Annotated, Any

from pydantic import Field, ValidationError

from fendra.core.document.design import Design
from fendra.core.document.wording import to_findings
from fendra.core.errors import FendraError, OutputError, SourceError
from fendra.core.findings import Finding, KeyPath, Severity
from fendra.core.names import did_you_mean, listed
from fendra.core.quoting import shell_word
from fendra.core.signals.inputs import split_source
from fendra.drivers import Driver, Drivers, Options, known_keys
from fendra.files.tape_file import read_tape
from fendra.files.trust import is_trusted_host
from fendra.outputs import DRIVERS as OUTPUT_DRIVERS
from fendra.outputs import Output
from fendra.sources import SOURCES, Polled, Source
from fendra.sources.tape import TapeSource


class TapeOptions(Options):
    """The options of a tape.

    address: the CSV file. loop: repeat. speed: how many times as fast. start: start at this time of
    the tape, s.
    """

    address: Annotated[str, Field(min_length=1)]
    loop: bool = False
    speed: Annotated[float, Field(gt=0, le=1000)] = 1.0
    start: float | None = None


class TapeDriver(Driver):
    """A tape's file, before it is read."""

    Options = TapeOptions
    options: TapeOptions
    error = SourceError
    example = "tape:ride.csv,loop=true"

    def read(self, design: Design) -> TapeSource:
        """The tape, ready to play. Raises FileError and TapeError."""
        options = self.options
        tape = read_tape(self.folder / options.address, design)
        start_s = None if options.start is None else max(options.start, tape.start_s)
        return TapeSource(
            tape, loop=options.loop, speed=options.speed, start_s=start_s, gap_s=1 / design.rate
        )


SOURCE_DRIVERS: Drivers[Any] = Drivers(
    "source", {**SOURCES, "tape": (__name__, "TapeDriver")}, SourceError
)
"""Every source, with tapes. Tapes are read from files, which sources know nothing about."""


@dataclass
class Connected:
    """The sources and outputs of a run, by name.

    sources: those that run in threads. polled: those that the loop asks.
    """

    sources: dict[str, Source] = field(default_factory=dict)
    polled: dict[str, Polled] = field(default_factory=dict)
    outputs: dict[str, Output] = field(default_factory=dict)


def connect(
    design: Design,
    *,
    folder: str = "",
    sources: Sequence[str] | None = None,
    outputs: Sequence[str] | None = None,
    lines: Sequence[str] = (),
) -> Connected:
    """Connect the design's sources and outputs, or those that the texts name instead. A text is
    `NAME=TYPE:ADDRESS` or `TYPE:ADDRESS`; it replaces the design's own of that type. folder: where
    the files of sources are. lines: only these; outputs without any of them are left out.

    Raises SourceError and OutputError for invalid texts.
    """
    found = Connected()
    for name, source in _named(SOURCE_DRIVERS, sources, design.sources, Path(folder)):
        if isinstance(source, TapeDriver):
            found.polled[name] = source.read(design)
        else:
            found.sources[name] = source
    for name, output in _named(OUTPUT_DRIVERS, outputs, design.outputs, Path(folder)):
        output.lines_of(design)
        if lines:
            kept = [design.line[n].name for n in output.lines_of(design)]
            kept = [line for line in kept if line in lines]
            unknown = {*lines} - {line.name for line in design.line}
            if unknown:
                raise OutputError(f"the design has no line '{min(unknown)}'")
            if not kept:
                continue
            output.options = output.options.model_copy(update={"lines": tuple(kept)})
        found.outputs[name] = output
    return found


def unreached(design: Design, connected: Connected) -> list[str]:
    """Notes about signals that listen to a source of the design, if another was named
    instead. Empty if a tape plays, which feeds signals by their own names.
    """
    if connected.polled:
        return []
    silent: dict[str, list[str]] = {}
    for name, signal in design.signals.items():
        wanted = [split_source(given.name)[0] for given in signal.sources]
        if signal.of is None and all(
            source and source not in connected.sources for source in wanted
        ):
            silent.setdefault(wanted[0], []).append(name)
    here = next(iter(connected.sources.values()), None)
    return [
        (
            f"{listed(names)} {('listens' if len(names) == 1 else 'listen')} to source "
            f"'{source}', which does not run. Add --from "
            f"{source}={_as_text(design, source, here)}"
        )
        for source, names in silent.items()
    ]


def _as_text(design: Design, name: str, here: Source | None) -> str:
    """How a source is named on the command line: the one that is here, else as in the design."""
    table = design.sources[name].values if name in design.sources else {"type": "TYPE"}
    kind, address = table["type"], table.get("address", "")
    if not address and name in design.sources:
        given = SOURCE_DRIVERS.kind(kind).Options.model_fields.get("address")
        address = given.default if given is not None and isinstance(given.default, str) else ""
    if here is not None and type(here).__name__ == SOURCES.get(kind, ("", ""))[1]:
        address = getattr(here.options, "address", address)
    return f"{kind}:{address}"


def _named(
    drivers: Drivers[Any], texts: Sequence[str] | None, tables: Mapping[str, Any], folder: Path
) -> Iterable[tuple[str, Any]]:
    """Drivers by name, from texts if there are any, else from a design's tables."""
    if texts is None:
        for name, table in tables.items():
            if not table.off:
                yield name, _made(drivers, name, table.values, folder)
        return
    taken: set[str] = set()
    for text in texts:
        name, sign, rest = text.partition("=")
        is_named = bool(sign) and ":" not in name and "," not in name
        spec = rest if is_named else text
        kind = spec.partition(":")[0]
        of_kind = [each for each, table in tables.items() if table.values["type"] == kind]
        only = of_kind[0] if len(of_kind) == 1 else kind
        stem = label = name.strip() if is_named else only
        count = 1
        while label in taken:
            count += 1
            label = f"{stem}-{count}"
        taken.add(label)
        made = drivers.from_text(spec)
        made.folder = folder
        yield label, made


def _made(drivers: Drivers[Any], name: str, values: Mapping[str, Any], folder: Path) -> Any:
    """A driver from a design's table; errors say whose they are."""
    try:
        made = drivers.from_table(values)
        made.folder, made.is_from_design = folder, True
        made.check_from_design()
        if made.host and not is_near(made.host) and not is_trusted_host(made.host):
            raise made.error(
                (
                    f"a design may connect only within your own network, and {made.host} "
                    f"is outside it. Allow it: fendra trust --host {shell_word(made.host)}"
                ),
                code="unsafe",
            )
        return made
    except FendraError as exc:
        raise type(exc)(f"{drivers.what} '{name}': {exc}") from exc


NEAR = (".local", ".lan", ".home", ".internal", ".home.arpa", ".localhost")
"""Endings of names that only a local network knows."""


def is_near(host: str) -> bool:
    """Whether a host is this computer or in the local network, by its address or name alone.

    >>> is_near("192.168.1.20"), is_near("pi.local"), is_near("broker"), is_near("example.com")
    (True, True, True, False)
    """
    try:
        address = ip_address(host.strip("[]"))
    except ValueError:
        return "." not in host.rstrip(".") or host.lower().rstrip(".").endswith(NEAR)
    return (
        address.is_private or address.is_loopback or address.is_link_local or (address.is_multicast)
    )


def check_connections(design: Design, folder: Path | None = None) -> list[Finding]:
    """The problems of a design's sources and outputs, without opening any.

    folder: where the files are that they name; those are not read without it.
    """
    findings: list[Finding] = []
    sides: tuple[tuple[str, Drivers[Any], Mapping[str, Any]], ...] = (
        ("sources", SOURCE_DRIVERS, design.sources),
        ("outputs", OUTPUT_DRIVERS, design.outputs),
    )
    for side, drivers, tables in sides:
        for name, table in tables.items():
            findings += _check(side, drivers, name, table.values, design, folder)
    return findings


def _check(
    side: str, drivers: Drivers[Any], name: str, values: dict[str, Any], design: Design,
    folder: Path | None,
) -> list[Finding]:  # fmt: skip
    path: KeyPath = (side, name)
    try:
        kind: type[Driver] = drivers.kind(values["type"])
    except FendraError as exc:
        where = (*path, "type")
        return [Finding("unknown-name", Severity.ERROR, exc.problem, exc.remedy, where)]
    options = {key: value for key, value in values.items() if key != "type"}
    try:
        kind.Options.model_validate(options)
        made = kind(**{"address": "", **options})
        made.is_from_design = True
        made.check_from_design()
        if isinstance(made, Output):
            made.lines_of(design)
        elif isinstance(made, Source):
            made.check_signals(design)
        if folder is not None:
            made.folder = folder
            made.check_files()
    except ValidationError as exc:
        found: list[Finding] = []
        for error in exc.errors():
            where = (*path, *error["loc"])
            if error["type"] == "extra_forbidden":
                key, known = str(error["loc"][-1]), known_keys(kind.Options, error["loc"])
                problem = f"there is no key '{key}' here."
                remedy = did_you_mean(key, known, "keys")
                found.append(Finding("unknown-key", Severity.ERROR, problem, remedy, where))
            else:
                found += to_findings([error], where, {side: {name: values}})
        return found
    except FendraError as exc:
        return [Finding("wrong-value", Severity.ERROR, f"{exc}.".replace("..", "."), "", path)]
    return []
