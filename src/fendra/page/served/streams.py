"""Streams: frames and states to every page that looks, each as quickly as it can take them.

A page says, after every few, how many messages it has had. Where it is behind, nothing is kept for
it: when there is room again it gets the newest frame and the newest state.
"""

from __future__ import annotations

import asyncio
import json
import struct
import time
from collections.abc import AsyncIterator, Callable
from typing import TYPE_CHECKING, Any, Protocol

import numpy as np

from fendra.core.arrays import Bytes
from fendra.core.checks.examine import Examined
from fendra.core.errors import PageError
from fendra.core.film import Frame
from fendra.page import data
from fendra.page.gather import live_look_of
from fendra.page.served.access import Right

if TYPE_CHECKING:
    from starlette.websockets import WebSocket

WINDOW = 12
"""Messages that a page may be behind."""
STATE_S = 0.2
"""Seconds between two messages with the state."""
PATIENCE_S = 30.0
"""A page that has said nothing for so long is gone."""
PING_S = 15.0
HEAD = struct.Struct("<III")
"""Of a frame's message: the look's number, the frame's number, and its time in ms; then red, green
and blue of every spot, as the eye sees them."""


class Source(Protocol):
    """The subject of the streams: a run, or the bench."""

    @property
    def examined(self) -> Examined: ...

    def hello(self, right: Right) -> data.Hello: ...

    def look(self, by: int) -> None: ...

    def newest_frame(self) -> Frame | None: ...

    def rgb(self, frame: Frame) -> Bytes: ...

    def state(self) -> data.State: ...


class Streams:
    """Messages to all pages of a run. Used in the server's own loop, except `frame` and `changed`,
    which any thread may call.
    """

    def __init__(self, served: Source) -> None:
        self._served = served
        self._pages: set[Page] = set()
        self._loop: asyncio.AbstractEventLoop | None = None
        self._is_woken = False
        self._frame: Frame | None = None
        self._sent: tuple[Frame | None, bytes] = (None, b"")
        self._count = 0
        self._look: tuple[Any, str, int] | None = None
        self._states: dict[bool, str] = {}
        self.state_number = 0
        self._looks = 0
        self._told_s = -1e9
        self.cpu_s = 0.0
        self.changes: set[asyncio.Event] = set()

    def start(self) -> None:
        """Begin, in the server's loop."""
        self._loop = asyncio.get_running_loop()

    def frame(self, frame: Frame) -> None:
        """There is a new frame; from any thread, and never waits."""
        self._frame = frame
        if self._loop is not None and not self._is_woken and self._pages:
            self._is_woken = True
            self._soon(self._after_frame)

    def changed(self) -> None:
        """Tell every page at once that something was done by hand; from any thread."""
        if self._loop is not None:
            self._soon(self._tell_state)

    def _soon(self, work: Callable[[], None]) -> None:
        try:
            assert self._loop is not None
            self._loop.call_soon_threadsafe(work)
        except RuntimeError:
            self._loop = None  # the server has ended

    async def keep_telling(self) -> None:
        """Tell the state again and again, while anybody looks, also where no frames come."""
        while True:
            await asyncio.sleep(STATE_S)
            self.cpu_s = time.thread_time()
            for page in self._pages:
                if page.is_gone:
                    page.news.set()
            is_due = time.perf_counter() - self._told_s > 1.5 * STATE_S
            if is_due and (self._pages or self.changes):
                self._tell_state()

    def _tell_state(self) -> None:
        self._told_s = time.perf_counter()
        state = self._served.state()
        self._states = {False: state.model_dump_json(), True: bare(state).model_dump_json()}
        self.state_number += 1
        for change in self.changes:
            change.set()
        self._wake()

    def state_text(self, right: Right) -> str:
        """The newest state, as a message to a user with this right."""
        return self._states[right < Right.STEER]

    def _after_frame(self) -> None:
        """Send right after a frame, when there is most time until the next one."""
        self._is_woken = False
        if time.perf_counter() - self._told_s >= STATE_S:
            self._tell_state()
        else:
            self._wake()

    def _wake(self) -> None:
        for page in self._pages:
            page.news.set()

    def look(self) -> tuple[str, int]:
        """The look of the design as it is now, as a message, and its number."""
        examined = self._served.examined
        if self._look is None or self._look[0] is not examined:
            self._looks += 1
            try:
                look = live_look_of(examined.subject, self._looks)
                text = look.model_dump_json()
            except PageError as exc:
                text = json.dumps({"kind": "refused", "text": str(exc)})
            self._look = examined, text, self._looks
        return self._look[1], self._look[2]

    def newest(self) -> tuple[Frame | None, bytes]:
        """The newest frame, and its message; the same for every page."""
        frame = self._frame
        if frame is not self._sent[0] and frame is not None:
            _, number = self.look()
            rgb = self._served.rgb(frame)
            self._count += 1
            at_ms = round(frame.at_s * 1000) & 0xFFFFFFFF
            head = HEAD.pack(number, self._count & 0xFFFFFFFF, at_ms)
            self._sent = frame, head + np.ascontiguousarray(rgb).tobytes()
        return self._sent

    async def serve(self, socket: WebSocket, right: Right) -> None:
        """Serve one page until it is gone."""
        page = Page(socket)
        self._pages.add(page)
        self._served.look(1)
        self._frame = self._frame or self._served.newest_frame()
        try:
            await socket.send_text(self._served.hello(right).model_dump_json())
            if len(self._pages) == 1 or not self._states:
                self._tell_state()  # the known state is from when somebody last looked
            listening = asyncio.create_task(page.listen())
            sending = asyncio.create_task(page.send(self, right))
            _, left = await asyncio.wait({listening, sending}, return_when=asyncio.FIRST_COMPLETED)
            for task in left:
                task.cancel()
            await asyncio.gather(listening, sending, return_exceptions=True)
        finally:
            self._pages.discard(page)
            self._served.look(-1)

    async def events(self, right: Right) -> AsyncIterator[str]:
        """Changes as server-sent events, a JSON object each; the whole state first."""
        change = asyncio.Event()
        self.changes.add(change)
        self._served.look(1)
        before = ""
        try:
            change.set()
            while True:
                try:
                    await asyncio.wait_for(change.wait(), PING_S)
                except TimeoutError:
                    yield ": still here\n\n"
                    continue
                change.clear()
                state = self._served.state()
                short = in_short(bare(state) if right < Right.STEER else state)
                text = json.dumps(short, separators=(",", ":"))
                if text != before:
                    before = text
                    yield f"event: change\ndata: {text}\n\n"
        finally:
            self.changes.discard(change)
            self._served.look(-1)


def bare(state: data.State) -> data.State:
    """A state for users who may only look: without the addresses of sources and outputs."""

    def hidden(each: Any) -> Any:
        problem = None if each.problem is None else "it does not work"
        return each.model_copy(update={"what": "", "problem": problem})

    return state.model_copy(
        update={
            "sources": [
                hidden(each).model_copy(update={"name": each.name.partition(" ")[0]})
                for each in state.sources
            ],
            "outputs": [hidden(each) for each in state.outputs],
        }
    )


def in_short(state: data.State) -> dict[str, Any]:
    """The part of a state that changes seldom: held values, the scene, lost signals, failures."""
    return {
        "on": state.on,
        "level": state.level,
        "scene": state.scene,
        "scene_by_hand": state.scene_by_hand,
        "by_hand": {each.name: each.held for each in state.signals if each.hand is not None},
        "lost": [each.name for each in state.signals if each.lost],
        "layers": [each.name for each in state.layers if each.on],
        "presets": {each.name: each.preset for each in state.layers if each.preset},
        "cues": state.cues,
        "problems": {
            **{each.name: each.problem for each in state.sources if each.problem},
            **{each.name: each.problem for each in state.outputs if each.problem},
        },
    }


class Page:
    """One page that looks. news: set when there may be something to send."""

    def __init__(self, socket: WebSocket) -> None:
        self._socket = socket
        self.news = asyncio.Event()
        self._given = self._taken = 0
        self._heard_s = time.perf_counter()

    async def listen(self) -> None:
        """Hear how many messages it has had, until it is gone."""
        while True:
            message = await self._socket.receive()
            if message["type"] == "websocket.disconnect":
                return
            text = message.get("text") or ""
            if not (text.isascii() and text.isdigit() and len(text) <= 12):
                return
            self._taken = max(self._taken, min(int(text), self._given))
            self._heard_s = time.perf_counter()
            self.news.set()

    async def send(self, streams: Streams, right: Right) -> None:
        """Send the newest whenever there is room."""
        look, state, shown = 0, 0, None
        self.news.set()
        while True:
            await self.news.wait()
            self.news.clear()
            if self.is_gone:
                return
            text, number = streams.look()
            if number != look:
                look = number
                await self._give(text)
            if not self._is_behind and state != streams.state_number:
                state = streams.state_number
                await self._give(streams.state_text(right))
            if not self._is_behind:
                frame, message = streams.newest()
                if frame is not shown:
                    shown = frame
                    self._given += 1
                    await self._socket.send_bytes(message)

    @property
    def is_gone(self) -> bool:
        """Whether it is behind, and has said nothing for long."""
        return self._is_behind and time.perf_counter() - self._heard_s > PATIENCE_S

    @property
    def _is_behind(self) -> bool:
        return self._given - self._taken >= WINDOW

    async def _give(self, text: str) -> None:
        self._given += 1
        await self._socket.send_text(text)
