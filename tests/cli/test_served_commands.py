"""`--page`: a run and the bench served from the command line, as people begin and end them."""

from __future__ import annotations

import json
import socket
from contextlib import closing
from urllib.error import URLError
from urllib.request import Request, urlopen

import pytest

import fendra as fd
from helpers import free_port
from page_served import ask


@pytest.fixture(autouse=True)
def own_tokens(monkeypatch, tmp_path):
    monkeypatch.setenv("FENDRA_TOKENS", str(tmp_path / "tokens.json"))


@pytest.fixture
def heron(tmp_path):
    path = tmp_path / "heron.toml"
    path.write_bytes(fd.demo_file("heron.toml").read_bytes())
    return path


def state(port, token=""):
    """The state of a run; None while it does not answer."""
    request = Request(f"http://127.0.0.1:{port}/api/state")
    if token:
        request.add_header("Authorization", f"Bearer {token}")
    try:
        with urlopen(request, timeout=10) as answer:
            return json.load(answer)
    except (URLError, OSError):
        return None


def test_a_run_with_a_page_needs_no_output_and_says_where_it_is(fendra_until, tmp_path):
    (tmp_path / "drone.toml").write_bytes(fd.demo_file("drone.toml").read_bytes())
    port = free_port()
    seen = []

    def is_there():
        told = state(port)
        if told is not None:
            seen.append(told)
        return told is not None

    code, out, _ = fendra_until(
        "run", "drone.toml", "--from", f"udp:{free_port()}", "--page", port, seen=is_there
    )
    assert code == 0, out
    assert f"page: http://127.0.0.1:{port}/   (this computer alone)" in out
    assert "to its page; Ctrl-C ends it" in out
    assert seen[0]["sources"][0]["name"] == "udp"
    assert state(port) is None  # it has ended with the run


def test_a_saved_design_is_reloaded_and_what_hands_hold_stays(fendra_until, heron):
    port = free_port()
    address = f"http://127.0.0.1:{port}"
    steps = []

    def done():
        told = state(port)
        if told is None:
            return False
        if not steps:
            ask(f"{address}/api/signals/speed", "PUT", {"value": 21})
            ask(f"{address}/api/level", "PUT", {"value": 0.5})
            text = heron.read_text(encoding="utf-8")
            heron.write_text(text.replace('name = "Heron"', 'name = "Crane"'), encoding="utf-8")
            steps.append(told["design"])
        if told["design"] == "Crane" and len(steps) == 1:
            held = {each["name"]: each["held"] for each in told["signals"] if each["hand"]}
            steps.append((held, told["level"]))
        return len(steps) == 2

    code, _, err = fendra_until("run", heron, "--to", "null:", "--page", port, seen=done)
    assert code == 0, err
    assert steps == ["Heron", ({"speed": [21.0]}, 0.5)]


def test_for_a_network_it_shows_an_address_with_a_token_for_each_right(
    fendra_until, heron, tmp_path
):
    port = free_port()

    def is_there():
        try:
            tokens = json.loads((tmp_path / "tokens.json").read_text(encoding="utf-8"))
        except (OSError, ValueError):
            return False
        return state(port, tokens["look"]) is not None

    code, out, _ = fendra_until(
        "run", heron, "--to", "null:", "--page", f"0.0.0.0:{port}", seen=is_there
    )
    assert code == 0
    tokens = json.loads((tmp_path / "tokens.json").read_text(encoding="utf-8"))
    assert f"page, on this computer:  http://127.0.0.1:{port}/#token={tokens['steer']}" in out
    assert f"#token={tokens['look']}" in out
    assert "Anybody who can listen on this network can read the token" in out


def test_a_design_with_page_is_served_on_this_computer_alone(fendra_until, heron):
    port = free_port()
    text = heron.read_text(encoding="utf-8")
    heron.write_text(f"{text}\n[page]\nport = {port}\n", encoding="utf-8")
    code, out, _ = fendra_until("run", heron, "--to", "null:", seen=lambda: state(port) is not None)
    assert code == 0
    assert f"http://127.0.0.1:{port}/   (this computer alone)" in out


def test_where_its_page_cannot_be_served_a_design_runs_all_the_same(fendra, heron):
    with closing(socket.create_server(("127.0.0.1", 0))) as taken:
        text = heron.read_text(encoding="utf-8")
        port = taken.getsockname()[1]
        heron.write_text(f"{text}\n[page]\nport = {port}\n", encoding="utf-8")
        code, out, _ = fendra("run", heron, "--set", "speed=3", "--to", "null:", "--for", "0.3")
        assert code == 0
        assert "The design's [page] is not served: the page cannot be served on" in out
        code, _, err = fendra("run", heron, "--to", "null:", "--page", port, "--for", "0.3")
        assert code == 1
        assert f"the page cannot be served on 127.0.0.1:{port}" in err


@pytest.mark.parametrize(
    ("words", "why"),
    [
        (["--page-new-tokens"], "add --page"),
        (["--page", "--page-announce"], "nobody to announce it to"),
        (["--page", "--page-cert", "a.pem"], "belong together"),
    ],
)
def test_options_that_do_nothing_alone_say_what_is_missing(fendra, heron, words, why):
    code, _, err = fendra("run", heron, "--to", "null:", *words)
    assert code == 2
    assert why in " ".join(err.split())


def test_listening_with_a_page_sends_nothing(fendra_until, fendra, heron):
    port = free_port()
    seen = []

    def is_there():
        told = state(port)
        seen.append(told)
        return told is not None and told["outputs"]

    words = ("listen", heron, "--from", f"udp:{free_port()}", "--page", port)
    code, _, _ = fendra_until(*words, seen=is_there)
    assert code == 0
    assert [each["what"] for each in seen[-1]["outputs"]] == ["nowhere"]
    code, _, err = fendra(*words, "--learn")
    assert code == 2
    assert "--learn works without a page" in err


def test_the_bench_is_served_and_ends_dark(fendra_until, heron):
    port = free_port()

    def is_there():
        told = state(port)
        return told is not None and told["bench"]["pattern"] == "walk"

    code, out, _ = fendra_until(
        "probe", heron, "walk", "--line", "tail", "--to", "null:", "--page", port, seen=is_there
    )
    assert code == 0
    assert "Heron to nowhere: the bench. Ctrl-C ends it." in out


def test_a_page_without_its_packages_says_what_to_install(fendra, heron, monkeypatch):
    import importlib.util

    found = importlib.util.find_spec
    monkeypatch.setattr(
        importlib.util, "find_spec", lambda name, *a: None if name == "uvicorn" else found(name, *a)
    )
    code, _, err = fendra("run", heron, "--to", "null:", "--page", "--for", "0.2")
    assert code == 1
    assert "the page needs the package 'uvicorn': pip install 'fendra[page]'" in err


def test_a_signal_of_a_name_that_steering_needs_is_told(fendra, heron):
    text = heron.read_text(encoding="utf-8")
    heron.write_text(f"{text}\n[signals.hand_level]\n", encoding="utf-8")
    code, _, err = fendra("run", heron, "--to", "null:", "--page", free_port(), "--for", "0.2")
    assert code == 1
    assert "signal 'hand_level' has a name that steering needs. Rename the signal." in err


def test_without_a_page_no_server_is_imported():
    import subprocess
    import sys

    code = "import sys, fendra.cli.app; print([n for n in ('starlette', 'uvicorn') if n in sys.modules])"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"
