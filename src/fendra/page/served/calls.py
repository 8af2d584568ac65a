"""Calls: all that can be asked over HTTP, in one table, from which its description is made too."""

# ruff: noqa: ARG005 - all works of the table take the same

from __future__ import annotations

import asyncio
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any, TypeAlias, TypeVar

from pydantic import BaseModel, ConfigDict, Field

from fendra.core.errors import FendraError, SignalError
from fendra.core.version import VERSION
from fendra.live.steering import Steering
from fendra.page import data
from fendra.page.served.access import Refusal, Right
from fendra.page.served.bench import LiveBench
from fendra.page.served.cues import Cues
from fendra.page.served.desk import Desk, StaleError
from fendra.page.served.served import Served

SMALL, LARGE = 16_384, 2_200_000
"""Bytes of what may be sent along: of most calls, and of those that bring a design's text."""


class Body(BaseModel):
    """The body of a call."""

    model_config = ConfigDict(extra="forbid")


class Value(Body):
    """value: the new value."""

    value: Any = None


class Several(Body):
    """signals: values by the names of signals; null releases one."""

    signals: Annotated[dict[str, Any], Field(max_length=200)]


class Pattern(Body):
    """pattern: its name. line, part: only these; all by default."""

    pattern: str
    line: str | None = None
    part: str | None = None


class Step(Body):
    """by: how many steps forward, or back if negative."""

    by: Annotated[int, Field(ge=-1000, le=1000)] = 1


class Saw(Body):
    """text: what you saw, as for `fendra probe --saw`."""

    text: Annotated[str, Field(max_length=400)]


class Way(Body):
    """way: which cure, counted from 0."""

    way: Annotated[int, Field(ge=0, le=100)]


class Text(Body):
    """text: the new text of the design. version: of the text that it replaces; empty to check."""

    text: str
    version: str = ""


class Edits(Body):
    """edits: tables, each with `do` and its keys. version: of the text to change, or the newest."""

    edits: Annotated[list[dict[str, Any]], Field(min_length=1, max_length=200)]
    version: str | None = None


T = TypeVar("T")
_MISSING = re.compile(r"\b(there is|has) no\b")

Answer: TypeAlias = "BaseModel | dict[str, Any] | list[Any] | bytes | None"
Work: TypeAlias = Callable[[Served, Mapping[str, str], Any], Answer]
"""From the served run, the names in the path, and the body, to the answer."""


@dataclass(frozen=True)
class Call:
    """One call of the interface.

    needs: the right that it takes. about: what it does, in a sentence. work: does it; is_slow: in
    its own thread. body: the model of the request's body, at most `most` bytes. answers: the model
    of the answer. media: its type, if it is not JSON.
    """

    method: str
    path: str
    needs: Right
    about: str
    work: Work
    body: type[Body] | None = None
    answers: type[BaseModel] | None = None
    is_slow: bool = False
    most: int = SMALL
    media: str = "application/json"
    example: Any = field(default=None)

    async def run(self, served: Served, named: Mapping[str, str], body: Any) -> Answer:
        """The answer. Raises Refusal for what cannot be done."""
        try:
            if self.is_slow:
                return await asyncio.to_thread(self.work, served, named, body)
            return self.work(served, named, body)
        except StaleError as exc:
            raise Refusal(409, str(exc)) from exc
        except (FendraError, ValueError) as exc:
            status = 404 if _MISSING.search(str(exc)) else 422
            raise Refusal(status, f"{exc}") from exc


def _there(found: T | None, why: str) -> T:
    """The thing that a call is about. Raises Refusal if it is not served."""
    if found is None:
        raise Refusal(404, why)
    return found


def _steering(served: Served) -> Steering:
    return _there(served.steering, "this is the bench: there is no run to steer")


def _cues(served: Served) -> Cues:
    return _there(served.cues, "cues are beside a design's file, and this design has no file")


def _desk(served: Served) -> Desk:
    return _there(served.desk, "this design has no file to change")


def _bench(served: Served) -> LiveBench:
    return _there(served.bench, "this is a run, not the bench; start `fendra probe DESIGN --page`")


def _set(served: Served, named: Mapping[str, str], body: Value) -> None:
    _steering(served).set(named["name"], body.value)


def _set_several(served: Served, _: Mapping[str, str], body: Several) -> None:
    steering = _steering(served)
    unknown = {*body.signals} - {*steering.design.signals}
    if unknown:
        raise SignalError(f"the design has no signal '{min(unknown):.60}'")
    for name, value in body.signals.items():
        if value is None:
            steering.free(name)
        else:
            steering.set(name, value)


def _keep(served: Served, named: Mapping[str, str], _: Any) -> None:
    _cues(served).keep(named["name"], _steering(served).held())
    served.streams.changed()


def _recall(served: Served, named: Mapping[str, str], _: Any) -> None:
    _steering(served).recall(_cues(served).of(named["name"]))


def _drop(served: Served, named: Mapping[str, str], _: Any) -> None:
    _cues(served).drop(named["name"])
    served.streams.changed()


def _release_all(served: Served, _: Mapping[str, str], __: Any) -> None:
    _steering(served).recall({})


def _frame(served: Served, _: Mapping[str, str], __: Any) -> dict[str, Any]:
    frame = served.newest_frame()
    if frame is None:
        raise ValueError("there is no frame yet")
    subject = served.examined.subject
    rgb = served.rgb(frame)
    parts = {
        row.name: rgb[row.spots].tolist()
        for row in subject.layout.parts
        if row.kind == "lit" and row.spots.stop <= len(rgb)
    }
    return {"at_s": frame.at_s, "leds": len(rgb), "parts": parts}


CALLS: tuple[Call, ...] = (
    Call("GET", "/api/state", Right.LOOK, "The state of the run: signals, layers, sources, "
         "outputs, supplies, pace.", lambda s, n, b: s.state(), answers=data.State),
    Call("GET", "/api/frame.json", Right.LOOK, "The newest frame by part: red, green and blue of "
         "each LED, 0 to 255, linear.", _frame),
    Call("GET", "/api/frame.png", Right.LOOK, "The newest frame as a picture.",
         lambda s, n, b: s.picture(), is_slow=True, media="image/png"),
    Call("PUT", "/api/signals/{name}", Right.STEER, "Set a signal by hand. An event or a text "
         "happens once.", _set, body=Value, example={"value": 12.5}),
    Call("DELETE", "/api/signals/{name}", Right.STEER, "Release a signal to its sources.",
         lambda s, n, b: _steering(s).free(n["name"])),
    Call("POST", "/api/signals/{name}/lose", Right.STEER, "Hold back all news of a signal, as if "
         "its source were gone.", lambda s, n, b: _steering(s).lose(n["name"])),
    Call("PUT", "/api/signals", Right.STEER, "Set or release several signals.",
         _set_several, body=Several, example={"signals": {"speed": 12.5, "left": True}}),
    Call("PUT", "/api/level", Right.STEER, "Set the master level, 0 to 1, times the design's.",
         lambda s, n, b: _steering(s).level(b.value), body=Value, example={"value": 0.5}),
    Call("PUT", "/api/on", Right.STEER, "Switch the light on or off.",
         lambda s, n, b: _steering(s).on(b.value), body=Value, example={"value": False}),
    Call("PUT", "/api/scene", Right.STEER, "Show a scene, whatever its condition; null lets the "
         "conditions choose.", lambda s, n, b: _steering(s).scene(b.value), body=Value,
         example={"value": "parked"}),
    Call("PUT", "/api/layers/{name:path}/preset", Right.STEER, "Give a layer a preset; null "
         "restores the design's own.", lambda s, n, b: _steering(s).preset(n["name"], b.value),
         body=Value, is_slow=True, example={"value": "indicator"}),
    Call("POST", "/api/release", Right.STEER, "Release everything that was set by hand.",
         _release_all, is_slow=True),
    Call("PUT", "/api/cues/{name}", Right.STEER, "Store all that is set by hand, under a name.",
         _keep, is_slow=True),
    Call("POST", "/api/cues/{name}", Right.STEER, "Set what was stored under a name, and release "
         "the rest.", _recall, is_slow=True),
    Call("DELETE", "/api/cues/{name}", Right.STEER, "Delete a cue.", _drop, is_slow=True),
    Call("PUT", "/api/bench/pattern", Right.STEER, "Send a pattern.",
         lambda s, n, b: _bench(s).show(b.pattern, b.line, b.part), body=Pattern,
         example={"pattern": "walk", "line": "tail"}),
    Call("POST", "/api/bench/step", Right.STEER, "Go to the next step.",
         lambda s, n, b: _bench(s).next(b.by), body=Step, example={"by": 1}),
    Call("POST", "/api/bench/saw", Right.STEER, "Say what you saw; the answer is what to change.",
         lambda s, n, b: _saw(_bench(s), b.text), body=Saw, answers=data.Bench, is_slow=True,
         example={"text": "green red blue"}),
    Call("POST", "/api/bench/apply", Right.STEER, "Write a cure into the design.",
         lambda s, n, b: _bench(s).apply(b.way), body=Way, is_slow=True, example={"way": 0}),
    Call("GET", "/api/design", Right.OWN, "The design's file, its version, and the findings.",
         lambda s, n, b: _desk(s).sheet(), answers=data.Sheet, is_slow=True),
    Call("PUT", "/api/design", Right.OWN, "Replace the text of the design's file.",
         lambda s, n, b: _desk(s).write(b.text, b.version), body=Text, answers=data.Sheet,
         is_slow=True, most=LARGE),
    Call("POST", "/api/design/check", Right.OWN, "Check a text without saving it.",
         lambda s, n, b: _desk(s).check(b.text), body=Text, is_slow=True, most=LARGE),
    Call("POST", "/api/design/edit", Right.OWN, "Edit the design's file: move and turn parts, set "
         "keys, add groups, trails and layers.", lambda s, n, b: _desk(s).edit(b.edits, b.version),
         body=Edits, answers=data.Sheet, is_slow=True,
         example={"edits": [{"do": "move", "part": "tail-bar", "by": [5, 0, 0]}]}),
    Call("POST", "/api/design/undo", Right.OWN, "Undo the last edit.",
         lambda s, n, b: _desk(s).undo(), answers=data.Sheet, is_slow=True),
    Call("POST", "/api/design/redo", Right.OWN, "Redo the edit that was undone last.",
         lambda s, n, b: _desk(s).redo(), answers=data.Sheet, is_slow=True),
    Call("GET", "/api/design/schema", Right.OWN, "The JSON Schema of designs.",
         lambda s, n, b: _schema(), is_slow=True),
)  # fmt: skip


def _saw(bench: LiveBench, text: str) -> data.Bench:
    bench.saw(text)
    return bench.state()


def _schema() -> dict[str, Any]:
    from fendra.schema import design_schema

    return design_schema()


EVENTS = "Changes as server-sent events: on, level, scene, signals set by hand, lost signals."


def openapi() -> dict[str, Any]:
    """The description of all calls: OpenAPI 3.1."""
    models: dict[str, Any] = {}

    def of(model: type[BaseModel], mode: Any) -> dict[str, str]:
        made = model.model_json_schema(mode=mode, ref_template="#/components/schemas/{model}")
        models.update(made.pop("$defs", {}))
        models[model.__name__] = made
        return {"$ref": f"#/components/schemas/{model.__name__}"}

    paths: dict[str, Any] = {}
    for call in CALLS:
        content: dict[str, Any] = {"schema": {}}
        path = _plain_path(call.path)
        if call.answers is not None:
            content = {"schema": of(call.answers, "serialization")}
        names = [
            {"name": name, "in": "path", "required": True, "schema": {"type": "string"}}
            for name in _names_in(call.path)
        ]
        entry: dict[str, Any] = {
            "summary": call.about,
            "description": f"Needs the right to {call.needs.name.lower()}.",
            "operationId": f"{call.method.lower()}{path.translate(_BARE)}",
            "responses": {
                "200": {"description": "Done.", "content": {call.media: content}},
                **{code: {"description": why} for code, why in _WRONG.items()},
            },
        }
        if names:
            entry["parameters"] = names
        if call.body is not None:
            given: dict[str, Any] = {"schema": of(call.body, "validation")}
            if call.example is not None:
                given["example"] = call.example
            entry["requestBody"] = {"required": True, "content": {"application/json": given}}
        paths.setdefault(path, {})[call.method.lower()] = entry
    stream = {"description": "Goes on.", "content": {"text/event-stream": {"schema": {}}}}
    paths["/api/events"] = {
        "get": {"summary": EVENTS, "operationId": "get_api_events", "responses": {"200": stream}}
    }
    bearer = {"type": "http", "scheme": "bearer"}
    return {
        "openapi": "3.1.0",
        "info": {"title": "Fendra: a run, seen and steered", "version": VERSION},
        "paths": paths,
        "security": [{"token": []}],
        "components": {"schemas": models, "securitySchemes": {"token": bearer}},
    }


def _plain_path(path: str) -> str:
    """A path as OpenAPI writes it."""
    return path.replace(":path", "")


_BARE = str.maketrans("/", "_", "{}")
_WRONG = {
    "401": "No token, or a wrong one.",
    "403": "The token does not allow it, or the request came from another site.",
    "404": "It does not exist.",
    "409": "The file changed meanwhile.",
    "413": "The body is too large.",
    "422": "The body makes no sense here.",
    "429": "Too many calls.",
}


def _names_in(path: str) -> list[str]:
    return re.findall(r"{(\w+)", path)
