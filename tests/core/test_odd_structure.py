"""Designs whose structure is odd: keys gone, values of other kinds, tables where lists are meant.

`make fuzz` tries some thousand of them.
"""

from __future__ import annotations

import copy
import tomllib

from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.quoting import in_lines

WHOLE = {
    name: tomllib.loads(fd.demo_file(f"{name}.toml").read_text(encoding="utf-8"))
    for name in ("bare", "pad", "drone")
}
odd = st.sampled_from([
    None, True, -1, 0, 1, 1.5, 1e308, -1e-308, float("nan"), 10**30, "", "x", "s > 0.5", "'red'", "all",
    "9" * 40, [], {}, [[]], [{}], {"a": {}}, [1, 2], ["x", 1], {"x": 1, "y": 2}, {"at": 0}, "-1", "end",
])  # fmt: skip


def places_of(value, path=()):
    """Every place in plain values."""
    items = (
        value.items()
        if isinstance(value, dict)
        else enumerate(value)
        if isinstance(value, list)
        else ()
    )
    for key, inner in items:
        yield (*path, key)
        yield from places_of(inner, (*path, key))


@st.composite
def odd_designs(draw):
    """A whole design with some changes of structure."""
    values = copy.deepcopy(WHOLE[draw(st.sampled_from([*WHOLE]))])
    for _ in range(draw(st.integers(1, 4))):
        places = [*places_of(values)]
        path = draw(st.sampled_from(places))
        holder = values
        for step in path[:-1]:
            holder = holder[step]
        match draw(st.sampled_from(["put", "drop", "copy", "wrap", "move"])):
            case "put":
                holder[path[-1]] = draw(odd)
            case "drop":
                del holder[path[-1]]
            case "copy" if isinstance(holder, list):
                holder.append(copy.deepcopy(holder[path[-1]]))
            case "wrap":
                holder[path[-1]] = [holder[path[-1]]]
            case "move" if isinstance(holder, dict):
                other = draw(st.sampled_from(places))[-1]
                if isinstance(other, str):
                    holder[other] = holder.pop(path[-1])
        if not values:
            break
    return values


@given(odd_designs())
def test_an_odd_design_gives_findings_and_never_a_fault(values):
    try:
        found = fd.Design.from_values(values).check()
    except fd.DesignError as exc:
        found = exc.findings
        assert found
    for finding in found:
        assert finding.code != "internal", finding
        assert len(str(finding)) < 3_000
        assert in_lines(str(finding)) == str(finding)
