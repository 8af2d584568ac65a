"""What the page knows of a design, as JSON: `web/src/data.schema.json` is made from this."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict


class Told(BaseModel):
    """Part of what the page is told. Arrays are base64 of little-endian numbers."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class Reading(Told):
    """A number of the newest frame: where it stands in the module's memory, or what it always is.

    kind: f32, u32 or truth, which is 0 or 1.
    """

    at: int | None = None
    kind: Literal["f32", "u32", "truth"] = "f32"
    value: float | None = None


class Painted(Told):
    """A layer in the module. left_out: a word that is not 0 while it is left out. tells: what is
    told of it at one LED, and where it stands after `tell<number>` has been called.
    """

    number: int
    on: Reading
    left_out: int
    tells: dict[str, Reading]


class Memory(Told):
    """What stands where in the module's memory. state_end: all that is remembered stands before."""

    leds: int
    state_end: int
    signals: dict[str, int]
    limits: dict[str, int]
    canvas: int
    plane: int
    rgb: int
    seen: int
    master: Reading
    scenes: list[Reading]
    layers: list[Painted]
    told: dict[str, Reading]
    draws: dict[str, int]


class Leds(Told):
    """Every LED: spot is its row of the layout as uint32, or 0xffffffff where it is skipped;
    position in mm and facing are float32, three each.
    """

    count: int
    spot: str
    position: str
    facing: str
    outline: list[list[list[float]]]
    spacing_mm: float


class Spots(Told):
    """Every spot, a row of the layout: line, part, address and index in the part, uint32."""

    count: int
    line: str
    part: str
    address: str
    index: str
    names: dict[str, str]


class Line(Told):
    """A data line, and the letters of its channels in the order of the wire."""

    name: str
    order: str


class Word(Told):
    """A word of a choice or text, and its number."""

    word: str
    number: float


class Signal(Told):
    """A signal, and the numbers that feed it. low, high: of its raw values. step: between them.

    rest: where its control stands before there is news. of: the expression that it is computed by;
    then nothing feeds it.
    """

    name: str
    kind: str
    unit: str
    about: str
    of: str
    parts: list[str]
    low: float
    high: float
    step: float
    rest: float
    words: list[Word]


class Layer(Told):
    """A layer as it is written. runs: its spots, as [first, end, place in the layer] each."""

    number: int
    name: str
    effect: str
    on: str
    blend: str
    why: str
    scenes: list[str]
    written: dict[str, str]
    runs: list[list[int]]


class Scene(Told):
    """A scene, and when it is chosen."""

    name: str
    why: str


class Supply(Told):
    """idle_a: what dark LEDs draw. limit_a: what the limiter keeps, else what it is rated for."""

    name: str
    idle_a: float
    limit_a: float | None
    has_limiter: bool


class Course(Told):
    """What a tape says of one number. news: a bit for each frame, the lowest first; values: of
    each frame with news, float32.
    """

    news: str
    values: str


class TapeData(Told):
    """A tape, frame by frame. clock_ms: of each frame, uint32."""

    name: str
    frames: int
    clock_ms: str
    courses: dict[str, Course]


class Look(Told):
    """A design that runs. module: WebAssembly, base64. unit_mm: its unit of length."""

    label: str
    name: str
    about: str
    rate: float
    unit_mm: float
    view: str
    module: str
    memory: Memory
    leds: Leds
    spots: Spots
    parts: list[str]
    lines: list[Line]
    signals: list[Signal]
    layers: list[Layer]
    scenes: list[Scene]
    supplies: list[Supply]
    tape: TapeData | None


class PageData(Told):
    """All that a page shows. version: of the Fendra that wrote it."""

    version: str
    title: str
    looks: list[Look]


def schema() -> dict[str, Any]:
    """The JSON Schema of what a page knows, without the titles that pydantic makes of names."""
    found: dict[str, Any] = _untitled(PageData.model_json_schema(mode="serialization"))
    return {"title": "PageData", **found}


def _untitled(value: Any) -> Any:
    if not isinstance(value, dict):
        return value
    return {
        key: _untitled(item)
        for key, item in value.items()
        if key != "title" or not isinstance(item, str)
    }
