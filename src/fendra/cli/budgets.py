"""Budgets on the screen and as plain values: supplies, lines and controllers in a few rows."""

from __future__ import annotations

from dataclasses import asdict
from typing import TYPE_CHECKING, Any

from fendra.cli.screen import say, say_columns
from fendra.core.electric.words import in_amps
from fendra.core.names import listed

if TYPE_CHECKING:
    from fendra.core.electric.budget import Budget
    from fendra.core.electric.controller_budget import ControllerBudget
    from fendra.core.electric.line_budget import LineBudget
    from fendra.core.electric.supply_budget import SupplyBudget

RIGHT = (
    "gives", "limiter", "dark", "full white", "mean", "LEDs", "at most", "frame",
    "frames/s", "RAM", "pixels", "link",
)  # fmt: skip


def say_budget(budget: Budget) -> None:
    """A short table each of supplies, lines and controllers."""
    from fendra.core.electric.supply_budget import peak_in_words

    supplies = [each for each in budget.supplies if each.full_a > 0]
    _say([_supply(budget, each) for each in supplies])
    for each in supplies:
        if each.part_of_full:
            say(f"{each.feeding.in_words}: {each.part_of_full}")
        if each.draw is not None:
            say(peak_in_words(each))
    _say([_line(each) for each in budget.lines if not each.line.led_type.has_own_device])
    own = [f"'{each.line.name}'" for each in budget.lines if each.line.led_type.has_own_device]
    if own:
        say(f"Lamps of devices of their own, in no sum: {listed(own)}.")
    _say([_controller(each) for each in budget.controllers if each.controller is not None])
    if budget.slowest is not None:
        name, rate_hz = budget.slowest
        say(f"The slowest is {name}: at most {rate_hz:.4g} frames a second.")
    say()


def _say(rows: list[dict[str, str]]) -> None:
    """Rows with the same heads; empty columns are left out."""
    heads = [head for head in (rows[0] if rows else {}) if any(row[head] != "-" for row in rows)]
    if heads:
        say()
        say_columns(heads, [[row[head] for head in heads] for row in rows], right=RIGHT)


def _supply(budget: Budget, each: SupplyBudget) -> dict[str, str]:
    feeding = each.feeding
    names = [budget.loads.design.line[number].name for number in feeding.lines]
    draw = each.draw
    return {
        "supply": feeding.name or "(none)",
        "feeds": ", ".join(names),
        "gives": f"{feeding.volts:g} V {in_amps(feeding.amps)}" if feeding.amps else "-",
        "limiter": in_amps(feeding.budget_a),
        "dark": in_amps(each.idle_a),
        "full white": in_amps(each.white_a),
        "peak": f"{in_amps(draw.peak_a)} at {draw.at_s:.4g} s" if draw else "-",
        "mean": in_amps(draw.mean_a) if draw else "-",
        "battery": f"{each.hours:.3g} h" if each.hours else "-",
    }


def _line(each: LineBudget) -> dict[str, str]:
    worst = each.worst
    return {
        "line": each.line.name,
        "LEDs": str(each.addresses),
        "at most": in_amps(each.most_a),
        "lowest voltage": f"{max(each.sag.lowest_v, 0):.2f} V at LED {each.sag.at}",
        "on the tape": f"{worst.lowest_v:.2f} V at {worst.at_s:.4g} s" if worst else "-",
        "frame": f"{each.time_s * 1000:.3g} ms",
        "frames/s": f"{each.rate_hz:.0f}",
    }


def _controller(each: ControllerBudget) -> dict[str, str]:
    return {
        "controller": each.name,
        "RAM": f"{each.ram:,} bytes" if each.ram else "-",
        "pixels": f"{each.pixel_bytes:,} bytes",
        "link": f"{each.link_hz:.0f} frames/s, {each.load:.0%} used" if each.link_hz else "-",
    }


def budget_to_plain(budget: Budget) -> dict[str, Any]:
    """All figures, for JSON: amperes, volts, seconds, bytes, hours."""
    return {
        "level": budget.level,
        "idle_a": budget.idle_a,
        "white_a": budget.white_a,
        "full_a": budget.full_a,
        "most_a": budget.most_a,
        "watts": budget.watts,
        "slowest": budget.slowest and {"name": budget.slowest[0], "rate_hz": budget.slowest[1]},
        "tape": asdict(budget.draw) if budget.draw else None,
        "supplies": [
            {
                "name": each.feeding.name,
                "lines": [budget.loads.design.line[i].name for i in each.feeding.lines],
                "volts": each.feeding.volts,
                "amps": each.feeding.amps,
                "budget_a": each.feeding.budget_a,
                "share_of_full": each.share_of_full,
                "bears_leds": each.bears_leds,
                "idle_a": each.idle_a,
                "white_a": each.white_a,
                "full_a": each.full_a,
                "most_a": each.most_a,
                "headroom": each.headroom,
                "watts": each.watts,
                "fuse_a": each.fuse_a,
                "wire_mm2": each.wire_mm2,
                "hours": each.hours,
                "battery_a": each.battery_a,
                "battery_fuse_a": each.battery_fuse_a,
                "battery_wire_mm2": each.battery_wire_mm2,
                "tape": asdict(each.draw) if each.draw else None,
            }
            for each in budget.supplies
        ],
        "lines": [
            {
                "name": each.line.name,
                "addresses": each.addresses,
                "leds": each.leds,
                "metres": each.metres,
                "idle_a": each.idle_a,
                "white_a": each.white_a,
                "full_a": each.full_a,
                "most_a": each.most_a,
                "watts_a_metre": each.watts_a_metre,
                "lowest_v": each.sag.lowest_v,
                "lowest_at": each.sag.at,
                "first_low": each.sag.first_low,
                "extra_feeds": None if each.extra is None else [*each.extra],
                "tape": asdict(each.draw) if each.draw else None,
                "tape_lowest_v": each.worst.lowest_v if each.worst else None,
                "time_s": each.time_s,
                "rate_hz": each.rate_hz,
            }
            for each in budget.lines
        ],
        "controllers": [
            {
                "name": each.name,
                "lines": [line.line.name for line in each.lines],
                "ram": each.ram,
                "pixel_bytes": each.pixel_bytes,
                "logic_volts": each.logic_volts,
                "serial_bytes": each.serial_bytes,
                "lowest_baud": each.lowest_baud,
                "universes": each.universes,
                "sacn_mbit": each.sacn_mbit,
                "link_hz": each.link_hz,
                "load": each.load,
            }
            for each in budget.controllers
        ],
    }
