"""What a design may write, tell and connect to; its user may all of it."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest

import fendra as fd
from fendra.files.trust import trust_host
from fendra.live.connect import connect
from helpers import design, layer


def named(folder, **tables):
    made = design(layer(colour="red"), **tables)
    return connect(made, folder=str(folder)), made


def show(output, made):
    with output:
        output.open(made)
        output.send(made.compile().frame(at=0))


@pytest.mark.parametrize(
    ("kind", "address", "says"),
    [
        ("film", "victim.sh", "a design may only write files that end in .npz or .rgb"),
        ("film", "../out.npz", "is outside the design's folder"),
        ("film", "/tmp/out.rgb", "is outside the design's folder"),
        pytest.param(
            "film", "away/out.npz", "is outside the design's folder", marks=pytest.mark.posix
        ),
        ("gif", "look.html.gif/../../x.gif", "is outside the design's folder"),
        ("spi", "victim.sh", "a design may only name an SPI device"),
        ("spi", "/dev/spidev/../../etc/x", "a design may only name an SPI device"),
    ],
)
def test_a_file_elsewhere_or_of_another_kind_is_an_error(tmp_path, kind, address, says):
    folder = tmp_path / "design"
    folder.mkdir()
    if address.startswith("away"):
        (folder / "away").symlink_to(tmp_path)
    before = sorted(tmp_path.rglob("*"))
    with pytest.raises(fd.OutputError, match=says):
        named(folder, outputs={"m": {"type": kind, "address": address}})
    assert sorted(tmp_path.rglob("*")) == before


@pytest.mark.parametrize(("kind", "address"), [("film", "k/ride.npz"), ("gif", "k/look.gif")])
def test_it_writes_new_files_below_its_folder_and_its_own_again_and_no_others(
    tmp_path, monkeypatch, kind, address
):
    monkeypatch.chdir("/")
    (tmp_path / "k").mkdir()
    connected, made = named(tmp_path, outputs={"m": {"type": kind, "address": address}})
    for _ in range(2):
        show(connected.outputs["m"], made)
        connected, made = named(tmp_path, outputs={"m": {"type": kind, "address": address}})
    assert [path.name for path in (tmp_path / "k").iterdir()] == [Path(address).name]
    dear = tmp_path / address
    dear.unlink()
    np.savez(dear, mine=np.arange(3)) if kind == "film" else dear.write_bytes(b"GIF89a dear")
    before = dear.read_bytes()
    with pytest.raises(fd.OutputError, match="Fendra did not make it; a design may not replace it"):
        show(connected.outputs["m"], made)
    assert dear.read_bytes() == before
    own = connect(made, folder=str(tmp_path), outputs=[f"{kind}:{dear}"])  # its user may
    show(own.outputs["m"], made)
    assert dear.read_bytes() != before


@pytest.mark.parametrize("key", ["user", "password"])
def test_it_tells_no_environment_variable_but_those_for_fendra(key):
    table = {"type": "mqtt", "address": "localhost", key: "AWS_SECRET"}
    found = [f for f in design(layer(), sources={"b": table}).check() if f.severity == "error"]
    assert [f.path for f in found] == [("sources", "b")]
    assert f"{key} = 'AWS_SECRET': a design may only name environment variables" in found[0].message
    with pytest.raises(fd.SourceError, match="that begin with FENDRA_"):
        named("", sources={"b": table})
    connect(design(layer()), sources=[f"mqtt:localhost,{key}=AWS_SECRET"])  # its user may
    named("", sources={"b": {**table, key: "FENDRA_HERON"}})


@pytest.mark.parametrize("table", [
    {"sources": {"b": {"type": "mqtt", "address": "broker.example.com:8883"}}},
    {"outputs": {"b": {"type": "sacn", "address": "9.9.9.9"}}},
])  # fmt: skip
def test_it_connects_to_hosts_elsewhere_only_when_they_are_allowed(table):
    host = next(iter(table.values()))["b"]["address"].partition(":")[0]
    with pytest.raises(fd.FendraError, match=f"Allow it: fendra trust --host {host}"):
        named("", **table)
    trust_host(host)
    named("", **table)
