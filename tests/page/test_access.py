"""Who may: a served page is attacked as strangers would, and stands."""

from __future__ import annotations

import asyncio
import gc
import json
import os
import socket
import stat
import subprocess
import time
import tomllib
import warnings
from urllib.request import urlopen

import pytest
from websockets.exceptions import ConnectionClosed, InvalidStatus
from websockets.sync.client import connect as ws

from fendra.core.errors import PageError
from fendra.page.served import app as app_room
from fendra.page.served import patience
from fendra.page.served.access import Gate, Refusal, Right, is_this_computer
from fendra.page.served.calls import CALLS
from fendra.page.served.desk import version_of
from fendra.page.served.server import Place, Server, place_of
from fendra.page.served.tokens import Tokens, read_tokens, tokens_path
from helpers import FakeClock, until
from page_served import OnBench, Running, ask

OPEN = {"host": "0.0.0.0"}


def everything(page):
    """All that a page is told until it is dropped."""
    told = []
    try:
        while True:
            told.append(page.recv(timeout=20))
    except ConnectionClosed:
        return told


@pytest.fixture
def run(serve, design_file):
    """A run that this computer alone gets to."""
    return serve(Running, design_file)


@pytest.fixture
def open_run(serve, design_file):
    """A run that a whole network gets to."""
    return serve(Running, design_file, **OPEN)


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://evil.example"},
        {"Origin": "null"},
        {"Origin": "https://127.0.0.1:{port}"},
        {"Origin": "http://127.0.0.1:1"},
        {"Origin": "http://localhost:{port}"},
        {"Sec_Fetch_Site": "cross-site"},
        {"Sec_Fetch_Site": "same-site"},
    ],
)
def test_another_site_may_neither_read_nor_steer(run, headers):
    own = {name: text.replace("{port}", str(run.server.port)) for name, text in headers.items()}
    for method, path, body in (("GET", "state", None), ("PUT", "level", {"value": 0.1})):
        status, answer = ask(f"{run.address}/api/{path}", method, body, **own)
        assert (status, answer["problem"]) == (403, "another site may not ask for this")
    assert run.steering.held()["level"] == 1.0


@pytest.mark.parametrize(
    "host", ["evil.example", "evil.example:{port}", "127.0.0.1.evil.example", ""]
)
def test_a_name_of_somebody_else_that_leads_here_gets_nothing(run, host):
    """DNS rebinding: the browser believes that it asks evil.example, and comes here."""
    own = host.replace("{port}", str(run.server.port))
    for path in ("/", "/live.js", "/api/state"):
        assert ask(f"{run.address}{path}", Host=own)[0] == 421
    with (
        pytest.raises(InvalidStatus),
        ws(f"{run.address.replace('http', 'ws')}/live", additional_headers={"Host": own}),
    ):
        pass  # pragma: no cover - it does not get here


def test_another_site_may_lead_to_the_empty_page_and_show_it_in_no_frame(run):
    status, shell = ask(f"{run.address}/", Sec_Fetch_Site="cross-site", Sec_Fetch_Mode="navigate")
    assert status == 200
    assert b"Heron" not in shell


def test_its_own_names_and_bare_addresses_are_known(run):
    for host in (
        "localhost",
        "127.0.0.1",
        f"LOCALHOST:{run.server.port}",
        "192.168.1.5:99",
        "[::1]:8",
    ):
        assert ask(f"{run.address}/api/state", Host=host)[0] == 200
    own = f"http://127.0.0.1:{run.server.port}"
    assert ask(f"{run.address}/api/state", Origin=own)[0] == 200


def test_a_socket_of_another_site_is_refused(run):
    address = f"{run.address.replace('http', 'ws')}/live"
    with pytest.raises(InvalidStatus), ws(address, origin="http://evil.example"):
        pass  # pragma: no cover
    with ws(address, origin=run.address) as page:
        assert json.loads(page.recv())["kind"] == "hello"


def test_from_a_network_nobody_is_let_in_without_a_token(open_run):
    for path in ("state", "frame.json", "frame.png", "events", "design", "openapi.json"):
        assert ask(f"{open_run.address}/api/{path}")[0] == 401, path
    assert ask(f"{open_run.address}/api/level", "PUT", {"value": 0.5})[0] == 401
    with (
        ws(f"{open_run.address.replace('http', 'ws')}/live") as page,
        pytest.raises(ConnectionClosed) as closed,
    ):
        page.recv()
    assert closed.value.rcvd.code == 4401
    assert ask(f"{open_run.address}/")[0] == 200  # it holds nothing of the design
    assert b"Heron" not in ask(f"{open_run.address}/")[1]


def test_a_token_to_look_lets_one_look_and_shows_no_text_of_the_design(open_run):
    look = open_run.server.tokens.look
    assert ask(f"{open_run.address}/api/state", token=look)[0] == 200
    for method, path, body in (
        ("PUT", "signals/speed", {"value": 1}), ("PUT", "on", {"value": False}),
        ("PUT", "cues/x", None), ("POST", "release", None), ("GET", "design", None),
        ("PUT", "design", {"text": "", "version": ""}), ("POST", "design/undo", None),
    ):  # fmt: skip
        assert ask(f"{open_run.address}/api/{path}", method, body, token=look)[0] == 403, path
    address = f"{open_run.address.replace('http', 'ws')}/live"
    with ws(address, subprotocols=["fendra", f"token.{look}"]) as page:
        told = [page.recv() for _ in range(3)]
    texts = " ".join(text for text in told if isinstance(text, str))
    assert "hub-left" in texts
    for written in ("lost(speed)", "48 V to 5 V", "standing still", "speed < 1", "0.3 + 0.7"):
        assert written not in texts
    assert json.loads(told[0])["right"] == int(Right.LOOK)


def test_who_may_look_is_not_told_where_sources_and_outputs_are(serve, design_file):
    run = serve(Running, design_file, outputs=["serial:/dev/secret-port"], **OPEN)
    look, steer = run.server.tokens.look, run.server.tokens.steer

    def outputs(token):
        return ask(f"{run.address}/api/state", token=token)[1]["outputs"]

    until(lambda: outputs(steer)[0]["problem"], "the trouble")
    assert "secret-port" in json.dumps(outputs(steer))
    assert "secret-port" not in json.dumps(outputs(look))
    assert outputs(look)[0]["problem"] == "it does not work"


def test_a_token_to_steer_steers_and_changes_the_file_from_this_computer_alone(open_run):
    steer = open_run.server.tokens.steer
    assert ask(f"{open_run.address}/api/level", "PUT", {"value": 0.5}, token=steer)[0] == 200
    assert (
        ask(f"{open_run.address}/api/design", token=steer)[0] == 200
    )  # it is asked from 127.0.0.1
    gate = Gate("0.0.0.0", tokens=Tokens("l" * 20, "s" * 20))
    assert asyncio.run(gate.right("s" * 20, "192.168.1.9")) is Right.STEER
    assert asyncio.run(gate.right("s" * 20, "::ffff:127.0.0.1")) is Right.OWN
    assert not is_this_computer("127.0.0.1.evil")


def test_wrong_tokens_are_answered_more_and_more_slowly_then_not_at_all(monkeypatch):
    waited, clock = [], FakeClock()

    async def wait(seconds):
        waited.append(seconds)

    monkeypatch.setattr(asyncio, "sleep", wait)
    gate = Gate("0.0.0.0", tokens=Tokens("l" * 20, "s" * 20), clock=clock)

    def status(token, peer="192.168.1.9"):
        try:
            return asyncio.run(gate.right(token, peer))
        except Refusal as refusal:
            return refusal.status

    assert [status(f"guess{n}") for n in range(10)] == [401] * 10
    assert waited == [0.25, 0.5, 1, 2, 4, 4, 4, 4, 4, 4]
    assert status("s" * 20) == 429  # even the right one, until it has waited
    assert status("s" * 20, "192.168.1.10") is Right.STEER  # who guesses shuts nobody else out
    clock.sleep(61)
    assert status("s" * 20) is Right.STEER


def test_an_old_token_lets_nobody_in(serve, design_file):
    old = serve(Running, design_file, **OPEN).server.tokens
    again = serve(Running, design_file, **OPEN)
    assert again.server.tokens == old
    anew = serve(Running, design_file, tokens_anew=True, **OPEN)
    assert ask(f"{anew.address}/api/state", token=old.steer)[0] == 401
    assert ask(f"{anew.address}/api/state", token=anew.server.tokens.look)[0] == 200


@pytest.mark.skipif(os.name != "posix", reason="other systems have no modes of files")
def test_tokens_are_kept_where_their_owner_alone_reads_and_made_anew_where_others_could(
    tmp_path, monkeypatch
):
    monkeypatch.setenv("FENDRA_TOKENS", str(tmp_path / "deep" / "tokens.json"))
    first = read_tokens()
    assert stat.S_IMODE(tokens_path().stat().st_mode) == 0o600
    assert read_tokens() == first
    assert len({first.look, first.steer}) == 2
    assert min(map(len, (first.look, first.steer))) >= 24
    tokens_path().chmod(0o644)
    assert read_tokens() != first
    assert stat.S_IMODE(tokens_path().stat().st_mode) == 0o600
    for wrong in ("", "[]", '{"look": "a", "steer": "b"}', '{"look": 1}'):
        tokens_path().write_text(wrong, encoding="utf-8")
        assert len(read_tokens().look) >= 24


def test_a_huge_body_is_refused_before_it_is_read(run):
    for path, size in (("level", 20_000), ("level", 10**12), ("design", 2_300_000)):
        with socket.create_connection(("127.0.0.1", run.server.port)) as there:
            head = f"PUT /api/{path} HTTP/1.1\r\nHost: localhost\r\nContent-Length: {size}\r\n\r\n"
            there.sendall(head.encode())
            assert b" 413 " in there.recv(100)
    with socket.create_connection(("127.0.0.1", run.server.port)) as there:
        there.sendall(
            b"PUT /api/level HTTP/1.1\r\nHost: localhost\r\nTransfer-Encoding: chunked\r\n\r\n"
        )
        there.sendall(b"4000\r\n" + b" " * 0x4000 + b"\r\n1000\r\n" + b" " * 0x1000 + b"\r\n")
        assert b" 413 " in there.recv(100)


def test_a_head_without_end_and_a_body_that_trickles_are_cut_off(run, monkeypatch):
    monkeypatch.setattr(app_room, "BODY_S", 0.3)
    with socket.create_connection(("127.0.0.1", run.server.port)) as there:
        there.sendall(b"PUT /api/level HTTP/1.1\r\nHost: localhost\r\nContent-Length: 20\r\n\r\n{")
        assert b" 408 " in there.recv(100)
    with socket.create_connection(("127.0.0.1", run.server.port)) as there:
        there.sendall(b"GET / HTTP/1.1\r\nHost: localhost\r\nX: " + b"a" * 40_000)
        assert there.recv(100).startswith(b"HTTP/1.1 4")


def test_connections_that_ask_for_nothing_are_closed_and_one_address_gets_so_many(run, monkeypatch):
    monkeypatch.setattr(patience, "SILENT_S", 0.5)
    silent = [
        socket.create_connection(("127.0.0.1", run.server.port))
        for _ in range(patience.MOST_OF_ONE + 10)
    ]
    try:
        for each in silent:
            each.settimeout(60)
        assert [each.recv(1) for each in reversed(silent)] == [b""] * len(silent)
        assert ask(f"{run.address}/api/state")[0] == 200
    except ConnectionResetError:
        pytest.fail("closed, not reset")
    finally:
        for each in silent:
            each.close()


def test_a_connection_that_asked_once_and_then_half_is_closed_too(run, monkeypatch):
    monkeypatch.setattr(patience, "SILENT_S", 0.5)
    with socket.create_connection(("127.0.0.1", run.server.port)) as there:
        there.settimeout(60)
        there.sendall(b"GET /licences.txt HTTP/1.1\r\nHost: localhost\r\n\r\n")
        assert there.recv(100).startswith(b"HTTP/1.1 200")
        there.sendall(b"GET /api/state HTTP/1.1\r\nHost:")
        while there.recv(65_536):
            pass  # the rest of the first answer; then it is closed


def test_who_listens_to_changes_is_left_alone(run, monkeypatch):
    monkeypatch.setattr(patience, "SILENT_S", 0.2)
    with urlopen(f"{run.address}/api/events", timeout=60) as stream:
        assert stream.readline().startswith(b"event: change")
        time.sleep(1.0)  # five looks
        ask(f"{run.address}/api/level", "PUT", {"value": 0.5})
        until(lambda: b'"level":0.5' in stream.readline(), "the change")


def test_a_flood_of_calls_is_held_back_and_others_are_answered_again_soon(run, monkeypatch):
    monkeypatch.setattr(app_room, "MOST_AT_ONCE", 30)
    monkeypatch.setattr(app_room, "MOST_A_SECOND", 5)  # fewer than the slowest machine asks
    answers = [ask(f"{run.address}/api/level", "PUT", {"value": 0.5})[0] for _ in range(150)]
    assert answers[:20] == [200] * 20 or answers.count(200) >= 20
    assert 429 in answers
    monkeypatch.setattr(app_room, "MOST_A_SECOND", 120)
    until(lambda: ask(f"{run.address}/api/state")[0] == 200, "an answer")


def test_a_page_that_reads_nothing_is_sent_little_and_then_dropped(run, monkeypatch):
    from fendra.page.served import streams

    monkeypatch.setattr(streams, "PATIENCE_S", 1.0)
    with ws(f"{run.address.replace('http', 'ws')}/live", max_queue=None) as page:
        told = everything(page)
    assert len(told) == 1 + streams.WINDOW  # the hello, and what may be on the way
    until(lambda: run.served.watch.viewers == 0, "the end of the page")


@pytest.mark.parametrize("said", ["x", "-1", "9" * 50, b"\x00", '{"kind":"state"}', "1" * 5000])
def test_a_page_that_talks_nonsense_is_dropped(run, said):
    with ws(f"{run.address.replace('http', 'ws')}/live") as page:
        page.send(said)
        everything(page)


def test_every_answer_carries_the_rules_for_browsers(run):

    for path in ("/", "/panel", "/live.js", "/api/state", "/licences.txt"):
        with urlopen(f"{run.address}{path}") as answer:
            rules = answer.headers["Content-Security-Policy"]
            assert "default-src 'none'" in rules
            assert "frame-ancestors 'none'" in rules
            assert answer.headers["X-Content-Type-Options"] == "nosniff"
            assert "access-control-allow-origin" not in answer.headers
            assert "server" not in answer.headers


def test_tls_by_given_files_and_wrong_ones_are_told(serve, design_file, tmp_path):
    import shutil
    import ssl

    if shutil.which("openssl") is None:
        pytest.skip("no openssl here to make a certificate with")
    cert, key = tmp_path / "cert.pem", tmp_path / "key.pem"
    words = [
        "req",
        "-x509",
        "-newkey",
        "rsa:2048",
        "-nodes",
        "-keyout",
        key,
        "-out",
        cert,
        "-days",
        "2",
    ]
    subprocess.run(["openssl", *words, "-subj", "/CN=localhost"], check=True, capture_output=True)
    run = serve(Running, design_file, certificate=cert, key=key)
    trusting = ssl.create_default_context(cafile=str(cert))
    trusting.check_hostname = False
    with urlopen(f"{run.address}/api/state", context=trusting) as answer:
        assert json.load(answer)["design"] == "Heron"
    server = Server(Place(port=0, certificate=key, key=cert))
    try:
        with pytest.raises(PageError, match="certificate or its key cannot be used"):
            server.serve(run.served)
    finally:
        server.socket.close()


def test_places_are_read_and_taken_ones_are_told():
    assert (place_of("").host, place_of("").port, place_of("").is_open) == ("127.0.0.1", 0, False)
    assert place_of("0.0.0.0:8080").is_open
    assert place_of("", 99).port == 99
    for wrong in ("a:b", "1.2.3.4:99999", "[::1]:x"):
        with pytest.raises(PageError, match="is not an address for a page"):
            place_of(wrong)
    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = taken.getsockname()[1]
        with pytest.raises(
            PageError, match=f"the page cannot be served on 127.0.0.1:{port}: .*in use"
        ):
            Server(Place(port=port))


def test_a_cue_file_of_somebody_else_is_refused_and_not_lost(run):
    path = run.path.with_name("heron.cues.json")
    for wrong in (
        '{"a": {"signals": {"speed": ["x"]}}}',
        "[1]",
        "{",
        '{"a": {"run": "rm"}}',
        '{"a": {"level": 1e999}}',
    ):
        path.write_text(wrong, encoding="utf-8")
        assert ask(f"{run.address}/api/cues/new", "PUT")[0] == 422
        assert path.read_text(encoding="utf-8") == wrong
        assert ask(f"{run.address}/api/state")[1]["cues"] == []


ODD = [
    None, [], "x", 7, True, {}, {"value": None}, {"value": {}}, {"value": [[]]}, {"value": "\0"},
    {"value": 1e308}, {"value": -0.0}, {"value": [1] * 999}, {"value": "a" * 5000}, {"value": {"x": {}}},
    {"value": {"strength": "x", "y": []}}, {"value": "0x"}, {"value": "#12345"}, {"signals": {"speed": {}}},
    {"signals": {"": 1}}, {"signals": {"speed": "nan", "left": []}}, {"pattern": ""}, {"pattern": "walk", "line": ""},
    {"by": 10**6}, {"by": "1"}, {"text": ""}, {"text": "red=red=red green"}, {"text": "=" * 300}, {"way": 0}, {"way": 99},
    {"text": "\0", "version": ""}, {"text": "[" * 2000, "version": ""}, {"edits": [], "version": ""},
    *({"edits": [edit], "version": "VERSION"} for edit in (
        {}, {"do": None}, {"do": "move"}, {"do": "move", "part": None, "by": None},
        {"do": "move", "part": "tail-bar", "by": ["x", 1, 2]}, {"do": "move", "part": "tail-bar", "by": [1e300, 0, 0]},
        {"do": "turn", "part": "tail-bar", "degrees": "NaN"}, {"do": "turn", "part": "tail-bar", "degrees": None},
        {"do": "led", "part": "tail-bar", "index": 99, "by": [0, 0, 0]}, {"do": "set", "path": "line", "key": 1, "value": {}},
        {"do": "set", "path": [], "key": "name", "value": [[{}]]}, {"do": "set", "path": ["line", -9], "key": "x", "value": 1},
        {"do": "set", "path": ["name", "x"], "key": "x", "value": 1}, {"do": "set", "path": [{}], "key": "x", "value": 1},
        {"do": "set", "path": [], "key": "line", "value": None}, {"do": "group", "name": "", "of": None},
        {"do": "group", "name": "a\nb", "of": "all"}, {"do": "trail", "name": "t", "of": {"join": [{}]}},
        {"do": "layer", "values": None}, {"do": "layer", "values": {"a\nb": 1}}, {"do": "layer", "values": {"blend": {}}},
        {"do": "layer", "values": {"name": float("inf")}},
    )),
]  # fmt: skip


@pytest.mark.parametrize("kind", ["run", "bench"])
def test_no_odd_answer_to_any_call_is_a_fault_or_hurts_the_design(
    serve, design_file, kind, monkeypatch
):
    """Each call that takes something gets all of these; what it does is done or refused in words."""
    monkeypatch.setattr(app_room, "MOST_A_SECOND", 10**6)
    server = serve(Running if kind == "run" else OnBench, design_file)
    before = design_file.read_text(encoding="utf-8")
    for call in (each for each in CALLS if each.method != "GET" and each.path != "/api/design"):
        path = call.path.replace(":path", "")
        names = ["speed", "%00", "..", "a" * 300, "%F0%9F%9A%B2"] if "{name}" in path else [""]
        for name in names:
            for odd in ODD if call.body is not None else [None]:
                version = version_of(design_file.read_bytes().decode())
                body = json.loads(json.dumps(odd).replace("VERSION", version))
                address = f"{server.address}{path.replace('{name}', name)}"
                status, answer = ask(address, call.method, body)
                assert status < 500, (call.method, path, name, odd, answer)
                assert status == 200 or "problem" in answer or status in (404, 405)
    assert (
        tomllib.loads(design_file.read_text(encoding="utf-8"))["line"]
        == tomllib.loads(before)["line"]
    )
    assert ask(f"{server.address}/api/state")[0] == 200


def test_the_end_closes_the_connection_of_one_who_reads_nothing(design_file):
    """Python tells of a socket that nobody closed, when it is thrown away."""
    page = Running(design_file)
    with socket.socket() as lazy:
        lazy.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 4096)
        lazy.connect(("127.0.0.1", page.server.port))
        for _ in range(200):  # some megabytes of answers
            lazy.sendall(
                f"GET /live.js HTTP/1.1\r\nHost: 127.0.0.1:{page.server.port}\r\n\r\n".encode()
            )
        until(lambda: len(lazy.recv(1)) == 1, "the first byte")
        page.end()
    with warnings.catch_warnings(record=True) as told:
        warnings.simplefilter("always")
        gc.collect()
    assert [str(each.message) for each in told if each.category is ResourceWarning] == []
