"""Make docs/effects.md from the effects themselves: `make docs`. A test holds the two together."""

from __future__ import annotations

from pathlib import Path

from fendra.core.effects import EFFECTS, Parameter

PAGE = Path(__file__).parents[1] / "docs" / "effects.md"

HEAD = """# Effects

What each effect looks like, and its parameters. Every parameter may be a literal or an
expression in quotes (see [design-file.md](design-file.md)); a value outside the range is held
within it. Made from the code by `make docs`.
"""


def page() -> str:
    """The whole page."""
    return "\n".join([HEAD, *(section(name) for name in EFFECTS)])


def section(name: str) -> str:
    """One effect."""
    effect = EFFECTS[name]
    rows = [row(key, item) for key, item in effect.parameters.items()]
    table = ["| parameter | | default | unit | range |", "| --- | --- | --- | --- | --- |", *rows]
    return "\n".join([f"## {name}", "", effect.about, "", *table, ""])


def row(key: str, item: Parameter) -> str:
    """One parameter."""
    if item.kind == "number":
        cells = [f"{item.default:g}", item.unit, f"{item.low:g} to {item.high:g}"]
    elif item.kind == "truth":
        cells = [str(item.default).lower(), "", "true or false"]
    else:
        cells = [f'`"{item.default}"`', "", "a colour"]
    return f"| `{key}` | {item.about} | {' | '.join(cells)} |"


if __name__ == "__main__":
    PAGE.write_text(page(), encoding="utf-8")
