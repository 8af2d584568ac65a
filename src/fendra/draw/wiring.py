"""The wiring diagram: controllers, level shifters, lines with their parts, supplies, common ground.

Everything is drawn in a unit that is a hundredth of the width; y grows downward.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from fendra.core.electric.budget import Budget
from fendra.core.electric.controller_budget import ControllerBudget
from fendra.core.electric.leads import fuse_for
from fendra.core.electric.line_budget import LineBudget
from fendra.core.electric.loads import Feeding
from fendra.core.electric.supply_budget import SupplyBudget
from fendra.core.layout.table import PartRow
from fendra.core.names import counted
from fendra.draw import style
from fendra.draw.map_labels import addresses

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

WIDTH = 100.0
_CONTROLLER = (0.0, 15.0)
_SHIFTER = 20.0
_BUS, _BUS_STEP = 26.5, 2.6
_PARTS = (37.0, 99.0)
_GAP = 2.4
_MOST_PARTS = 6
_BOX, _LEAD, _COPY = 3.6, 2.3, 3.4
_SUPPLY = (0.0, 23.0)
_SUPPLY_HIGH = 6.2
_GROUND = 2.5
"""Of the controller's ground pin, below its last data pin."""


@dataclass(frozen=True)
class _Box:
    """A part in a line's row; part is None for those that are not drawn one by one."""

    part: PartRow | None
    words: tuple[str, str]
    x: float
    width: float

    @property
    def end(self) -> float:
        return self.x + self.width


@dataclass(frozen=True)
class _Row:
    """A line's row: y of the middle of its boxes; y of the notes below; and its end."""

    line: LineBudget
    y: float
    boxes: tuple[_Box, ...]
    copies: tuple[tuple[_Box, PartRow], ...]

    @property
    def leads_y(self) -> float:
        return self.y + _BOX / 2 + _COPY * bool(self.copies) + 1.4

    @property
    def end(self) -> float:
        return self.leads_y + _LEAD * len(self.line.leads) + 0.8

    def x_of(self, address: int) -> float:
        """Where an address is."""
        for box in self.boxes:
            if box.part is None:
                return box.x + box.width / 2
            part = box.part
            if part.first <= address <= part.last:
                return box.x + box.width * (address - part.first + 0.5) / part.count
        return self.boxes[-1].end


@style.plain_text()
def draw_wiring_figure(budget: Budget) -> Figure:
    """The diagram as a figure of its own, as high as it must be."""
    rows = [*_rows(budget)]
    height = _height(budget, rows)
    figure = style.new_figure((10.0, 10.0 * height / WIDTH))
    ax = figure.add_axes((0.0, 0.0, 1.0, 1.0))
    _draw(budget, rows, ax)
    return figure


@style.plain_text()
def draw_wiring(budget: Budget, ax: Axes) -> Axes:
    """The diagram on axes, whose frame and ticks go; gives the axes."""
    with style.inked(style.ink_for(ax)):
        _draw(budget, [*_rows(budget)], ax)
    return ax


def _height(budget: Budget, rows: Sequence[_Row]) -> float:
    return rows[-1].end + 3.2 + (_SUPPLY_HIGH + 1.6) * len(budget.supplies)


def _rows(budget: Budget) -> Iterator[_Row]:
    y = 5.0
    for controller in budget.controllers:
        for line in controller.lines:
            row = _row(budget, line, y)
            yield row
            y = row.end + _BOX / 2 + 2.4
        y += 2.4


def _row(budget: Budget, line: LineBudget, y: float) -> _Row:
    parts = [part for part in budget.loads.layout.parts if part.line == line.number]
    shown = [part for part in parts if part.kind != "copy"]
    rest = shown[_MOST_PARTS:] if len(shown) > _MOST_PARTS + 1 else []
    shown = shown[: len(shown) - len(rest)]
    count = len(shown) + bool(rest)
    left, right = _PARTS
    width = (right - left - _GAP * (count - 1)) / count
    boxes = [
        _Box(part, _words(part), left + i * (width + _GAP), width) for i, part in enumerate(shown)
    ]
    if rest:
        words = (f"and {counted(len(rest), 'part')} more", f"{rest[0].first} – {rest[-1].last}")
        boxes.append(_Box(None, words, left + len(shown) * (width + _GAP), width))
    copies = tuple(
        (box, part)
        for part in parts
        if part.kind == "copy"
        for box in boxes
        if box.part is not None and box.part.first == part.first
    )
    return _Row(line, y, tuple(boxes), copies[:_MOST_PARTS])


def _words(part: PartRow) -> tuple[str, str]:
    leds = part.leds.stop - part.leds.start
    what = "not seen" if part.kind == "hidden" else counted(leds, "LED")
    return part.name, f"{addresses(part)}   {what}"


def _draw(budget: Budget, rows: Sequence[_Row], ax: Axes) -> None:
    ax.set_xlim(-0.6, WIDTH + 0.6)
    ax.set_ylim(_height(budget, rows), 0)
    ax.axis("off")
    bus_of = {each.name: _BUS + i * _bus_step(budget) for i, each in enumerate(_feedings(budget))}
    for controller in budget.controllers:
        own = [row for row in rows if row.line in controller.lines]
        if own:
            _draw_controller(controller, own, [*bus_of.values()], ax)
    grounds = [own[-1].y + _GROUND for own in _by_controller(budget, rows)]
    for row in rows:
        _draw_row(row, ax)
        _draw_leads(row, bus_of[row.line.feeding.name], ax)
    y = rows[-1].end + 3.2
    for i, supply in enumerate(budget.supplies):
        feeding = supply.feeding
        top = min(row.leads_y for row in rows if row.line.feeding == feeding)
        tops = (top, min([top + 0.8, *grounds]))
        _draw_supply(supply, y + i * (_SUPPLY_HIGH + 1.6), bus_of[feeding.name], tops, ax)


def _by_controller(budget: Budget, rows: Sequence[_Row]) -> list[list[_Row]]:
    found = [[row for row in rows if row.line in each.lines] for each in budget.controllers]
    return [own for own in found if own]


def _feedings(budget: Budget) -> list[Feeding]:
    return [each.feeding for each in budget.supplies]


def _bus_step(budget: Budget) -> float:
    return min(_BUS_STEP, 8.4 / max(len(budget.supplies), 1))


def _draw_controller(
    controller: ControllerBudget, rows: Sequence[_Row], buses: Sequence[float], ax: Axes
) -> None:
    left, right = _CONTROLLER
    top, foot = rows[0].y - 3.6, rows[-1].y + _GROUND + 0.9
    _rectangle(ax, left, top, right - left, foot - top, style.ink().text)
    said = controller.controller
    _text(ax, left + 0.8, top + 1.3, controller.name or "controller", bold=True)
    if said is not None and said.type:
        _text(ax, left + 0.8, top + 2.9, said.type, faint=True)
    ground = style.ink().ground
    y = rows[-1].y + _GROUND
    _text(ax, right - 0.6, y, "GND", side="right")
    _wire(ax, [(right, y), (buses[-1] + 0.9, y)], ground)
    for bus in buses:
        ax.plot([bus + 0.9], [y], "o", color=ground, markersize=3.5, zorder=5)
    _text(ax, right + 0.6, y + 1.0, "common ground", faint=True)


def _draw_row(row: _Row, ax: Axes) -> None:
    line, data = row.line, style.ink().data
    start = _CONTROLLER[1]
    _text(ax, start - 0.6, row.y, line.line.pin or line.line.name, side="right")
    _wire(ax, [(start, row.y), (row.boxes[0].x, row.y)], data, is_arrow=True)
    if line.shifter == "chip":
        _draw_shifter(row.y, line, ax)
    colour = style.line_colour(line.number)
    clock = "  data and clock" if line.led.data == "clocked" else ""
    facts = f"{line.line.led} {line.line.wire_order}, {counted(line.addresses, 'address')}{clock}"
    _text(ax, row.boxes[0].x, row.y - _BOX / 2 - 0.9, line.line.name, bold=True, colour=colour)
    ax.annotate(
        facts, (row.boxes[-1].end, row.y - _BOX / 2 - 0.9), fontsize=7, ha="right", va="center",
        color=style.ink().faint,
    )  # fmt: skip
    for before, after in zip(row.boxes, row.boxes[1:], strict=False):
        for offset, wire in ((-0.9, style.ink().plus), (0.9, style.ink().ground)):
            y = row.y + offset
            _wire(ax, [(before.end, y), (after.x, y)], wire, thin=True)
        _wire(ax, [(before.end, row.y), (after.x, row.y)], data, is_arrow=True)
    for box in row.boxes:
        is_hidden = box.part is not None and box.part.kind == "hidden"
        _rectangle(ax, box.x, row.y - _BOX / 2, box.width, _BOX, colour, is_dashed=is_hidden)
        _fit(ax, box, row.y)
    for box, copy in row.copies:
        y = row.y + _BOX / 2 + 0.7
        _rectangle(ax, box.x, y, box.width, 2.4, colour, is_dashed=True)
        words = f"{copy.name}, in parallel: DI at the same wire"
        _text(ax, box.x + box.width / 2, y + 1.2, words, side="center", room=box.width)


def _draw_shifter(y: float, line: LineBudget, ax: Axes) -> None:
    from matplotlib.patches import Polygon

    x = _SHIFTER - 1.5
    corners = [(x, y - 1.5), (x, y + 1.5), (x + 3.0, y)]
    ax.add_patch(
        Polygon(corners, facecolor=style.ink().night, edgecolor=style.ink().data, zorder=4)
    )
    volts = line.feeding.volts if line.led.volts == line.feeding.volts < 6 else 5
    _text(ax, x + 1.2, y - 2.4, f"to {volts:g} V", side="center", faint=True)


def _draw_leads(row: _Row, bus: float, ax: Axes) -> None:
    """From the bus to each place at which the line is fed: a lead of its own, with its fuse."""
    plus, ground = style.ink().plus, style.ink().ground
    foot = row.y + _BOX / 2
    leads = sorted(zip(row.line.leads, row.line.lead_a, strict=True), key=lambda item: item[0][0])
    for i, ((at, wire), amps) in enumerate(leads):
        y = row.leads_y + i * _LEAD
        x = row.x_of(at)
        fuse = fuse_for(amps)
        _wire(ax, [(bus, y), (x - 0.35, y), (x - 0.35, foot)], plus)
        _wire(ax, [(bus + 0.9, y + 0.8), (x + 0.35, y + 0.8), (x + 0.35, foot)], ground)
        ax.plot([bus], [y], "o", color=plus, markersize=3, zorder=5)
        ax.plot([bus + 0.9], [y + 0.8], "o", color=ground, markersize=3, zorder=5)
        _draw_fuse(_PARTS[0] - 3.2, y, ax)
        words = f"LED {at}: {wire}, fuse {fuse:g} A" if fuse else f"LED {at}: {wire}, {amps:.3g} A"
        is_near = i == 0 and x < _PARTS[0] + 24  # then there is no room above the lead
        place = (x + 1.4, y + 0.3) if is_near else (_PARTS[0] - 0.8, y - 0.72)
        _text(ax, *place, words, faint=True)


def _draw_fuse(x: float, y: float, ax: Axes) -> None:
    _rectangle(ax, x, y - 0.4, 1.8, 0.8, style.ink().plus, zorder=6)


def _draw_supply(
    supply: SupplyBudget, y: float, bus: float, tops: tuple[float, float], ax: Axes
) -> None:
    left, right = _SUPPLY
    colours, feeding = style.ink(), supply.feeding
    _rectangle(ax, left, y, right - left, _SUPPLY_HIGH, colours.text)
    _text(ax, left + 0.8, y + 1.3, feeding.name or "supply", bold=True)
    for i, words in enumerate(supply_in_words(feeding)[:2]):
        _text(ax, left + 0.8, y + 3.0 + 1.6 * i, words, faint=True, room=right - left - 3.5)
    for offset, x, end, colour, sign in (
        (1.6, bus, tops[0], colours.plus, "+"),
        (4.4, bus + 0.9, tops[1], colours.ground, "–"),
    ):
        _text(ax, right - 0.7, y + offset, sign, side="right", bold=True, colour=colour)
        _wire(ax, [(right, y + offset), (x, y + offset), (x, end)], colour)
    main = fuse_for(supply.peak_a)
    _draw_fuse(right + 0.7, y + 1.6, ax)
    if main is not None:
        _text(ax, right + 1.6, y + 0.3, f"{main:g} A", side="center", faint=True)


def supply_in_words(feeding: Feeding) -> list[str]:
    """The output of a supply, and the origin of its power.

    >>> import fendra as fd
    >>> budget = fd.load(fd.demo_file("heron.toml")).budget()
    >>> supply_in_words(budget.supplies[0].feeding)
    ['5 V, 6 A', '48 V 15 Ah battery, converter 90 %', '48 V to 5 V converter under the deck']
    """
    supply = feeding.supply
    rated = "rating unknown" if feeding.amps is None else f"{feeding.amps:g} A"
    found = [f"{feeding.volts:g} V, {rated}"]
    if supply is None:
        return found
    behind = []
    if supply.usb:
        behind.append(f"USB {supply.usb}")
    if supply.regulator_of:
        behind.append(f"regulator of {supply.regulator_of}")
    if supply.battery:
        behind.append(f"{supply.battery.nominal_volts:g} V {supply.battery.ah:g} Ah battery")
    if supply.converter:
        behind.append(f"converter {supply.converter.efficiency:.0%}".replace("%", " %"))
    return [*found, *([", ".join(behind)] if behind else []), *filter(None, [supply.about])]


def _wire(
    ax: Axes, points: Sequence[tuple[float, float]], colour: str, *, is_arrow: bool = False,
    thin: bool = False,
) -> None:  # fmt: skip
    xs, ys = zip(*points, strict=True)
    ax.plot(xs, ys, color=colour, linewidth=0.9 if thin else 1.3, solid_capstyle="butt", zorder=3)
    if is_arrow:
        ax.annotate(
            "", points[-1], points[-2], arrowprops={"arrowstyle": "-|>", "color": colour,
            "linewidth": 1.3, "shrinkA": 0, "shrinkB": 0, "mutation_scale": 7}, zorder=3,
        )  # fmt: skip


def _rectangle(
    ax: Axes, x: float, y: float, width: float, height: float, colour: str, *,
    is_dashed: bool = False, zorder: float = 4,
) -> None:  # fmt: skip
    from matplotlib.patches import Rectangle

    ax.add_patch(
        Rectangle(
            (x, y), width, height, facecolor=style.ink().night, edgecolor=colour, linewidth=1.2,
            linestyle="--" if is_dashed else "-", zorder=zorder,
        )
    )  # fmt: skip


_SMALLEST = 5.0
_LETTER = 0.0764
"""Width of an average letter in units, for each point of its size."""


def _text(
    ax: Axes, x: float, y: float, words: str, *, side: str = "left", bold: bool = False,
    faint: bool = False, colour: str | None = None, room: float | None = None,
) -> None:  # fmt: skip
    size = 8.0 if bold else 7.0
    if room is not None:
        size = max(min(size, 0.94 * room / (_LETTER * max(len(words), 1))), _SMALLEST)
        fits = int(0.94 * room / (_LETTER * _SMALLEST))
        words = words if len(words) <= fits else f"{words[: fits - 1]}…"
    ax.text(
        x, y, words, fontsize=size, ha=side, va="center", zorder=7,
        color=colour or (style.ink().faint if faint else style.ink().text),
        fontweight="bold" if bold else "normal",
    )  # fmt: skip


def _fit(ax: Axes, box: _Box, y: float) -> None:
    """A part's name and addresses in its box, as large as they fit."""
    middle = box.x + box.width / 2
    _text(ax, middle, y - 0.75, box.words[0], side="center", room=box.width)
    _text(ax, middle, y + 0.85, box.words[1], side="center", faint=True, room=box.width)
