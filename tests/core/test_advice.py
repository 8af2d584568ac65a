"""Advice: what `fendra check` tells people to write, written, makes the finding go away.

Every example of scripts/findings.toml is checked; whatever its remedy says can be done by a machine
is done to the file, and the file is checked again: the finding is gone, and no other has come.
"""

from __future__ import annotations

import re
import runpy
import tomllib
from pathlib import Path

import pytest
import tomlkit

from fendra.core.findings import Severity
from fendra.files.design_file import check_text

SCRIPTS = Path(__file__).parents[2] / "scripts"
EXAMPLES = [
    (code, place, excerpt)
    for codes in tomllib.loads((SCRIPTS / "findings.toml").read_text(encoding="utf-8")).values()
    for code, excerpts in codes.items()
    if not code.endswith("-on-the-tape") and code != "syntax"
    for place, excerpt in enumerate(excerpts)
]
OF_THE_DESIGN = {"rate", "dither"}
KEY_AND_VALUE = re.compile(
    r"\b(\w+) = ((?:\{.*?\}(?=[.,:;]))|(?:\[[^\]]*\])|\"[^\"]*\"|'[^']*'|true|false|-?[\d.]*\d)"
)


@pytest.fixture(scope="module")
def design_of():
    """An example as a whole design, as docs/findings.md shows it."""
    import sys

    sys.path.insert(0, str(SCRIPTS))
    try:
        return runpy.run_path(str(SCRIPTS / "make_docs.py"))["design_of"]
    finally:
        sys.path.remove(str(SCRIPTS))


def table_of(values, path):
    """The table that a finding is about: that which its path leads to, or the one that holds it."""
    here, last = values, None
    for step in path:
        try:
            following = here[step]
        except (KeyError, IndexError, TypeError):
            break
        if isinstance(following, dict):
            last = following
        here = following
    return values if last is None else last


def holder_of(values, path):
    for step in path[:-1]:
        values = values[step]
    return values


def done(values, finding):
    """Do what the remedy says, if a machine can; whether it could."""
    remedy, path = finding.remedy.replace("'", '"'), finding.path
    meant = re.search(r'Did you mean "([^"]+)"\?', remedy)
    pair = KEY_AND_VALUE.search(remedy)
    number = re.match(r"Write (-?[\d.]*\d)[, ]", remedy)
    if meant:
        holder = holder_of(values, path)
        if finding.code in ("unknown-key", "unknown-parameter"):
            holder[meant[1]] = holder.pop(path[-1])
        elif finding.code == "unknown-shape":
            table_of(values, path)["shape"] = meant[1]
        else:
            holder[path[-1]] = meant[1]
        return True
    if number:
        holder_of(values, path)[path[-1]] = tomllib.loads(f"x = {number[1]}")["x"]
        return True
    if pair and not any(
        words in remedy for words in ("Place it", "in a layer", "in layers", "[raw")
    ):
        key, value = pair[1], tomllib.loads(f"x = {pair[2]}")["x"]
        table = holder_of(values, path) if path[-1:] == (key,) else table_of(values, path)
        (values if key in OF_THE_DESIGN else table)[key] = value
        return True
    if "Remove it" in remedy and isinstance(holder_of(values, path), (dict, list)):
        holder = holder_of(values, path)
        del holder[path[-1]]
        if not holder:  # an empty table is no better
            del holder_of(values, path[:-1])[path[-2]]
        return True
    return False


def named(checked):
    return {
        (finding.code, finding.path)
        for finding in checked.findings
        if finding.severity != Severity.NOTE
    }


def test_what_is_told_mends_it_and_breaks_nothing(design_of):
    mended = set()
    for code, _, excerpt in EXAMPLES:
        text = design_of(excerpt)
        before = check_text(text, "design.toml", folder=Path())
        finding = next(f for f in before.findings if f.code == code)
        values = tomllib.loads(text)
        if not done(values, finding):
            continue
        mended.add(code)
        plain = {key: value for key, value in values.items() if not isinstance(value, (dict, list))}
        written = tomlkit.dumps({**plain, **values})
        after = check_text(written, "design.toml", folder=Path())
        assert (code, finding.path) not in {(f.code, f.path) for f in after.findings}, finding
        assert named(after) <= named(before) - {(code, finding.path)}, finding
    assert len(mended) >= 20, "wording has changed so that less is done"
