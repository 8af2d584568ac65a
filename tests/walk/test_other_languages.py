"""The C and the JavaScript that the docs show give the frames of the preview."""

from __future__ import annotations

import json
import shutil
import subprocess

import fendra as fd
from fendra.core.engines.wasm.emit import emit_wasm
from shown import ROOT, blocks

HERON = fd.load(fd.demo_file("heron.toml"))


def block_of(page, language):
    (block,) = blocks(language, [ROOT / "docs" / page])
    return block.text


def test_the_c_of_the_page_sends_what_the_preview_shows(compiler, tmp_path):
    """Three frames, 20 ms apart; the brake comes with each. The size in its comment is right."""
    text = block_of("emitted-c.md", "c")
    head, loop = text.split("\n\nheron_init")
    loop = f"heron_init{loop}".replace("for (;;)", "for (int i = 0; i < 3; i++)")
    (tmp_path / "main.c").write_text(
        f"""{head}
#include <stdio.h>
static float read_brake(void) {{ return 0.4f; }}
static uint32_t millis(void) {{ static uint32_t now = 0; return now += 20; }}
static void send(const uint8_t *from, int count) {{ fwrite(from, 1, (size_t)count, stdout); }}
int main(void) {{ {loop} fprintf(stderr, "%zu", sizeof heron); return 0; }}
""",
        encoding="utf-8",
    )
    emitted = HERON.emit()
    (tmp_path / "heron.h").write_text(emitted.header, encoding="utf-8")
    (tmp_path / "heron.c").write_text(emitted.source, encoding="utf-8")
    flags = ["-std=c99", "-O1", "-ffp-contract=off", "main.c", "heron.c", "-lm", "-o", "main"]
    subprocess.run([*compiler.command, *flags], cwd=tmp_path, check=True)
    done = subprocess.run([tmp_path / "main"], capture_output=True, check=True)
    program = HERON.compile("numpy")
    frames = [program.frame(brake=0.4, at=at) for at in (0.02, 0.04, 0.06)]
    assert done.stdout == b"".join(frame.line_bytes()[2] for frame in frames)  # the third line
    assert f"the memory: {int(done.stderr)} bytes for Heron" in text


def test_the_javascript_of_the_page_makes_the_frame_of_the_preview(need, tmp_path):
    need([] if shutil.which("node") else ["node"], "nodejs")
    program = HERON.compile("numpy")
    made = emit_wasm(program.plan)
    (tmp_path / "heron.wasm").write_bytes(made.module)
    (tmp_path / "places.json").write_text(json.dumps(made.places), encoding="utf-8")
    (tmp_path / "main.mjs").write_text(
        f"""import {{ readFileSync }} from "node:fs";
const bytes = readFileSync("heron.wasm");
const places = JSON.parse(readFileSync("places.json", "utf-8"));
{block_of("wasm.md", "js")}
process.stdout.write(rgb);
""",
        encoding="utf-8",
    )
    done = subprocess.run(["node", "main.mjs"], cwd=tmp_path, capture_output=True, check=True)
    assert done.stdout == program.frame(brake=0.4, at=0.02).rgb.tobytes()
