"""One set of hostile texts in every text key of a design, and a look into all that comes out."""

from __future__ import annotations

import copy
import json
import re
import shutil
import subprocess
import sys
import tomllib
from html.parser import HTMLParser
from xml.etree import ElementTree

import pytest

import fendra as fd
from fendra.cli import app
from fendra.core.errors import DesignError
from fendra.core.quoting import in_lines, visible
from fendra.core.toml_text import value_text
from helpers import tape

EVIL = "InJected"  # neither a name of C nor a macro that is made of a name
HOSTILE = {
    "a comment's end": f"*/ {EVIL} /*",
    "a directive": f"\\\n#include <{EVIL}>\n",
    "a string's end": f'"); {EVIL}(("',
    "a trigraph": f"??/\n??=include {EVIL}\n*??/\n/ {EVIL}",
    "make": f"$(shell touch pwned){EVIL}$(eval x:=1)",
    "a rule": f"\n{EVIL}:\n\ttouch pwned\n",
    "a shell": f"`touch pwned`; touch pwned & $(touch pwned) | touch pwned # {EVIL}",
    "html": f"<script>{EVIL}</script><img src=x onerror={EVIL}>\" onload='{EVIL}",
    "svg": f"]]></style></text><script>{EVIL}</script>",
    "a terminal": f"\x1b[2J\x1b]0;{EVIL}\x07\x9b31m\u202e\u2028\x08\r{EVIL}",
    "mathtext": r"$\pin{$ $\frac{a}$ \$",
    "markup": f"[/h][red]{EVIL}[/]{{{EVIL}}}%s%n{{{{7*7}}}}{{% raw %}}",
    "markdown": f"| {EVIL} | x |\n# {EVIL}\n[a](javascript:{EVIL}) <b>{EVIL}</b>",
    "nothing": "\0" + EVIL,
}
BASE = """
name = "Hostile"
about = "all"
[leds.mine]
like = "ws2812b"
[controllers.main]
uses = { button = "B7" }
[supplies.main]
about = "it"
volts = 5
amps = 3
[[line]]
name = "tail"
pin = "A6"
led = "mine"
supply = "main"
controller = "main"
[[line.part]]
name = "bar"
shape = "strip"
start = [0, 0]
end = [70, 0]
count = 8
names = ["a", "b", "c", "d", "e", "f", "g", "h"]
[signals.speed]
unit = "km/h"
about = "how fast"
range = [0, 50]
pin = "A0"
source = "it"
[signals.mode]
kind = "choice"
choices = ["calm", "wild"]
about = "which"
[[scene]]
name = "calm"
when = "mode == 'calm'"
[presets.quick]
effect = "gauge"
value = "speed"
[[layer]]
name = "gauge"
on = "bar"
preset = "quick"
[groups]
left = ["bar"]
[sources.it]
type = "udp"
[outputs.out]
type = "null"
"""


def paths_of(value, path=()):
    """Where texts stand, also as names of LED types, which may be anything."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from paths_of(inner, (*path, key))
        if path == ("leds",):
            yield ("leds",)
    elif isinstance(value, list):
        for i, inner in enumerate(value):
            yield from paths_of(inner, (*path, i))
    elif isinstance(value, str):
        yield path


def put(values, path, text):
    made = copy.deepcopy(values)
    if path == ("leds",):
        made["leds"] = {text: made["leds"].popitem()[1]}
        made["line"][0]["led"] = text
        return made
    holder = made
    for step in path[:-1]:
        holder = holder[step]
    old = holder[path[-1]]
    holder[path[-1]] = text if "count" not in str(old) else old
    return made


def findings_of(values):
    try:
        return fd.Design.from_values(values).check()
    except DesignError as exc:
        return exc.findings


@pytest.fixture(scope="module", params=HOSTILE)
def hostile(request):
    """A design with one hostile text wherever it is accepted; and where that is."""
    text, values = HOSTILE[request.param], tomllib.loads(BASE)
    if text != in_lines(text):
        [finding] = findings_of(put(values, ("signals", "speed", "about"), text))
        assert finding.code == "hidden-character"
        assert in_lines(str(finding)) == str(finding)
        pytest.skip("refused at the door; what sources say is looked at in tests/live")
    assert not [f for f in findings_of(values) if f.severity == "error"]
    accepted = []
    for path in paths_of(values):
        found = findings_of(put(values, path, text))
        for finding in found:
            assert "Traceback" not in str(finding)
            assert finding.code != "internal"
        if not any(finding.severity == "error" for finding in found):
            accepted.append(path)
    for number, path in enumerate(accepted):
        values = put(values, path, f"{text} {number}")  # no two alike, since pins must not be
    assert not [f for f in findings_of(values) if f.severity == "error"]
    wanted = {("signals", "speed", "unit"), ("signals", "speed", "about"), ("line", 0, "pin")}
    assert wanted <= {*accepted}
    return values


def toml(values) -> str:
    rows = []
    for key, value in values.items():
        rows.append(f"{key} = {value_text(value)}")
    return "\n".join(rows) + "\n"


def call(monkeypatch, capsys, *words):
    monkeypatch.setattr(sys, "argv", ["fendra", *map(str, words)])
    with pytest.raises(SystemExit) as caught:
        app.main()
    seen = capsys.readouterr()
    assert "Traceback" not in seen.err
    assert "internal error" not in seen.out + seen.err
    return caught.value.code or 0, seen.out, seen.err


def test_a_terminal_obeys_none_of_it(hostile, tmp_path, monkeypatch, capsys):
    monkeypatch.chdir(tmp_path)
    path = tmp_path / "d.toml"
    path.write_text(toml(hostile), encoding="utf-8")
    assert tomllib.loads(path.read_text(encoding="utf-8")) == hostile
    (tmp_path / "t.csv").write_text("time,speed\n0,1\n1,2\n")
    for words in (
        ["check", path], ["check", path, "--json"], ["layout", path, "--json"], ["layout", path],
        ["explain", path, "--tape", "t.csv", "--at", "0.5", "--spot", "bar:0"], ["map", path],
        ["presets", "list", path], ["listen", path, "--from", "udp:0", "--for", "0.1"],
        ["run", path, "--for", "0.1", "--to", "null:", "--tape", "t.csv", "--stats"],
    ):  # fmt: skip
        code, text, err = call(monkeypatch, capsys, *words)
        assert code in (0, 1, 2), words
        assert visible(text + err, keep="\n\t") == text + err, words
        if "--json" in words and code != 2:
            assert json.loads(text), (words, err)
    assert not list(tmp_path.rglob("pwned"))


class Page(HTMLParser):
    """The tags and attributes of a page, and where the evil word is."""

    def __init__(self, text):
        super().__init__()
        self.tags, self.attributes = set(), []
        self.feed(text)

    def handle_starttag(self, tag, attrs):
        self.tags.add(tag)
        self.attributes += attrs


def test_a_page_and_a_drawing_show_it_as_text(hostile, tmp_path):
    made = fd.Design.from_values(hostile)
    page = Page(made.sheet(tmp_path / "sheet.html").read_text(encoding="utf-8"))
    assert not page.tags & {"script", "iframe", "b", "a"}
    assert not [a for a in page.attributes if a[0].startswith("on") or EVIL in f"{a[0]}"]
    shown = Page(made.page(tape=tape(speed=[1, 2])).html)
    assert not shown.tags & {"iframe", "b", "a", "img"}
    assert sorted(name for name, _ in shown.attributes if name.startswith("on")) == []
    drawing = ElementTree.parse(made.save_map(tmp_path / "map.svg"))
    tags = {str(element.tag).rpartition("}")[2] for element in drawing.iter()}
    assert not tags & {"script", "foreignObject", "a"}
    film = made.compile().film(tape(speed=[1, 2, 3, 4]))
    film.save_strip(tmp_path / "strip.png")
    film.save_timeline(tmp_path / "timeline.png")


def without_texts(code: str) -> str:
    """C without comments and texts, as a compiler reads it."""
    both = r'/\*.*?\*/|"(?:\\.|[^"\\\n])*"'
    return re.sub(
        both, lambda found: " " if found[0].startswith("/") else '""', code, flags=re.DOTALL
    )


@pytest.mark.parametrize(
    ("target", "receiver"),
    [("arm", False), ("avr", True), ("generic", False), ("rp2040", True), ("esp32", True)],
)
def test_c_make_and_markdown_read_none_of_it(hostile, tmp_path, target, receiver, compiler):
    try:
        project = fd.Design.from_values(hostile).firmware(target, receiver=receiver)
    except fd.FirmwareError:  # such a pin cannot be had
        values = put(hostile, ("line", 0, "pin"), "A6")
        project = fd.Design.from_values(values).firmware(target, receiver=receiver)
    for name, text in project.files.items():
        path = tmp_path / name
        path.parent.mkdir(exist_ok=True)
        path.write_text(text, encoding="utf-8")
        assert visible(text, keep="\n\t") == text, name
        if path.suffix in (".c", ".h"):
            assert EVIL not in without_texts(text), name
            assert "??" not in text.replace("? ?", ""), name
    source = f"{project.name}.c"
    for name in (source, "host/main.c", *([f"{project.name}_receiver.c"] if receiver else [])):
        subprocess.run(
            [*compiler.command, "-std=c99", "-trigraphs", "-Wall", "-Wextra", "-Werror",
             "-fsyntax-only", "-I.", name], cwd=tmp_path, check=True,
        )  # fmt: skip
    make = (tmp_path / "Makefile").read_text(encoding="utf-8")
    assert not [line for line in make.splitlines() if EVIL in line and not line.startswith("#")]
    if shutil.which("make"):
        subprocess.run(["make", "-n", "try"], cwd=tmp_path, check=True, capture_output=True)
    for name in (
        "CMakeLists.txt",
        "main/CMakeLists.txt",
        "main/Kconfig.projbuild",
        "sdkconfig.defaults",
    ):
        rows = project.files.get(name, "").splitlines()
        assert not [row for row in rows if EVIL in row and not row.startswith("# ")], name
    readme = (tmp_path / "README.md").read_text(encoding="utf-8")
    assert not re.search(r"(?<!\\)<(script|b|img)|^#+ InJected|(?<!\\)\]\(", readme, re.MULTILINE)
    rows = [line for line in readme.splitlines() if line.startswith("| ") and "signal" in line]
    assert all(len(re.findall(r"(?<!\\)\|", row)) == 3 for row in rows)
    assert not list(tmp_path.rglob("pwned"))


def test_the_looks_see_what_a_page_that_escapes_nothing_would_let_through():
    assert EVIL in without_texts(f"/* pin {HOSTILE[next(iter(HOSTILE))]} */")
    assert Page(HOSTILE["html"]).tags == {"script", "img"}
    assert visible(HOSTILE["a terminal"]) != HOSTILE["a terminal"]
    assert len(visible("a\u202eb")) == len(
        r"a\u202eb"
    )  # a docstring's test cannot tell these apart
    assert visible("\u200d é") == "\u200d é"
