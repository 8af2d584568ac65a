"""The page's data about a design, as JSON: `web/src/data.schema.json` is made from this."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict


class Told(BaseModel):
    """A part of the data for a page. Arrays are base64 of little-endian numbers."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class Reading(Told):
    """A number of the newest frame: its place in the module's memory, or its constant value.

    kind: f32, u32 or truth, which is 0 or 1.
    """

    at: int | None = None
    kind: Literal["f32", "u32", "truth"] = "f32"
    value: float | None = None


class Painted(Told):
    """A layer in the module. left_out: a word that is not 0 while the layer is left out. tells: the
    values at one LED, and where they are after a call of `tell<number>`.
    """

    number: int
    on: Reading
    left_out: int
    tells: dict[str, Reading]


class Memory(Told):
    """The addresses in the module's memory. state_end: the end of everything that is kept."""

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
    """Every LED: spot is its row of the layout as uint32, or 0xffffffff if it is skipped; position
    in mm and facing are float32, three each.
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

    rest: the position of its control before the first value. of: the expression that it is computed
    by; then nothing feeds it.
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
    """idle_a: what dark LEDs draw. limit_a: the limiter's budget, else the rating."""

    name: str
    idle_a: float
    limit_a: float | None
    has_limiter: bool


class Course(Told):
    """A tape's values of one number. news: a bit for each frame, the lowest first; values: of
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


class Shown(Told):
    """The visible side of a design. unit_mm: its unit of length."""

    label: str
    name: str
    about: str
    rate: float
    unit_mm: float
    view: str
    leds: Leds
    spots: Spots
    parts: list[str]
    lines: list[Line]
    signals: list[Signal]
    scenes: list[Scene]


class Look(Shown):
    """A design that runs. module: WebAssembly, base64."""

    module: str
    memory: Memory
    layers: list[Layer]
    supplies: list[Supply]
    tape: TapeData | None


class PanelRow(Told):
    """A control of the panel: a signal, or what else hands set."""

    signal: str | None
    control: Literal["level", "on", "scene", "cues"] | None
    name: str


class LiveLook(Shown):
    """A design that runs elsewhere: its frames come one after the other. number: of the look."""

    kind: Literal["look"]
    number: int
    panel: list[PanelRow]


class PageData(Told):
    """All that a page shows. version: of the Fendra that wrote it."""

    version: str
    title: str
    looks: list[Look]


class PlacedPart(Told):
    """A part on the map: what an editor of places needs. path: of its table in the design. middle:
    of its LEDs, x, y and z in the design's unit. spots: its rows of the layout, first and end.
    is_movable: it stands on its own, and can be dragged. written: its keys of places and angles.
    """

    name: str
    shape: str
    path: list[str | int]
    middle: list[float]
    spots: list[int]
    is_movable: bool
    written: dict[str, Any]


class FoundThing(Told):
    """A finding, and the place that it is about."""

    severity: str
    code: str
    message: str
    remedy: str
    line: int | None
    path: list[str | int]


class SheetLayer(Told):
    """A layer as it is written. colours: its keys that hold a colour, as #rrggbb; numbers: those
    that hold a number.
    """

    name: str
    path: list[str | int]
    effect: str
    on: str
    colours: dict[str, str]
    numbers: dict[str, float]


class Sheet(Told):
    """A design's file, as the editor has it. version: changes with every letter of the text."""

    file: str
    text: str
    version: str
    findings: list[FoundThing]
    can_undo: bool
    can_redo: bool
    parts: list[PlacedPart]
    groups: list[str]
    effects: list[str]
    layers: list[SheetLayer]


class Pace(Told):
    """How even a run is. late_ms, late_p99_ms: how late frames began lately, the middle one and one
    in a hundred. left_out: frames that this computer was too late for. loop, page: the share of one
    processor that each takes.
    """

    wanted: float
    now: float
    late_ms: float
    late_p99_ms: float
    left_out: int
    made: int
    loop: float
    page: float


class LiveSignal(Told):
    """A signal. value: as layers read it. raw: the newest value from a source, age_s ago. hand:
    whether a hand has set it, or holds back its new values; held: the numbers that it then has.
    """

    name: str
    value: float | bool | list[float] | None
    raw: Any
    lost: bool
    age_s: float | None
    rate_hz: float
    source: str
    refused: int
    problem: str
    computed: bool
    hand: Literal["set", "lost"] | None
    held: list[float] | None


class LiveLayer(Told):
    """A layer, whether it is on, and the presets that it may have."""

    name: str
    on: bool
    preset: str | None
    presets: list[str]


class LiveSource(Told):
    """A source. problem: why it fails, since_s seconds ago; None while it works."""

    name: str
    what: str
    refused: int
    skipped: int
    ended: bool
    problem: str | None
    since_s: float | None


class LiveOutput(Told):
    """An output. replaced: frames that a newer one took the place of. busy_ms: for one frame."""

    name: str
    what: str
    sent: int
    replaced: int
    busy_ms: float
    problem: str | None
    since_s: float | None


class LiveSupply(Told):
    """A supply. let_through: of the light by its limiter, if it has one: 0 to 1."""

    name: str
    amps: float
    limit_a: float | None
    let_through: float | None


class Bench(Told):
    """The bench: which pattern is shown, what should be seen, and what followed from what was."""

    patterns: list[str]
    pattern: str
    line: str | None
    part: str | None
    lines: list[str]
    parts: list[str]
    words: str
    step: int
    steps: int
    level: float
    amps: list[str]
    asks: list[Ask]
    verdict: str
    is_explained: bool | None
    ways: list[list[str]]
    hint: str
    problem: str


class Ask(Told):
    """A question of the bench. key: what its answer is called; empty if it has no name."""

    key: str
    text: str
    options: list[str]


class State(Told):
    """The state of a run. file: changes whenever the design's file does."""

    kind: Literal["state"]
    design: str
    at_s: float
    running_s: float
    engine: str
    rate: Pace
    on: bool
    level: float
    scene: str | None
    scene_by_hand: str | None
    scenes: list[str]
    signals: list[LiveSignal]
    layers: list[LiveLayer]
    sources: list[LiveSource]
    outputs: list[LiveOutput]
    supplies: list[LiveSupply]
    cues: list[str]
    pages: int
    file: str
    bench: Bench | None


class Hello(Told):
    """The first message to a page: what it may do, and which Fendra serves it."""

    kind: Literal["hello"]
    version: str
    right: int
    has_desk: bool
    is_bench: bool


class Everything(Told):
    """All data for pages, of either kind."""

    page: PageData
    hello: Hello
    live: LiveLook
    state: State
    sheet: Sheet


def schema() -> dict[str, Any]:
    """The JSON Schema of what pages know, without the titles that pydantic makes of names."""
    found: dict[str, Any] = _untitled(Everything.model_json_schema(mode="serialization"))
    return {"title": "Everything", **found}


def _untitled(value: Any) -> Any:
    if not isinstance(value, dict):
        return value
    return {
        key: _untitled(item)
        for key, item in value.items()
        if key != "title" or not isinstance(item, str)
    }
