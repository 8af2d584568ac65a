"""The tables of the build sheet, as rows of texts."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

import numpy as np

from fendra.core.catalogue.leds import LedType
from fendra.core.catalogue.wires import Lead
from fendra.core.electric.budget import Budget
from fendra.core.electric.leads import bears_a, fuse_for, wire_for
from fendra.core.electric.line_budget import LineBudget
from fendra.core.electric.supply_budget import SupplyBudget
from fendra.core.electric.words import in_amps
from fendra.core.layout.listing import list_parts
from fendra.core.layout.table import Layout, PartRow
from fendra.core.names import counted
from fendra.core.signals.inputs import pin_of
from fendra.core.signals.pins import pin_names
from fendra.draw.map_labels import addresses
from fendra.draw.wiring import supply_in_words

DATA_OHM, BUFFER_UF = 330, 1000
"""By custom: a resistor at each line's data-in, against reflections; a capacitor across plus and
ground at each place that is fed, against the surge at power-up."""


@dataclass(frozen=True)
class SheetTable:
    """heads: of the columns. rows: as many texts each. right: the heads of those set right."""

    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    right: tuple[str, ...] = ()


def fuse(peak_a: float) -> str:
    """The fuse for a current."""
    rating = fuse_for(peak_a)
    return "split it" if rating is None else f"{rating:g} A"


def supply_table(budget: Budget) -> SheetTable:
    """The load of each supply."""
    rows = []
    for each in budget.supplies:
        draw = each.draw
        rows.append(
            (
                each.feeding.name or "supply",
                "; ".join(supply_in_words(each.feeding)),
                _limiter(each),
                in_amps(each.idle_a),
                in_amps(each.white_a),
                f"{in_amps(draw.peak_a)} at {draw.at_s:.4g} s" if draw else "",
                f"{in_amps(draw.p99_a)}, {in_amps(draw.mean_a)}" if draw else "",
                _headroom(each),
                f"{each.watts:.3g} W",
                fuse(each.peak_a),
                _battery_side(each),
                f"{each.hours:.3g} h" if each.hours else "",
            )
        )
    heads = ("supply", "what it is", "limiter", "dark", "full white", "peak on the tape",
             "99 %, mean", "left at the peak", "watts", "main fuse", "battery to converter",
             "battery lasts")  # fmt: skip
    return _without_empty(SheetTable(heads, tuple(rows), heads[2:]))


def _limiter(each: SupplyBudget) -> str:
    """The limiter's budget, and the part of the brightest colour that it leaves."""
    if not each.feeding.budget_a:
        return "none"
    kept = in_amps(each.feeding.budget_a)
    if not each.part_of_full:
        return kept
    return f"{kept}: {each.share_of_full:.0%} of {each.brightest}, or {each.bears_leds} LEDs"


def _battery_side(each: SupplyBudget) -> str:
    """Current, fuse and wire between battery and converter; empty without them."""
    if each.battery_a is None:
        return ""
    wire = f"{each.battery_wire_mm2:g} mm²" if each.battery_wire_mm2 else "several wires"
    return f"{each.battery_a:.3g} A, fuse {fuse(each.battery_a)}, {wire}"


def _headroom(each: SupplyBudget) -> str:
    if each.headroom is None:
        return ""
    return f"{each.headroom:.0%} of {in_amps(each.feeding.amps)}"


def feed_table(budget: Budget) -> SheetTable:
    """Every lead from a supply to a line."""
    rows = []
    for line in budget.lines:
        for (at, wire), flow_a in zip(line.leads, line.lead_a, strict=True):
            part = _part_at(budget.loads.layout, line.number, at)
            held = bears_a(wire.area_mm2)
            least = wire_for(flow_a, wire.metres, line.feeding.volts)
            size = f"{wire}" if wire.is_sized else f"{wire} (assumed)"
            rows.append(
                (
                    line.feeding.name or "supply",
                    line.line.name,
                    f"{at}" + (f", LED {at - part.first} of {part.name}" if part else ""),
                    size,
                    f"{flow_a:.3g} A of {held:g} A",
                    f"{least:g} mm²" if least else "several wires",
                    fuse(flow_a),
                    f"{max(float(line.sag.volts[at]), 0):.2f} V",
                )
            )
    heads = ("from", "to line", "at address", "lead, plus and ground", "carries", "wire at least",
             "fuse", "volts there")  # fmt: skip
    return SheetTable(heads, tuple(rows), heads[4:])


def _part_at(layout: Layout, line: int, address: int) -> PartRow | None:
    for part in layout.parts:
        if part.line == line and part.kind != "copy" and part.first <= address <= part.last:
            return part
    return None


def line_tables(budget: Budget) -> list[tuple[LineBudget, str, SheetTable]]:
    """Each line, a few words on it, and its parts in wire order with their solder ends."""
    listed = list_parts(budget.loads.layout)
    found = []
    for line in budget.lines:
        rows, before = [], None
        for item in listed:
            part = item.row
            if part.line != line.number:
                continue
            fed = [str(at) for at, _ in line.leads if part.first <= at <= part.last]
            is_copy = part.kind == "copy"
            rows.append(
                (
                    part.name,
                    part.shape if part.kind == "lit" else "in parallel" if is_copy else "not seen",
                    str(part.leds.stop - part.leds.start or part.count),
                    addresses(part),
                    _solder(budget, line, part, before),
                    "" if is_copy else ", ".join(fed),
                    _place(item.start),
                    _place(item.end),
                    " ".join(filter(None, [item.direction, item.facing and f"({item.facing})"])),
                )
            )
            before = before if is_copy else part
        heads = ("part", "shape", "LEDs", "address", "data-in (DI) comes from", "power at",
                 "first LED x, y, z", "last LED", "runs (faces)")  # fmt: skip
        words = (
            f"{line.line.led}, {line.line.wire_order}; "
            f"{counted(line.addresses, 'address')}, {line.metres:.2f} m; at most "
            f"{in_amps(line.most_a)}, {max(line.sag.lowest_v, 0):.2f} V at LED "
            f"{line.sag.at}; {line.time_s * 1000:.3g} ms a frame"
        )
        if line.draw is not None:
            peak, mean = in_amps(line.draw.peak_a), in_amps(line.draw.mean_a)
            words += f"; on the tape {peak}, mean {mean}"
        if line.watts_a_metre is not None:
            words += f"; {line.watts_a_metre:.3g} W a metre"
        found.append((line, words, SheetTable(heads, tuple(rows), ("LEDs",))))
    return found


def _solder(budget: Budget, line: LineBudget, part: PartRow, before: PartRow | None) -> str:
    if part.kind == "copy":
        of = _part_at(budget.loads.layout, line.number, part.first)
        return f"the same wire as {of.name}" if of else "the same wire"
    if before is None:
        pin = f"pin {line.line.pin}" if line.line.pin else "the controller"
        return f"{pin}, through the level shifter" if line.shifter == "chip" else pin
    leds = budget.loads.layout.leds.position
    ends = (leds[before.leds], leds[part.leds])
    if not all(map(len, ends)):
        return f"DO of {before.name}"
    way = float(np.linalg.norm(ends[1][0] - ends[0][-1])) / 1000
    return f"DO of {before.name}, {way:.2f} m"


def _place(place: tuple[float, ...] | None) -> str:
    return "" if place is None else ", ".join(f"{value:.0f}" for value in place)


def data_table(budget: Budget) -> SheetTable:
    """Each controller: memory, logic, and the load of its link."""
    rows = []
    for each in budget.controllers:
        slowest = each.slowest
        said = each.controller
        link = said.link if said else None
        by = f"{link.baud} baud" if link and link.baud else "sACN" if link and link.network else ""
        rows.append(
            (
                each.name or "controller",
                (said.type or said.about if said else "") or "",
                f"{each.pixel_bytes:,}" + (f" of {each.ram:,}" if each.ram else ""),
                f"{each.logic_volts:g} V" if each.logic_volts else "",
                f"{slowest.line.name}: {slowest.rate_hz:.0f} frames/s" if slowest else "",
                f"{each.serial_bytes:,}",
                f"{each.lowest_baud}" if each.lowest_baud else "more than usual ports have",
                f"{each.universes}, {each.sacn_mbit:.2g} Mbit/s",
                f"{by}: {each.link_hz:.0f} frames/s, {each.load:.0%} used" if each.link_hz else "",
            )
        )
    rate = budget.loads.design.rate
    heads = ("controller", "type", "pixel bytes in RAM", "logic", "slowest line",
             "bytes a frame, serial", f"baud for {rate:g} frames/s", "sACN universes",
             "its link")  # fmt: skip
    return _without_empty(SheetTable(heads, tuple(rows)))


def pin_table(budget: Budget) -> SheetTable:
    """The use of each controller's pins: lines, inputs, and other uses."""
    design = budget.loads.design
    first = next(iter(design.controllers), "")
    rows: list[tuple[str, str, str]] = []
    for line in design.line:
        rows += [
            (line.controller or first, named, f"{what} of line '{line.name}'")
            for named, what in ((line.pin, "data"), (line.clock, "clock"))
            if named
        ]
    for name, signal in design.signals.items():
        pin = pin_of(signal)
        if pin is None:
            continue
        every = [each for each, _ in pin_names(pin)]
        kind = f", {pin.kind}" if pin.kind else ""
        rows.append((pin.controller or first, ", ".join(every), f"input '{name}'{kind}"))
    for board, said in design.controllers.items():
        for what, by_pins in said.uses.items():
            names = [by_pins] if isinstance(by_pins, str) else by_pins
            rows.append((board, ", ".join(names), f"in use: {what}"))
        for what, by in said.shared.items():
            rows.append((board, ", ".join(by), f"share {what}: one at a time"))
        wires = (("peers", said.peers), ("values", said.values), ("mavlink", said.mavlink))
        for what, wire in wires:
            if wire is not None:
                pins = ", ".join(filter(None, (wire.tx, wire.rx)))
                rows.append((board, pins, f"{what}, {wire.baud} baud"))
    rows.sort(key=lambda row: row[0])
    return _without_empty(SheetTable(("controller", "pin", "what is there"), tuple(rows)))


def led_table(budget: Budget) -> SheetTable:
    """The current of one chip, by data sheet and as measured."""
    rows = []
    types = {line.line.led: line.led for line in budget.lines}
    for name, led in types.items():
        sheet = _milliamps(led.sheet_ua, led)
        used = _milliamps(led.channel_ua, led)
        rows.append(
            (
                name,
                f"{led.volts:g} V, {led.least_volts:g} to {led.most_volts:g}",
                sheet,
                used if used != sheet else "",
                f"{led.idle_ua / 1000:g} mA",
                f"{led.white_a() * 1000:.3g} mA",
                f"{led.ohm_per_metre:g} ohm/m",
            )
        )
    heads = ("LED type", "fed with", "a channel at full, data sheet", "as measured", "dark",
             "a chip at full white", "strip copper, there and back")  # fmt: skip
    return _without_empty(SheetTable(heads, tuple(rows)))


def _milliamps(channel_ua: object, led: LedType) -> str:
    values = {letter: channel_ua[letter] / 1000 for letter in led.order}  # type: ignore[index]
    if len({*values.values()}) == 1:
        return f"{next(iter(values.values())):.3g} mA"
    return ", ".join(f"{letter} {value:.3g}" for letter, value in values.items()) + " mA"


def materials(budget: Budget) -> SheetTable:
    """The bill of materials: what, how much, and for what."""
    rows: list[tuple[str, str, str]] = []
    design = budget.loads.design
    for name in dict.fromkeys(line.line.led for line in budget.lines):
        lines = [line for line in budget.lines if line.line.led == name]
        leds = sum(line.leds for line in lines)
        metres = sum(line.metres for line in lines)
        about = lines[0].led.about
        rows.append((f"LEDs, {name}" + (f" ({about})" if about else ""),
                     counted(leds, "LED"), f"{metres:.2f} m"))  # fmt: skip
    for each in budget.controllers:
        kind = each.controller.type if each.controller else None
        rows.append((f"controller, {kind}" if kind else "controller", "1", each.name))
    shifted = [line for line in budget.lines if line.shifter == "chip"]
    if shifted:
        names = ", ".join(line.line.name for line in shifted)
        rows.append(("level shifter, a channel a line", str(len(shifted)), names))
    for supply in budget.supplies:
        said = design.supplies.get(supply.feeding.name)
        words = supply_in_words(supply.feeding)
        rows.append((f"supply, {words[0]}", "1", "; ".join([supply.feeding.name, *words[1:]])))
        if said is not None and said.converter is not None and supply.feeding.amps is None:
            rating = f"{supply.proposed_a:g} A" if supply.proposed_a else "several"
            rows.append((f"converter, {supply.feeding.volts:g} V, {rating}", "1",
                         "proposed, because its rating is unknown"))  # fmt: skip
        if said is not None and said.battery is not None:
            cells = f", {said.battery.cells} cells" if said.battery.cells else ""
            rows.append((f"battery, {said.battery.nominal_volts:g} V{cells}", "1",
                         f"{said.battery.ah:g} Ah"))  # fmt: skip
    fuses: Counter[str] = Counter(fuse(supply.peak_a) for supply in budget.supplies)
    fuses.update(fuse(flow_a) for line in budget.lines for flow_a in line.lead_a)
    fuses.update(fuse(each.battery_a) for each in budget.supplies if each.battery_a is not None)
    rows += [(f"fuse and holder, {rating}", str(count), "in plus, near the supply")
             for rating, count in sorted(fuses.items(), key=lambda item: float(item[0].split()[0])
                                         if item[0][0].isdigit() else 1e9)]  # fmt: skip
    wires: dict[str, float] = {}
    for line in budget.lines:
        for (_, wire), flow_a in zip(line.leads, line.lead_a, strict=True):
            # A wire that is too thin is not bought, so this is the needed size.
            least = wire_for(flow_a, wire.metres, line.feeding.volts) or 0.0
            size = f"{max(wire.area_mm2, least):.3g} mm²"
            wires[size] = wires.get(size, 0.0) + wire.metres
        if line.jumps_m > 0:
            size = f"{line.line.jump.area_mm2:.3g} mm²"
            wires[size] = wires.get(size, 0.0) + line.jumps_m
    for supply in budget.supplies:
        if supply.battery_wire_mm2:
            size = f"{supply.battery_wire_mm2:.3g} mm²"
            wires[size] = wires.get(size, 0.0) + Lead().metres
    rows += [(f"wire, {size}", f"{metres:.1f} m each", "red and black; leads and jumps")
             for size, metres in sorted(wires.items())]  # fmt: skip
    jumps = sum(line.jumps_m for line in budget.lines)
    how_much = f"{jumps:.1f} m, and what leads there" if jumps >= 0.05 else "what leads there"
    rows.append(("wire for data", how_much, "jumps, and from the controller"))
    leads = sum(len(line.leads) for line in budget.lines)
    rows.append(
        (f"resistor, {DATA_OHM} ohm", str(len(budget.lines)), "at each line's DI, by custom")
    )
    rows.append((f"capacitor, {BUFFER_UF} µF", str(leads), "where each lead ends, by custom"))
    return SheetTable(("what", "how much", "for"), tuple(rows))


def _without_empty(table: SheetTable) -> SheetTable:
    """Without empty columns."""
    kept = [i for i in range(len(table.heads)) if any(row[i] for row in table.rows)]
    return SheetTable(
        tuple(table.heads[i] for i in kept),
        tuple(tuple(row[i] for i in kept) for row in table.rows),
        table.right,
    )
