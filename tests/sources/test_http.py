"""The HTTP source against a server that behaves well, badly, and not at all."""

from __future__ import annotations

import json
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread

import pytest

from fendra.core.errors import SourceError
from fendra.core.layout import place
from fendra.live.connect import connect
from fendra.sources.http import HttpSource
from helpers import design, layer


@pytest.fixture
def server():
    """Answers every question with what `answer` gives: status, headers and body."""

    class Handler(BaseHTTPRequestHandler):
        def do_GET(self):
            made.heard.append(dict(self.headers))
            status, headers, body = made.answer(self)
            self.send_response(status)
            for name, value in headers.items():
                self.send_header(name, value)
            self.end_headers()
            self.wfile.write(body)

        def log_message(self, *_):
            pass

    made = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
    made.heard = []
    made.answer = lambda _: (200, {}, b"{}")
    made.address = f"http://127.0.0.1:{made.server_address[1]}/light"
    Thread(target=made.serve_forever, daemon=True).start()
    yield made
    made.shutdown()
    made.server_close()


def asked(server, body, **options):
    """What one question gives."""
    text = body if isinstance(body, bytes) else json.dumps(body).encode()
    server.answer = lambda _: (200, {}, text)
    lit = design(layer())
    source = HttpSource(server.address, **options)
    source.open(lit, place(lit))
    return dict(source.read(0.1)), source


def test_what_is_picked_of_an_answer(server):
    told = {
        "light": {"now": {"colour": "#ff8000", "level": 0.5}},
        "list": [{"name": "a", "value": 3}, {"name": "b"}],
    }
    assert asked(server, told, pick="light.now")[0] == {"colour": "#ff8000", "level": 0.5}
    assert asked(server, told, pick="light.now.level")[0] == {"level": 0.5}
    assert asked(server, told, pick="list")[0] == {"a": 3, "b": None}
    assert asked(server, 0.25)[0] == {"value": 0.25}


@pytest.mark.parametrize(
    "body",
    [b"", b"hm", b"\xff\xfe", b"[" * 30_000, b'{"a":' + b"1" * 70_000 + b"}", b'{"light": 1}'],
)
def test_an_answer_that_makes_no_sense_is_counted_and_told(server, body):
    found, source = asked(server, body, pick="glow")
    assert found == {}
    assert source.refused == 1
    assert source.problem


def test_a_redirection_is_not_followed(server):
    server.answer = lambda _: (302, {"Location": "http://evil.example/"}, b"")
    source = HttpSource(server.address)
    with pytest.raises(
        SourceError, match=r"redirects to http://evil.example/; write that address instead"
    ):
        source.read(0.1)


def test_what_has_not_changed_is_not_sent_and_a_token_is(server, monkeypatch):
    monkeypatch.setenv("FENDRA_SHARED", "secret")
    server.answer = lambda _: (200, {"ETag": '"1"'}, b'{"a": 1}')
    source = HttpSource(server.address, token="FENDRA_SHARED", every=0.5)
    lit = design(layer())
    source.open(lit, place(lit))
    assert dict(source.read(0.1)) == {"a": 1}
    server.answer = lambda _: (304, {}, b"")
    while len(server.heard) < 2:
        assert not [*source.read(0.2)]
    assert server.heard[1]["If-None-Match"] == '"1"'
    assert [heard["Authorization"] for heard in server.heard] == ["Bearer secret"] * 2


def test_a_server_that_asks_for_time_gets_it(server):
    server.answer = lambda _: (503, {"Retry-After": "60"}, b"")
    source = HttpSource(server.address, every=0.5)
    with pytest.raises(SourceError, match="503"):
        source.read(0.1)
    assert [source.read(0.01) for _ in range(3)] == [[], [], []]
    assert len(server.heard) == 1


def test_nobody_who_answers_is_told_in_words():
    with pytest.raises(SourceError, match=r"HTTP 127.0.0.1 does not answer"):
        HttpSource("http://127.0.0.1:9/").read(0.1)


def test_a_design_of_a_stranger_asks_no_host_far_away_and_reads_no_secret():
    far = design(layer(), sources={"x": {"type": "http", "address": "http://example.com/a"}})
    with pytest.raises(SourceError, match=r"fendra trust --host example.com"):
        connect(far)
    nosy = design(
        layer(), sources={"x": {"type": "http", "address": "http://pi.local/", "token": "HOME"}}
    )
    with pytest.raises(SourceError, match="begin with FENDRA_"):
        connect(nosy)
    with pytest.raises(SourceError, match="'file:///etc/passwd' is not a web address"):
        HttpSource("file:///etc/passwd")
