"""The server's own part: every request passes the gate, then does what its call says."""

from __future__ import annotations

import asyncio
import contextlib
import json
import time
from collections.abc import AsyncIterator
from importlib.resources import files
from typing import Any

from pydantic import BaseModel, ValidationError
from starlette.applications import Starlette
from starlette.requests import ClientDisconnect, Request
from starlette.responses import JSONResponse, Response, StreamingResponse
from starlette.routing import Route, WebSocketRoute
from starlette.types import ASGIApp, Message, Receive, Scope, Send
from starlette.websockets import WebSocket, WebSocketDisconnect

from fendra.core.errors import internal_error
from fendra.core.quoting import in_lines
from fendra.page.data import State
from fendra.page.served.access import Refusal, Right, needs, token_of
from fendra.page.served.calls import CALLS, Call, openapi
from fendra.page.served.served import Served
from fendra.page.served.streams import bare

MOST_A_SECOND, MOST_AT_ONCE = 120, 400
"""Calls of one address: in the long run, and in a burst."""
BODY_S = 10.0
"""Seconds that a request's body may take to arrive."""
RULES = (
    "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' "
    "data: blob:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
)
HEADERS = {
    "Content-Security-Policy": RULES,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Cache-Control": "no-store",
}
FILES = {
    "/": ("live.html", "text/html"),
    "/panel": ("live.html", "text/html"),
    "/live.js": ("built/live.js", "text/javascript"),
    "/live.css": ("built/live.css", "text/css"),
    "/licences.txt": ("built/live-licences.txt", "text/plain"),
}
"""Files that are the same for everybody, and contain nothing of a design."""


def make_app(served: Served) -> Starlette:
    """Make the application that serves a page."""
    floods = Floods()

    async def checked(request: Request, wanted: Right) -> Right:
        peer = request.client.host if request.client else ""
        floods.check(peer)
        right = await served.gate.right(token_of(request.headers), peer)
        needs(right, wanted)
        return right

    def route_of(call: Call) -> Route:
        async def answer(request: Request) -> Response:
            right = await checked(request, call.needs)
            body = await _body_of(request, call)
            found = await call.run(served, request.path_params, body)
            if isinstance(found, State) and right < Right.STEER:
                found = bare(found)
            if isinstance(found, bytes):
                return Response(found, media_type=call.media)
            return JSONResponse(_plain({"done": True} if found is None else found))

        return Route(call.path, answer, methods=[call.method])

    async def described(request: Request) -> Response:
        await checked(request, Right.LOOK)
        return JSONResponse(openapi())

    async def events(request: Request) -> Response:
        right = await checked(request, Right.LOOK)
        return StreamingResponse(served.streams.events(right), media_type="text/event-stream")

    async def file(request: Request) -> Response:
        name, kind = FILES[request.url.path]
        return Response(files("fendra.page").joinpath(name).read_bytes(), media_type=kind)

    async def live(socket: WebSocket) -> None:
        peer = socket.client.host if socket.client else ""
        asked = socket.scope.get("subprotocols", [])
        try:
            floods.check(peer)
            right = await served.gate.right(token_of(socket.headers, asked), peer)
            needs(right, Right.LOOK)
        except Refusal as refusal:
            # Accepted first, so that the page learns why: browsers do not tell it of an answer.
            await socket.accept("fendra" if "fendra" in asked else None)
            await socket.close(4000 + refusal.status, refusal.why[:100])
            return
        await socket.accept("fendra" if "fendra" in asked else None)
        with contextlib.suppress(RuntimeError, WebSocketDisconnect):  # it goes when it likes
            await served.streams.serve(socket, right)
            await socket.close(1000)

    @contextlib.asynccontextmanager
    async def lifespan(_: Starlette) -> AsyncIterator[None]:
        served.streams.start()
        telling = asyncio.create_task(served.streams.keep_telling())
        yield
        telling.cancel()

    app = Starlette(
        routes=[
            *(Route(path, file, methods=["GET"]) for path in FILES),
            *map(route_of, CALLS),
            Route("/api/openapi.json", described, methods=["GET"]),
            Route("/api/events", events, methods=["GET"]),
            WebSocketRoute("/live", live),
        ],
        exception_handlers={Refusal: _refused, Exception: _failed},
        lifespan=lifespan,
    )
    app.add_middleware(Door, served=served)
    return app


class Door:
    """Looks at host and origin of whatever comes, and puts the rules onto whatever goes."""

    def __init__(self, app: ASGIApp, served: Served) -> None:
        self._app, self._served = app, served

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] not in ("http", "websocket"):
            await self._app(scope, receive, send)
            return
        headers = {k.decode("latin-1"): v.decode("latin-1") for k, v in scope["headers"]}
        said = str(scope["scheme"])
        scheme = {"ws": "http", "wss": "https"}.get(said, said)

        async def send_with_rules(message: Message) -> None:
            if message["type"] in ("http.response.start", "websocket.http.response.start"):
                rules = [(key.lower().encode(), value.encode()) for key, value in HEADERS.items()]
                message["headers"] = [*message.get("headers", []), *rules]
            await send(message)

        try:
            # What is the same for everybody may be led to from anywhere, as from a bookmark page.
            is_shell = scope["type"] == "http" and scope["path"] in FILES
            self._served.gate.check_place(headers, scheme, is_shell=is_shell)
        except Refusal as refusal:
            if scope["type"] == "websocket":
                await receive()
                await send({"type": "websocket.close", "code": 4000 + refusal.status})
            else:
                await _answer(refusal)(scope, receive, send_with_rules)
            return
        await self._app(scope, receive, send_with_rules)


class Floods:
    """How many calls each address has left: each gets this many a second, and can save up some."""

    MOST = 1000

    def __init__(self) -> None:
        self._left: dict[str, tuple[float, float]] = {}

    def check(self, peer: str) -> None:
        """Raises Refusal if there are too many."""
        now_s = time.perf_counter()
        left, at_s = self._left.pop(peer, (float(MOST_AT_ONCE), now_s))
        left = min(left + (now_s - at_s) * MOST_A_SECOND, float(MOST_AT_ONCE))
        if len(self._left) >= self.MOST:
            self._left.pop(next(iter(self._left)))
        self._left[peer] = max(left - 1, 0.0), now_s
        if left < 1:
            raise Refusal(429, "too many calls; wait a moment")


async def _body_of(request: Request, call: Call) -> Any:
    """The body of a request, checked by its model. Raises Refusal."""
    if call.body is None:
        return None
    said = request.headers.get("content-length", "0")
    if said.isdigit() and int(said) > call.most:
        raise Refusal(413, f"the body is too large: the limit is {call.most} bytes")
    kind = request.headers.get("content-type", "application/json").partition(";")[0].strip().lower()
    if kind not in ("application/json", "application/x-www-form-urlencoded"):
        raise Refusal(415, "send JSON")
    pieces: list[bytes] = []
    size = 0
    try:
        async with asyncio.timeout(BODY_S):
            async for piece in request.stream():
                size += len(piece)
                if size > call.most:
                    raise Refusal(413, f"the body is too large: the limit is {call.most} bytes")
                pieces.append(piece)
    except TimeoutError as exc:
        raise Refusal(408, "the body arrived too slowly") from exc
    except ClientDisconnect as exc:
        raise Refusal(400, "the connection was closed") from exc
    try:
        return call.body.model_validate(json.loads(b"".join(pieces)))
    except (ValidationError, ValueError, RecursionError) as exc:
        first = exc.errors()[0]["msg"] if isinstance(exc, ValidationError) else "no JSON"
        example = json.dumps(call.example)
        raise Refusal(422, f"the body: {first}; write it as in {example}") from exc


def _plain(found: Any) -> Any:
    if isinstance(found, BaseModel):
        return found.model_dump(mode="json")
    if isinstance(found, list):
        return [_plain(each) for each in found]
    return found


def _answer(refusal: Refusal) -> JSONResponse:
    headers = {"WWW-Authenticate": "Bearer"} if refusal.status == 401 else {}
    if refusal.status == 429:
        headers["Retry-After"] = "60"
    return JSONResponse({"problem": in_lines(refusal.why)}, refusal.status, headers)


async def _refused(_: Request, exc: Exception) -> Response:
    assert isinstance(exc, Refusal)
    return _answer(exc)


async def _failed(request: Request, exc: Exception) -> Response:
    return JSONResponse({"problem": internal_error(exc, f"in {request.url.path}")}, 500)
