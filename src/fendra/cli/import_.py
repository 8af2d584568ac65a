"""`fendra import`: positions from CSV, SVG or a written layout become parts of a design."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, Literal

import typer

from fendra.cli.screen import count_findings, say, say_findings
from fendra.core.quoting import in_lines

if TYPE_CHECKING:
    from fendra.files.design_text import NewLine
    from fendra.files.placement import Placement

Unit = Literal["mm", "cm", "in", "mil", "um"]


def import_(
    file: Annotated[
        str,
        typer.Argument(
            metavar="FILE", help="A .csv, an .svg, or a .json that `fendra layout` wrote; or "
            "lamps:, lamps:NAME for a keyboard, mouse or case whose lamps your computer can set.",
            show_default=False,
        ),
    ],
    into: Annotated[
        Path | None,
        typer.Option(
            metavar="DESIGN",
            help="Add to this design, or begin it. Without it, the text goes to the screen.",
            show_default=False,
        ),
    ] = None,
    line: Annotated[str, typer.Option(metavar="NAME", help="The line to add to.")] = "main",
    part: Annotated[
        str | None,
        typer.Option(metavar="NAME", help="The new part.  [default: the file's name]",
                     show_default=False),
    ] = None,
    column: Annotated[
        list[str] | None,
        typer.Option(
            metavar="WHAT=HEAD",
            help=(
"CSV: the column of name, x, y, z, rotation or side; repeat it for "
"several. Usual heads need no option."
),
            show_default=False,
        ),
    ] = None,
    unit: Annotated[
        Unit | None,
        typer.Option(help="The unit of lengths without one.  [default: mm; in an SVG, 1/96 in]",
                     show_default=False),
    ] = None,
    facing: Annotated[
        Literal["side", "rotation"],
        typer.Option(help="CSV: where LEDs face: up or down by side, or sideways by rotation."),
    ] = "side",
    only: Annotated[
        str | None,
        typer.Option(metavar="NAME", help="Only these names, or groups of a drawing; * for any.",
                     show_default=False),
    ] = None,
    order: Annotated[
        Literal["file", "name", "path"],
        typer.Option(help=(
"The order of the wire: as in the file, by the numbers in the names, or, in an "
"SVG, along a path."
)),
    ] = "file",
    path: Annotated[
        str | None,
        typer.Option(metavar="ID", help="SVG: the path that the wire follows.", show_default=False),
    ] = None,
    pitch: Annotated[
        float | None,
        typer.Option(min=0.01, metavar="MM", help="SVG: put LEDs along the path with this spacing.",
                     show_default=False),
    ] = None,
    per_metre: Annotated[
        float | None,
        typer.Option(min=0.1, max=1000, help="SVG: the same, as LEDs a metre.", show_default=False),
    ] = None,
    count: Annotated[
        int | None,
        typer.Option(min=1, max=100_000, help="SVG: this many LEDs; evenly, without a spacing.",
                     show_default=False),
    ] = None,
    scale: Annotated[
        float, typer.Option(min=1e-6, max=1e6, help="Make it this many times larger.")
    ] = 1.0,
    flip: Annotated[
        Literal["x", "y"] | None,
        typer.Option(help=(
"Mirror it, left to right (x) or top to bottom (y): for a board that you look "
"at from below."
), show_default=False),
    ] = None,
    middle: Annotated[
        bool, typer.Option("--middle", help="Move the middle of all LEDs to the origin.")
    ] = False,
) -> None:  # fmt: skip
    """Turn a file of positions into parts of a design, as text that you go on editing.

    A placement export of a circuit-board program has a row for each LED; the columns may have any
    order. A drawing has a circle, an ellipse or a rectangle for each LED, with its name as id, or a
    path that the LEDs follow. A lamp array says itself where its lamps are. If you add to a design,
    its comments and its order stay.
    """
    from fendra.core.errors import LayoutError
    from fendra.files.placement import by_name, centred, scaled
    from fendra.files.placement import only as only_like

    is_device = file.startswith("lamps:")
    source = Path("lamps") if is_device else Path(file)
    is_svg = source.suffix.casefold() == ".svg"
    of_svg = {"--path": path, "--pitch": pitch, "--per-metre": per_metre, "--count": count}
    of_others = {"--column": column, "--facing rotation": facing == "rotation" or None}
    for option, value in (of_others if is_svg else of_svg).items():
        if value is not None and value != []:
            kind = "a CSV" if is_svg else "an SVG"
            raise typer.BadParameter(f"{option} needs {kind}, and '{source}' is not one")
    if order == "path" and not is_svg:
        raise typer.BadParameter(f"--order path needs an SVG, and '{source}' is not one")
    keys: dict[str, dict[str, Any]] = {}
    if pitch is not None and per_metre is not None:
        raise typer.BadParameter("--pitch and --per-metre mean the same; give one of them")
    if per_metre is not None:
        pitch = 1000.0 / per_metre
    try:
        match source.suffix.casefold():
            case "" if is_device:
                placements, keys = _from_lamps(file.removeprefix("lamps:"), line, part)
            case ".svg":
                placements = _from_svg(source, unit, path, pitch, count, order)
            case ".json":
                placements, keys = _from_json(source)
            case ".csv" | ".tsv" | ".txt" | ".pos":
                placements = _from_csv(source, column or [], unit, facing)
            case _:
                raise typer.BadParameter(
                    f"'{source}' is not a .csv, .svg or .json file", param_hint="FILE"
                )
        placements = only_like(placements, only) if only else placements
        placements = by_name(placements) if order == "name" else placements
        placements = scaled(placements, scale, flip)
        placements = centred(placements) if middle else placements
        _write(source, into, placements, keys, line, part or _part_name(source))
    except LayoutError as exc:
        raise LayoutError(f"{source}: {exc}") from exc


def _from_csv(source: Path, columns: list[str], unit: str | None, facing: str) -> list[Placement]:
    from fendra.core.limits import LAYOUT_BYTES
    from fendra.files.csv_places import read_csv
    from fendra.whole import read_text

    named = {}
    for text in columns:
        what, equals, head = text.partition("=")
        if not equals:
            raise typer.BadParameter(
                f"'{text}' has no '='. Write it as in x=PosX", param_hint="--column"
            )
        named[what] = head
    return read_csv(
        read_text(source, LAYOUT_BYTES), columns=named, unit=unit or "mm", facing=facing
    )


def _from_svg(
    source: Path, unit: str | None, path: str | None, pitch: float | None, count: int | None,
    order: str,
) -> list[Placement]:  # fmt: skip
    from fendra.core.limits import LAYOUT_BYTES
    from fendra.files.placement import UNITS_MM
    from fendra.files.svg_places import Drawing
    from fendra.whole import read_text

    drawing = Drawing(read_text(source, LAYOUT_BYTES), UNITS_MM[unit] if unit else None)
    if pitch is not None or count is not None:
        return drawing.along(path, pitch_mm=pitch, count=count)
    marks = drawing.marks()
    return drawing.sorted_along(marks, path) if order == "path" else marks


def _from_json(source: Path) -> tuple[list[Placement], dict[str, dict[str, Any]]]:
    from fendra.core.limits import LAYOUT_BYTES
    from fendra.files.layout_file import read_json
    from fendra.whole import read_text

    return read_json(read_text(source, LAYOUT_BYTES))


def _from_lamps(
    address: str, line: str, part: str | None
) -> tuple[list[Placement], dict[str, dict[str, Any]]]:
    """The lamps of a lamp array, and what a design says of their line."""
    from fendra.files.lamp_places import lamp_placements
    from fendra.outputs.lamps import open_array

    array, name = open_array(address)
    array.device.close()
    width, height, depth = (size / 1000 for size in array.size_um)
    rate = f"; {1e6 / array.least_interval_us:.4g} updates a second" * bool(array.least_interval_us)
    latest_ms = max(lamp.latency_us for lamp in array.lamps) / 1000
    typer.echo(
        in_lines(
            f"'{name}' ({array.kind}): {len(array.lamps)} lamps, {width:g} x {height:g} x "
            f"{depth:g} mm{rate}, light after {latest_ms:g} ms. Send to it with: "
            f"--to lamps:{address}"
        ),
        err=True,
    )
    return lamp_placements(array, line, part or name), {line: {"led": "lamp"}}


def _part_name(source: Path) -> str:
    from fendra.core.names import NAME

    name = source.stem
    return name if NAME.fullmatch(name) else "leds"


def _write(
    source: Path, into: Path | None, placements: list[Placement], keys: dict[str, dict[str, Any]],
    line: str, part: str,
) -> None:  # fmt: skip
    """Add to the design's text, and say what there is to say about it."""
    import tomllib

    from fendra.core.errors import LayoutError
    from fendra.core.layout.table import UNITS_MM
    from fendra.core.toml_text import value_text
    from fendra.files.design_file import check_text
    from fendra.files.design_text import HEAD, add_lines
    from fendra.files.layout_file import to_lines
    from fendra.whole import read_text, write_text

    is_there = into is not None and into.exists()
    if into is not None and is_there:
        text = read_text(into)
        try:
            unit_mm = UNITS_MM.get(tomllib.loads(text).get("units", "mm"), 1.0)
        except tomllib.TOMLDecodeError as exc:
            raise LayoutError(
                f"'{into}' is not valid TOML; run `fendra check {into}` for the line."
            ) from exc
    else:
        text = HEAD.format(name=value_text((into or source).stem))
        unit_mm = 1.0
    lines = to_lines(placements, line=line, part=part, unit_mm=unit_mm, keys=keys)
    text = add_lines(text, lines)
    if into is None:
        typer.echo(in_lines(text), nl=False)
        return
    write_text(into, text)
    checked = check_text(text, str(into))
    say_findings(checked.findings)
    say(f"{into}: {_in_words(lines, placements)}; {count_findings(checked.findings)}")


def _in_words(lines: list[NewLine], placements: list[Placement]) -> str:
    from fendra.core.names import counted

    leds = sum(placement.position is not None for placement in placements)
    places = [f"'{part['name']}' on line '{line.name}'" for line in lines for part in line.parts]
    more = f" and {len(places) - 3} parts more" if len(places) > 3 else ""
    return f"{counted(leds, 'LED')} added as {', '.join(places[:3])}{more}"
