"""What every command keeps to: widths, JSON, exit codes, and ends that say what was wrong."""

from __future__ import annotations

import json
import time

import pytest

import fendra as fd
from helpers import free_port

HERON, RIDE = fd.demo_file("heron.toml"), fd.demo_file("ride.csv")


@pytest.mark.parametrize(
    "words",
    [
        ["effects"], ["effects", "gauge"], ["layout", HERON], ["layout", fd.demo_file("cabinet.toml")],
        ["simulate"], ["check", fd.demo_file("drone.toml")], ["check", HERON, "--tape", RIDE],
        ["listen", HERON, "--tape", RIDE, "--for", "0.3"],
    ],
)  # fmt: skip
def test_tables_fit_80_columns(fendra, words):
    """Without a terminal, as in a pipe; nothing is coloured there."""
    code, out, _ = fendra(*words)
    assert code == 0
    tables = [line for line in out.splitlines() if "  " in line.strip()]
    assert tables
    assert max(map(len, tables)) <= 80
    assert "\x1b" not in out


def test_listen_cuts_no_names_and_values(fendra, tmp_path):
    """A long name stands whole; the trace makes room for it."""
    name = "temperature_of_the_left_rear_controller"
    line = '[[line]]\nname = "a"\n[[line.part]]\nname = "bar"\nshape = "strip"\ncount = 4\n'
    line += "start = [0, 0]\nend = [90, 0]\n"
    (tmp_path / "long.toml").write_text(f'name = "long"\n{line}[signals.{name}]\nrange = [0, 90]\n')
    (tmp_path / "long.csv").write_text(f"time,{name}\n0,41.25\n1,41.25\n")
    _, out, _ = fendra("listen", "long.toml", "--tape", "long.csv", "--for", "0.3")
    head, row = out.splitlines()[:2]
    assert head.split()[0] == "signal"
    assert row.split()[0] == name
    assert "41.25" in row
    assert "trace" not in head


def test_effects_in_full_have_their_parameters_and_ranges_as_json(fendra):
    found = json.loads(fendra("effects", "--json")[1])["effects"]
    assert [each["name"] for each in found if each["name"] in ("solid", "gauge")] == [
        "solid",
        "gauge",
    ]
    [gauge] = json.loads(fendra("effects", "gauge", "--json")[1])["effects"]
    assert gauge["parameters"]["origin"] == {
        "kind": "number", "default": "0", "unit": "", "low": 0.0, "high": 1.0, "words": [],
        "about": gauge["parameters"]["origin"]["about"],
    }  # fmt: skip


def test_explain_and_compare_as_json(fendra, tmp_path):
    """Only JSON stands on standard output, and its bytes are those of the film."""
    said = json.loads(
        fendra("explain", HERON, "--tape", RIDE, "--at", 31.5, "--spot", "tail-bar:4", "--json")[1]
    )
    film = fd.load(HERON).compile().film(fd.read_tape(RIDE).until(32))
    assert said["rgb"] == film.frame(31.5).part("tail-bar")[4].tolist()
    assert bytes.fromhex(said["sent"]) == bytes([said["rgb"][1], said["rgb"][0], said["rgb"][2]])
    (tmp_path / "short.csv").write_text("".join(RIDE.read_text().splitlines(keepends=True)[:60]))
    vary = ["--vary", "rpm.threshold=1000,5000", "--tape", "short.csv", "--json"]
    told = json.loads(fendra("compare", HERON, *vary)[1])
    assert told["designs"] == ["threshold = 1000", "threshold = 5000"]
    assert {part["part"] for part in told["parts"]} <= {*fd.load(HERON).layout().part_names}
    assert (tmp_path / told["picture"]).exists()


def test_a_run_as_json_says_what_it_came_to(fendra):
    code, out, _ = fendra(
        "run", HERON, "--tape", RIDE, "--to", "null:", "--for", "0.4", "--stats", "--json"
    )
    said = json.loads(out)
    assert code == 0
    assert said["sent"] >= 19  # 0.4 s at 50 a second, and the last look, on a slow machine too
    assert sum(row["took"] for row in said["late_and_took"]) == said["rendered"]
    assert said["outputs"][0]["sent"] == said["sent"]


@pytest.mark.parametrize(
    ("words", "code", "says"),
    [
        (["explain", HERON, "--tape", RIDE, "--at", 1, "--spot", "nope"], 2, "'nope' is not an LED"),
        (["map", HERON, "--show", "nope"], 2, "no part, line, group or trail 'nope'"),
        (["film", HERON, "--set", "sped=3"], 2, "no signal 'sped'"),
        (["run", HERON, "--to", "sacn:"], 2, "sacn needs the receiver's address, as in sacn:192.168.1.60"),
        (["run", HERON, "--from", "nope:"], 2, "there is no source 'nope'"),
        (["simulate", "nope"], 2, "there is no stand-in 'nope'"),
        (["emit", HERON, "--target", "nope"], 2, "'nope'"),
        (["map", HERON, "--view", "side"], 2, "for '--view': 'side' is not one of 'top', 'bottom',"),
        (["check", "none.toml"], 2, "there is no file 'none.toml'"),
    ],
)  # fmt: skip
def test_what_the_user_named_wrongly_ends_with_2(fendra, words, code, says):
    found, out, err = fendra(*words)
    assert (found, says in " ".join((out + err).split())) == (code, True)


@pytest.mark.parametrize(
    ("to", "says"),
    [
        ("serial:/dev/ttyNone7", "there is no port /dev/ttyNone7"),
        ("terminal:", "here is no terminal to draw in"),
        ("film:no-such-folder/out.npz", "no-such-folder/out.npz cannot be written: No such file"),
    ],
)
def test_an_output_that_can_never_work_ends_the_run_at_once(fendra, to, says):
    """And its frames were not replaced since it was busy: it never took one."""
    begun_s = time.monotonic()
    code, out, err = fendra("run", HERON, "--from", f"udp:{free_port()}", "--to", to, "--for", "30")
    assert code == 1
    assert time.monotonic() - begun_s < 15
    assert says in err
    assert "tried again" not in out + err
    assert "replaced" not in out + err


def test_a_run_whose_only_source_can_never_speak_ends(fendra):
    code, out, err = fendra(
        "run", HERON, "--from", "lines:/dev/ttyNone8", "--to", "null:", "--for", "30"
    )
    assert code == 1
    assert "there is no port /dev/ttyNone8" in err
    assert "frames sent" in out


def test_a_film_file_ends_when_its_run_does(fendra, tmp_path):
    """The last frame is how the design leaves: a period after the one before."""
    import numpy as np

    fendra("run", HERON, "--tape", RIDE, "--to", "film:f.npz", "--for", "0.4")
    times = np.load(tmp_path / "f.npz")["times"]
    assert (np.diff(times) > 0).all()
    assert times[-1] - times[-2] == pytest.approx(0.02, abs=0.001)


def test_a_reset_takes_parameters_and_preset_away_and_keeps_the_old_design(fendra, tmp_path):
    """A layer that had `rate` of a preset has its effect's own after it."""
    line = '[[line]]\nname = "a"\n[[line.part]]\nname = "bar"\nshape = "strip"\ncount = 4\n'
    line += "start = [0, 0]\nend = [90, 0]\n"
    text = f'{line}[presets.quick]\neffect = "blink"\nrate = 3\n'
    text += '[[layer]]\nname = "b"\non = "bar"\npreset = "quick"\nduty = 0.2 # short\n'
    path = tmp_path / "d.toml"
    path.write_text(text)
    code, out, _ = fendra("presets", "reset", path, "b")
    assert code == 0
    assert "before, it set: duty, preset 'quick'" in out
    [layer] = fd.load(path).layer
    assert (layer.effect, layer.preset, layer.parameters) == ("blink", "", {})
    assert (tmp_path / "d.toml.bak").read_text() == text
    assert "has the defaults already" in fendra("presets", "reset", path, "b")[1]


def test_a_stand_in_answers_to_the_name_of_its_source_and_says_what_it_cannot_send(fendra):
    _, out, _ = fendra("simulate", "can", "--tape", fd.demo_file("game.csv"), "--for", "0.2")
    assert "A vehicle on a CAN bus" in out
    assert "It cannot send bass, beat, coin," in out
