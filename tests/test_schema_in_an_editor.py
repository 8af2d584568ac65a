"""The schema in an editor: a TOML language server, which many editors run, completes a design."""

from __future__ import annotations

import json
import shutil
import subprocess
from pathlib import Path

import pytest

from fendra.schema import schema_text

SERVER = Path("web/node_modules/@taplo/lsp")
HEAD = "#:schema ./fendra.schema.json\n"


@pytest.fixture(scope="module")
def offers(need, tmp_path_factory):
    """What is offered at the | of each of some texts: from label to its words and what it inserts."""
    missing = [] if SERVER.exists() and shutil.which("node") else ["@taplo/lsp"]
    need(missing, "npm; then npm ci in web/")
    folder = tmp_path_factory.mktemp("designs")
    (folder / "fendra.schema.json").write_text(schema_text(), encoding="utf-8")

    def ask(*texts):
        places = []
        for text in texts:
            before = HEAD + text.partition("|")[0]
            last = before.rpartition("\n")[2]
            places.append(
                {
                    "text": HEAD + text.replace("|", ""),
                    "line": before.count("\n"),
                    "character": len(last),
                }
            )
        done = subprocess.run(
            ["node", "tests/language_server.mjs", folder], input=json.dumps(places),
            capture_output=True, text=True, check=True, timeout=120,
        )  # fmt: skip
        return [
            {each["label"]: (each["documentation"], each["inserts"]) for each in reversed(offered)}
            for offered in json.loads(done.stdout)
        ]

    return ask


@pytest.mark.slow
def test_a_language_server_completes_a_layer(offers):
    keys, effects, leds, drivers, options = offers(
        '[[layer]]\n|\non = "all"\neffect = "comet"\n',
        '[[layer]]\non = "all"\neffect = "|"\n',
        '[[line]]\nled = "|"\n',
        '[sources.bus]\ntype = "|"\n',
        '[sources.bus]\n|\ntype = "mqtt"\n',
    )
    assert {"name", "when", "blend", "fade_in", "tail", "rate", "colours"} <= {*keys}
    words, inserted = keys["tail"]
    assert "comet: its length, as a share of the way. 0.01 to 4, 0.4 by default" in words
    assert inserted == "tail = $0"  # the effects with a tail have other defaults
    assert keys["arcs"][1] == "arcs = ${0:2}"  # only spin has them
    words, _ = effects['"alternate"']
    assert words.startswith("Two halves light up in turn")
    assert leds['"sk6812-rgbw"'][0] == "5 V, one wire, fourth channel white"
    assert {'"mqtt"', '"udp"', '"can"'} <= {*drivers}
    assert options["keepalive"] == (
        "mqtt: time between signs of life, s. 10 by default", "keepalive = ${0:10}",
    )  # fmt: skip
