"""Whole firmware of an RP2040 in an emulator of the chip (rp2040js, which web/ installs)."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path

from fendra.firmware.write import write_project
from targets import HERE, make

MODULE = Path("web/node_modules/rp2040js")


def uf2_of(project, folder):
    """A project, written and built."""
    write_project(project.files, folder)
    assert make(folder).stderr == ""
    return folder / f"{project.name}.uf2"


def outs_of(project):
    """Its one-wire lines: pins and bytes."""
    rows = {
        what.split()[1].rstrip(":"): pin for pin, what in project.pins if what.startswith("line")
    }
    return [
        {"pin": int(rows[line.line].removeprefix("GP")), "size": line.size}
        for line in project.emitted.lines
        if line.line in rows
    ]


def emulate(*boards, seconds, wires=(), cuts=()):
    """What boards do for so long: see emulate_rp2040.mjs."""
    job = {"seconds": seconds, "boards": boards, "wires": wires, "cuts": cuts}
    done = subprocess.run(
        ["node", HERE / "emulate_rp2040.mjs"],
        input=json.dumps(job), capture_output=True, text=True, timeout=900, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stderr[-2000:]
    return json.loads(done.stdout)
