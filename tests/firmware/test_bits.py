"""The same light on controllers: byte for byte, and before quantising float bit for float bit."""

from __future__ import annotations

from functools import cache

import numpy as np
import pytest

import fendra as fd
from agreement import grids
from fendra.core.engines.c99.helpers import helpers
from fendra.core.engines.c99.text import Piece, operation, words
from fendra.core.graph.ops import OPS, Binds, Kind
from targets import (
    AVR,
    CORTEX,
    HERE,
    RISCV_PACKAGES,
    assert_same,
    build,
    frames_of,
    missing,
    on_computer,
    on_cortex,
    on_riscv,
)


@pytest.mark.parametrize("name", ["heron", "drone"])
@pytest.mark.parametrize("processor", CORTEX)
def test_a_cortex_m_gives_the_bits_of_the_film(arm, demo_frames, tmp_path, processor, name):
    assert_same(on_cortex(processor, demo_frames[name], tmp_path), demo_frames[name])


@pytest.mark.parametrize("name", ["heron", "drone"])
def test_a_risc_v_gives_the_bits_of_the_film(need, demo_frames, tmp_path, name):
    """As an ESP32-C3 has it: 32 bits, no unit for floats."""
    need(missing("riscv64-unknown-elf-gcc", "qemu-system-riscv32"), RISCV_PACKAGES)
    assert_same(on_riscv(demo_frames[name], tmp_path), demo_frames[name])


def test_an_8_bit_part_gives_the_bits_of_the_film(avr, tmp_path):
    drone = fd.load(fd.demo_file("drone.toml")).model_copy(update={"rate": 20.0})
    frames = frames_of(drone, fd.read_tape(fd.demo_file("flight.csv")))
    assert_same(avr.film(frames, tmp_path, light=True).frames, frames)


def test_so_it_does_with_the_trike(avr, tmp_path):
    """Its whole ride, with fewer frames a second: it takes a minute of an emulated controller."""
    heron = fd.load(fd.demo_file("heron.toml")).model_copy(update={"rate": 5.0})
    ride = fd.read_tape(fd.demo_file("ride.csv"))
    frames = frames_of(heron, ride)
    assert_same(avr.film(frames, tmp_path).frames, frames)
    some = frames_of(heron, ride, most=100)
    assert_same(avr.film(some, tmp_path, light=True).frames, some)


@pytest.mark.parametrize("level", ["-O1", "-O2", "-O3"])
def test_however_it_is_optimised(avr, tmp_path, level):
    """Compilers have erred here: tables in flash were once read from memory."""
    drone, flight = fd.load(fd.demo_file("drone.toml")), fd.read_tape(fd.demo_file("flight.csv"))
    frames = frames_of(drone, flight, most=400)
    assert_same(avr.film(frames, tmp_path, [level]).frames, frames)


@cache
def ride_within(budget):
    """The trike's ride where its limiter keeps so many amperes: all of it, or forty seconds."""
    heron, ride = fd.load(fd.demo_file("heron.toml")), fd.read_tape(fd.demo_file("ride.csv"))
    deck = heron.supplies["deck"].model_copy(update={"budget": budget})
    most = None if budget > 4 else 2000
    return frames_of(heron.model_copy(update={"supplies": {"deck": deck}}), ride, most)


@pytest.mark.parametrize(
    ("at_once", "budget"), [(None, 4.8), (None, 1.2), (16, 4.8), (1, 1.2)]
)  # fmt: skip
def test_the_sanitisers_find_nothing_on_the_ride(compiler, tmp_path, at_once, budget):
    """Out of bounds, undefined shifts and conversions, divisions by 0: none; painted whole and in
    pieces, as a controller with little memory does; held back by the limiter, and not."""
    frames = ride_within(budget)
    assert_same(on_computer(compiler, frames, tmp_path, at_once=at_once), frames)


@pytest.mark.parametrize(
    ("name", "tape"),
    [("drone", "flight"), ("pad", "typing"), ("cabinet", "game"), ("bare", "lever")],
)
def test_the_sanitisers_find_nothing_on_the_other_tapes(compiler, tmp_path, name, tape):
    frames = frames_of(
        fd.load(fd.demo_file(f"{name}.toml")), fd.read_tape(fd.demo_file(f"{tape}.csv"))
    )
    assert_same(on_computer(compiler, frames, tmp_path), frames)


ROWS = """
#include <math.h>
#include <stdbool.h>
#include <stdint.h>
#include <string.h>
#define ON_ITS_OWN __attribute__((noinline))
struct rows {{ uint8_t nothing; }};
struct rows_signals {{ uint8_t row, a[3][4]; }};
{helpers}
void rows_init(struct rows *state) {{ state->nothing = 0; }}
void rows_step(struct rows *state, const struct rows_signals *given, uint32_t now_ms,
    uint8_t bytes[4])
{{
    float f[3];
    uint32_t u[3];
    bool t[3];
    union {{ float f; uint32_t u; }} found = {{0}};
    memcpy(f, given->a, sizeof f);
    memcpy(u, given->a, sizeof u);
    for (int i = 0; i < 3; i++) t[i] = u[i] != 0;
    switch (given->row) {{
{cases}
    }}
    memcpy(bytes, &found, 4);
}}
"""
LETTERS = {Kind.FLOAT: "f", Kind.UINT: "u", Kind.TRUTH: "t"}


def row_text(number, name):
    op = OPS[name]
    args = [Piece(f"{LETTERS[kind]}[{i}]", Binds.ATOM) for i, kind in enumerate(op.takes)]
    text = "quotient(f[0], f[1])" if name == "div" else operation(name, args).text
    return f"    case {number}: found.{'f' if op.gives is Kind.FLOAT else 'u'} = {text}; break;"


@pytest.fixture(scope="module")
def rows(avr, tmp_path_factory):
    """Runs a row of the operation table on the 8-bit part."""
    folder = tmp_path_factory.mktemp("rows")
    cases = "\n".join(row_text(number, name) for number, name in enumerate(OPS))
    small = "\n".join(helpers(words(cases), "int", None))
    (folder / "rows.c").write_text(ROWS.format(helpers=small, cases=cases))
    program = folder / "rows.elf"
    build([*AVR, "-std=gnu99", "-w", "-ffp-contract=off", "-DPROGRAM=rows", '-DPROGRAM_C="rows.c"',
           "-DBYTES=4", f"-I{folder}", HERE / "replay_avr.c", "-o", program, "-lm"])  # fmt: skip

    def run(name, args):
        given = np.zeros(len(args[0]), [("now_ms", "<u4"), ("row", "u1"), ("a", "<u4", (3,))])
        given["row"] = [*OPS].index(name)
        for i, values in enumerate(args):
            given["a"][:, i] = values if values.dtype == bool else values.view(np.uint32)
        out, _ = avr.run(program, given.tobytes(), (13, 4))
        return np.frombuffer(out, [("cycles", "<u4"), ("found", "<u4")])["found"]

    return run


def assert_row(rows, name, args):
    op = OPS[name]
    expected = np.empty(len(args[0]), op.gives.dtype)
    with np.errstate(all="ignore"):
        op.array(*args, expected)
    got = rows(name, args)
    if op.gives is not Kind.FLOAT:
        assert (got == expected).all()
        return
    is_number = ~np.isnan(expected)
    assert (np.isnan(got.view(np.float32)) == ~is_number).all()
    assert (got == expected.view(np.uint32))[is_number].all()


@pytest.mark.parametrize("name", OPS)
def test_every_operation_is_exact_on_8_bits(rows, name):
    args = grids(name)
    some = np.random.default_rng(3).permutation(len(args[0]))[:4000]
    assert_row(rows, name, [values[some] for values in args])


def floats(random, low, high, count):
    """Random floats with exponents of this range; half of them with few bits, where ties are."""
    exponents = random.integers(low, high, count).astype(np.uint32)
    bits = random.integers(0, 2**23, count).astype(np.uint32)
    bits = np.where(random.random(count) < 0.5, bits & np.uint32(0x7FF000), bits)
    signs = random.integers(0, 2, count).astype(np.uint32)
    return (signs << 31 | exponents << 23 | bits).astype(np.uint32).view(np.float32)


@pytest.mark.parametrize(
    ("name", "first", "second"),
    [
        ("add", (0, 255), (0, 255)), ("sub", (0, 30), (0, 30)), ("mul", (100, 155), (100, 155)),
        ("mul", (30, 64), (30, 64)), ("div", (100, 155), (100, 155)), ("div", (0, 30), (1, 30)),
        ("div", (30, 64), (158, 190)), ("div", (1, 64), (100, 190)),
    ],
)  # fmt: skip
def test_so_is_arithmetic_on_floats_of_every_size(rows, name, first, second):
    """With results below the smallest normal float, of which avr-libc's own division misses 15 in a
    thousand: `quotient` does not."""
    random = np.random.default_rng(5)
    assert_row(rows, name, [floats(random, *first, 8000), floats(random, *second, 8000)])
