"""The schema in an editor: two TOML language servers, which many editors run, complete designs."""

from __future__ import annotations

import json
import shutil
import subprocess
import sys
import time
from collections import Counter
from pathlib import Path

import pytest

from fendra.demo import copy_files
from fendra.schema import schema_text

TAPLO = Path("web/node_modules/@taplo/lsp")
TOMBI = Path(sys.executable).with_name("tombi")
if not TOMBI.exists() and sys.platform == "win32":
    pytest.skip("no tombi here", allow_module_level=True)
HEAD = "#:schema ./fendra.schema.json\n"
PATIENCE_S = 20.0


@pytest.fixture(scope="module")
def folder(tmp_path_factory):
    """A folder with the schema and the demo's files, each of which names it."""
    made = tmp_path_factory.mktemp("designs")
    (made / "fendra.schema.json").write_text(schema_text(), encoding="utf-8")
    for path in copy_files(made):
        if path.suffix == ".toml" and path.name != "rally.toml":
            path.write_text(HEAD + path.read_text(encoding="utf-8"), encoding="utf-8")
    return made


@pytest.fixture(scope="module", params=["taplo", "tombi"])
def offers(request, need, folder):
    """What is offered at the | of each of some texts: from label to its words and what it inserts.
    Nothing may be offered twice.
    """
    if request.param == "taplo":
        missing = [] if TAPLO.exists() and shutil.which("node") else ["@taplo/lsp"]
        need(missing, "npm; then npm ci in web/")
        ask = ask_taplo
    else:
        ask = ask_tombi

    def each_once(*texts):
        found = ask(folder, [(HEAD + text.replace("|", ""), place(text)) for text in texts])
        for text, offered in zip(texts, found, strict=True):
            twice = [label for label, n in Counter(each[0] for each in offered).items() if n > 1]
            assert not twice, f"at the | of {text!r}"
        return [{label: words for label, *words in offered} for offered in found]

    each_once.editor = request.param
    return each_once


def place(text):
    """The | of a text below the head, as a language server counts: line and character."""
    before = HEAD + text.partition("|")[0]
    return {"line": before.count("\n"), "character": len(before.rpartition("\n")[2])}


def ask_taplo(folder, texts):
    """Label, words and inserted text of each offer, for each text with its place."""
    done = subprocess.run(
        ["node", "tests/language_server.mjs", folder],
        input=json.dumps([{"text": text, **where} for text, where in texts]),
        capture_output=True, text=True, check=True, timeout=120,
    )  # fmt: skip
    return [
        [(each["label"], each["documentation"], each["inserts"]) for each in offered]
        for offered in json.loads(done.stdout)
    ]


def ask_tombi(folder, texts):
    """The same from the other server."""
    with subprocess.Popen(
        [TOMBI, "lsp", "--offline"], stdin=subprocess.PIPE, stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
    ) as server:  # fmt: skip
        said = 0

        def write(**message):
            body = json.dumps({"jsonrpc": "2.0", **message}).encode()
            server.stdin.write(b"Content-Length: %d\r\n\r\n%s" % (len(body), body))
            server.stdin.flush()

        def ask(method, **params):
            nonlocal said
            said += 1
            write(id=said, method=method, params=params)
            while True:
                head = b"".join(iter(server.stdout.readline, b"\r\n"))
                message = json.loads(server.stdout.read(int(head.split()[1])))
                if message.get("id") == said and "method" not in message:
                    return message["result"]
                if "id" in message:
                    write(id=message["id"], result=None)

        ask("initialize", processId=None, rootUri=folder.as_uri(), capabilities={
            "textDocument": {"completion": {"completionItem": {"snippetSupport": True}}}
        })  # fmt: skip
        write(method="initialized", params={})
        found = []
        for number, (text, where) in enumerate(texts):
            document = {"uri": (folder / f"open-{number}.toml").as_uri()}
            opened = {**document, "languageId": "toml", "version": 1, "text": text}
            write(method="textDocument/didOpen", params={"textDocument": opened})
            offered, end_s = None, time.monotonic() + PATIENCE_S
            while not offered and time.monotonic() < end_s:  # it reads the text meanwhile
                offered = ask("textDocument/completion", textDocument=document, position=where)
            found.append([
                (each["label"], each["documentation"]["value"], each["textEdit"]["newText"])
                for each in (offered["items"] if isinstance(offered, dict) else offered or [])
            ])  # fmt: skip
        server.kill()
    return found


@pytest.mark.slow
def test_a_language_server_completes_a_layer(offers):
    fresh, keys, effects = offers(
        '[[layer]]\nname = "one"\n|\n',
        '[[layer]]\n|\non = "all"\neffect = "comet"\n',
        '[[layer]]\non = "all"\neffect = "|"\n',
    )
    assert {"on", "effect", "level", "colour"} <= {*fresh}
    assert fresh["effect"][0].startswith("what it shows\n\n- `alternate`: Two halves light up in")
    assert {"name", "when", "blend", "fade_in", "tail", "rate", "colours"} <= {*keys}
    assert "comet: its length, as a share of the way. 0.01 to 4, 0.4 by default" in keys["tail"][0]
    assert "`alternate`: Two halves light up in turn" in effects['"alternate"'][0] or (
        effects['"alternate"'][0].startswith("Two halves light up in turn")
    )


@pytest.mark.slow
def test_a_language_server_completes_the_other_tables(offers):
    design, line, leds, supply, signal, drivers, options, chips = offers(
        "|\n",
        "[[line]]\n|\n",
        '[[line]]\nled = "|"\n',
        "[supplies.deck]\n|\n",
        "[signals.brake]\n|\n",
        '[sources.bus]\ntype = "|"\n',
        '[sources.bus]\n|\ntype = "mqtt"\n',
        '[controllers.main]\ntype = "|"\n',
    )
    assert {"name", "level", "line", "layer", "signals"} <= {*design}
    assert "master level" in design["level"][0]
    assert {"name", "pin", "led", "supply", "part"} <= {*line}
    assert "5 V, one wire, fourth channel white" in leds['"sk6812-rgbw"'][0]
    assert {"volts", "amps", "usb", "battery", "converter"} <= {*supply}
    assert "time constant, s" in signal["smooth"][0]
    assert {'"mqtt"', '"udp"', '"can"'} <= {*drivers}
    assert "mqtt: time between signs of life, s. 10 by default" in options["keepalive"][0]
    assert "8 bit, 16 MHz, 2 KB RAM, 32 KB flash" in chips['"atmega328p"'][0]


@pytest.mark.slow
def test_a_language_server_completes_a_part(offers):
    if offers.editor == "taplo":
        pytest.skip("taplo 0.8.0 stops in a list of tables inside of another one, with any schema")
    keys, facings = offers(
        '[[line]]\n[[line.part]]\n|\nshape = "ring"\n',
        '[[line]]\n[[line.part]]\nshape = "ring"\nfacing = "|"\n',
    )
    assert {"name", "count", "radius", "facing"} <= {*keys}
    assert {'"front"', '"out"'} <= {*facings}


@pytest.mark.slow
def test_what_a_default_is_inserts_it(offers):
    if offers.editor == "tombi":
        pytest.skip("tombi shows defaults, and inserts none")
    (layer, options) = offers(
        '[[layer]]\n|\non = "all"\neffect = "comet"\n', '[sources.bus]\n|\ntype = "mqtt"\n'
    )
    assert layer["tail"][1] == "tail = $0"  # the effects with a tail have other defaults
    assert layer["arcs"][1] == "arcs = ${0:2}"  # only spin has them
    assert options["keepalive"][1] == "keepalive = ${0:10}"


@pytest.mark.slow
def test_a_strict_editor_complains_of_no_shipped_design(folder):
    paths = sorted({*folder.glob("[a-z]*.toml")} - {folder / "rally.toml"})
    assert len(paths) >= 8
    assert lint(*paths) == f"{len(paths)} files linted successfully"
    wrong = folder / "wrong.toml"
    wrong.write_text(f'{HEAD}[[line]]\nname = "a"\nledd = "ws2811"\n', encoding="utf-8")
    assert "ledd" in lint(wrong)
    wrong.unlink()


def lint(*paths):
    """What the editor's checks say of some designs."""
    words = [TOMBI, "lint", "--offline", *paths]
    done = subprocess.run(words, capture_output=True, text=True, check=False)
    return f"{done.stdout}{done.stderr}".strip()
