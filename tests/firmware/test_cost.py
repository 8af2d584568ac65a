"""What firmware costs: told before flashing, and held to what compilers and emulators measure."""

from __future__ import annotations

import pytest

import fendra as fd
from fendra.core.catalogue.controllers import CONTROLLERS
from fendra.core.engines.c99.cost import CORES, KINDS, cost_of
from fendra.core.graph.ops import OPS
from fendra.firmware.write import write_project
from helpers import design, layer, strip
from targets import AVR_HZ, film_of, frames_of, make, project_of, size_of

AVR = CONTROLLERS["atmega328p"]


@pytest.mark.parametrize("name", ["swift", "drone", "heron"])
def test_estimates_are_near_what_the_8_bit_part_needs(avr, tmp_path, name):
    """Flash and memory of the whole project, the stack that is really touched, the cycles of every
    frame of the tape as far as it is emulated here."""
    project = project_of(name, "avr")
    write_project(project.files, tmp_path)
    make(tmp_path)
    flash, memory = size_of("avr-size", tmp_path / f"{project.name}.elf")
    told = project.told
    assert told.cost.flash == pytest.approx(flash, rel=0.2)
    assert told.cost.memory == pytest.approx(memory, rel=0.1)
    _, film = film_of(name)
    design, most = film.design.model_copy(update={"rate": 10.0}), 110  # with a change of scenes
    frames = frames_of(design, film.tape, most)
    on_avr = avr.film(frames, tmp_path)
    assert on_avr.stack <= told.cost.stack <= 1.3 * on_avr.stack
    some = film.tape.until(film.tape.start_s + (most - 1) / design.rate)
    first = design.firmware("avr", film=design.compile().film(some))
    assert first.told.on_tape[0] == pytest.approx(on_avr.cycles.mean(), rel=0.25)
    assert on_avr.cycles.max() < 1.25 * told.cost.work


def test_the_small_drone_is_within_what_an_atmega328p_is_asked_for(avr, tmp_path):
    """40 LEDs: below 16 KB of flash, below 1 KB of RAM with its stack, 60 frames a second and more
    with the time that its lines take."""
    project = project_of("swift", "avr")
    write_project(project.files, tmp_path)
    make(tmp_path)
    flash, memory = size_of("avr-size", tmp_path / "swift.elf")
    _, film = film_of("swift")
    on_avr = avr.film(frames_of(film.design, film.tape), tmp_path)
    lines_s = sum(line.size for line in project.emitted.lines) * 8 * 21 / AVR_HZ
    slowest_hz = 1 / (on_avr.cycles.max() / AVR_HZ + lines_s)
    assert flash < 16_384
    assert memory + on_avr.stack < 1024
    assert slowest_hz > 60


@pytest.mark.parametrize("name", ["swift", "drone", "heron"])
def test_estimates_are_near_what_a_cortex_m_needs(arm, tmp_path, name):
    project = project_of(name, "arm")
    write_project(project.files, tmp_path)
    make(tmp_path)
    flash, memory = size_of("arm-none-eabi-size", tmp_path / f"{project.name}.elf")
    assert project.told.cost.flash == pytest.approx(flash, rel=0.2)
    assert project.told.cost.memory == pytest.approx(memory, rel=0.15)


@pytest.mark.parametrize("name", ["swift", "drone", "heron"])
@pytest.mark.parametrize("chip", ["atmega2560", "stm32f103", "stm32f405", "rp2040"])
def test_what_is_told_is_never_too_little(avr, arm, tmp_path, chip, name):
    """Flash and RAM, and at the most an eighth more than is needed. A program that runs from RAM counts
    there."""
    project = project_of(name, chip)
    write_project(project.files, tmp_path)
    make(tmp_path)
    tool = "avr-size" if chip.startswith("at") else "arm-none-eabi-size"
    flash, memory = size_of(tool, tmp_path / f"{project.name}.elf")
    memory += flash if chip == "rp2040" else 0
    assert flash <= project.told.cost.flash <= 1.125 * flash
    assert memory <= project.told.cost.memory <= 1.125 * memory


def test_every_operation_has_its_cost_on_every_processor():
    named = [name for names in KINDS.values() for name in names]
    assert {*OPS} <= {*named}
    assert len(named) == len({*named})
    for core in CORES.values():
        assert {*KINDS} <= core.code.keys() & core.work.keys()


def count_of(*layers, **more):
    return design(*layers, **more).emit().count


def test_a_layer_more_costs_flash_and_time_and_its_time_grows_with_its_leds():
    one = cost_of(count_of(layer("sweep"), count=20), AVR)
    two = cost_of(count_of(layer("sweep"), layer("comet"), count=20), AVR)
    long = cost_of(count_of(layer("sweep"), layer("comet"), count=60), AVR)
    assert one.flash < two.flash
    assert one.work < two.work
    assert two.work_of([0]) + two.layers[1][1] == pytest.approx(two.work, abs=2)
    assert 2.4 < long.layers[1][1] / two.layers[1][1] < 3.2
    assert long.rate_hz < two.rate_hz < one.rate_hz


def test_of_scenes_no_more_than_two_are_there_at_a_time():
    """They cross-fade from one to the next, so that a third and a fourth cost a condition each."""

    def work(number):
        scenes = [{"name": f"s{i}", "when": f"s > {i}"} for i in range(1, number)] + [
            {"name": "rest"}
        ]
        layers = [layer("cloud", scene=scene["name"]) for scene in scenes]
        made = count_of(*layers, count=20, scene=scenes, signals={"s": {"range": [0, 9]}})
        return cost_of(made, AVR).work

    assert 1.7 * work(1) < work(2)
    assert work(4) < 1.2 * work(2)


def test_while_8_bit_data_is_sent_nothing_is_made_and_with_dma_both_go_on():
    count = count_of(layer("sweep"), count=100)
    avr, arm = (cost_of(count, CONTROLLERS[name]) for name in ("atmega328p", "stm32f103"))
    assert avr.rate_hz == pytest.approx(1 / (avr.work / 16e6 + 300 * 8 * 21 / 16e6))
    assert arm.rate_hz == pytest.approx(1 / max(arm.work / 72e6, 300 * 8 * 1.25e-6))


def test_of_a_processor_of_which_nothing_is_known_nothing_is_told():
    assert cost_of(count_of(layer()), CONTROLLERS["esp8266"]) is None


def findings(values):
    report = fd.Design.from_values(values).examined.report
    worst = sorted(report, key=lambda finding: ["error", "warning", "note"].index(finding.severity))
    return {finding.code: finding for finding in reversed(worst)}


def on_atmega(leds, *layers, rate=50.0):
    return {
        "name": "x", "rate": rate, "controllers": {"main": {"type": "atmega328p"}},
        "line": [{"name": "a", "pin": "D6", "part": [strip("bar", leds)]}],
        "signals": {"dial": {"pin": "A0"}},
        "layer": [*layers, layer("solid", level="dial", blend="add")],
    }  # fmt: skip


def test_what_a_controller_runs_by_itself_is_told_with_what_costs_most():
    found = findings(on_atmega(20, {**layer("sweep"), "name": "look out"}))
    assert "firmware-slow" not in found
    assert "bytes of flash of 32,256" in found["firmware"].message
    assert "'look out'" in found["firmware"].message


def test_what_is_too_slow_or_does_not_fit_is_a_finding():
    slow = findings(on_atmega(120, *[{**layer("cloud"), "name": "mist"}]))
    assert "frames a second with everything on; the design asks for 50" in (
        slow["firmware-slow"].message
    )
    assert "'mist'" in slow["firmware-slow"].message
    effects = ["flicker", "cloud", "glint", "ripple", "push", "comet", "sweep", "beam"]
    many = [{**layer(effect), "name": f"{effect} {i}"} for i in range(6) for effect in effects]
    large = findings(on_atmega(20, *many))
    assert "bytes of flash; the atmega328p has 32,256" in large["too-little-flash"].message
    assert large["too-little-flash"].severity == "error"
    assert findings(on_atmega(600))["too-little-memory"].severity == "warning"  # with its stack
    assert findings(on_atmega(680))["too-little-memory"].severity == "error"


def test_a_design_that_only_streams_is_told_nothing_of_firmware():
    values = on_atmega(20)
    values["signals"] = {"dial": {}}
    assert not {code for code in findings(values) if code.startswith("firmware")}
