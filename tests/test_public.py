"""The public face."""

from __future__ import annotations

import subprocess
import sys

import pytest

import fendra as fd


def test_the_public_names_are_a_sorted_list_and_all_there():
    assert fd.__all__ == sorted(fd.__all__)
    assert all(getattr(fd, name) is not None for name in fd.__all__)
    assert set(dir(fd)) >= {*fd.__all__, "__version__"}
    with pytest.raises(AttributeError, match="has no attribute 'lod'"):
        _ = fd.lod


def test_every_error_is_in_the_tree_and_a_fitting_built_in():
    for name in fd.__all__:
        thing = getattr(fd, name)
        if name.endswith("Error") and thing is not fd.FendraError:
            assert issubclass(thing, fd.FendraError)
            assert issubclass(thing, (ValueError, TypeError, OSError, RuntimeError))


@pytest.mark.parametrize(
    ("code", "heavy"),
    [
        ("import fendra", ["numpy", "pydantic", "matplotlib", "pandas", "scipy", "PIL", "rich"]),
        ("import fendra as fd; fd.load(fd.demo_file('heron.toml')).compile().frame(at=0)",
         ["matplotlib", "pandas", "scipy", "PIL", "serial", "rich", "typer"]),
        ("import fendra.cli.app", ["numpy", "pydantic", "matplotlib", "pandas", "PIL"]),
    ],
)  # fmt: skip
def test_heavy_packages_wait_until_they_are_used(code, heavy):
    check = f"{code}; import sys; print([m for m in {heavy} if m in sys.modules])"
    done = subprocess.run([sys.executable, "-c", check], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"


def test_a_design_of_plain_values_says_all_that_is_wrong():
    part = {"name": "bar", "shape": "strip", "start": [0, 0], "end": [9, 0], "cuont": 3}
    values = {"nmae": "x", "line": [{"name": "l", "part": [part]}]}
    with pytest.raises(fd.DesignError, match="no key 'nmae'") as caught:
        fd.Design.from_values(values)
    assert [f.path for f in caught.value.findings] == [
        ("line", 0, "part", 0, "cuont"),
        ("nmae",),
    ]
    assert values["nmae"] == "x"


def test_an_unknown_demo_file_names_those_there_are():
    with pytest.raises(
        FileNotFoundError, match=r"there are bare\.toml, .*heron\.toml, .*ride\.csv"
    ):
        fd.demo_file("bike.toml")
