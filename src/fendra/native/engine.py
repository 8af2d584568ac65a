"""The native engine: a library of the emitted C, called with NumPy's arrays."""

from __future__ import annotations

import ctypes
from collections.abc import Callable, Mapping, Set
from functools import cache
from hashlib import sha256
from pathlib import Path

import numpy as np

from fendra import core
from fendra.core.arrays import Array
from fendra.core.composition.plan import Plan
from fendra.core.electric.limiter import FULL
from fendra.core.engines.c99 import Emitted, emit
from fendra.core.engines.c99.text import without_comments
from fendra.core.engines.engine import Engine
from fendra.core.errors import EngineError
from fendra.core.quoting import c_string
from fendra.native.compiler import find_compiler
from fendra.native.store import find_or_make, forget

SIGNAL = np.dtype([("value", np.float32), ("is_new", np.bool_)], align=True)
"""One signal as the emitted code takes it."""
AT_ONCE = 1024
"""LEDs painted at a time: their light stays in the processor's nearest cache."""
_FLOATS = SIGNAL.itemsize // np.dtype(np.float32).itemsize

_WRAPPER = """
#ifdef _WIN32
#define GIVEN __declspec(dllexport)
#else
#define GIVEN
#endif

GIVEN unsigned long fendra_size(void)
{
    return sizeof(struct NAME);
}

GIVEN void fendra_init(struct NAME *state)
{
    NAME_init(state);
}

GIVEN void fendra_film(struct NAME *state, const struct NAME_signals *signals,
    const uint32_t *now_ms, long frames, uint8_t (*rgb)[LEDS][3], uint32_t *gains)
{
    for (long i = 0; i < frames; i++) {
        frame(state, &signals[i], now_ms[i], rgb[i]);
GAINS    }
    (void)gains;
}

GIVEN void fendra_light(struct NAME *state, const struct NAME_signals *signals, uint32_t now_ms,
    float light[3][LEDS], float *master)
{
    struct light part;
    advance(state, signals, now_ms);
    for (int first = 0; first < LEDS; first += AT_ONCE) {
        const int end = earlier(LEDS, first + AT_ONCE);
        paint(&state->now, first, end, &part);
        for (int i = first; i < end; i++) {
            light[0][i] = part.red[i - first];
            light[1][i] = part.green[i - first];
            light[2][i] = part.blue[i - first];
        }
    }
    *master = state->now.master;
}

GIVEN const char *fendra_cells(void)
{
    return CELLS;
}

GIVEN void fendra_memory(const struct NAME *state, double *held)
{
MEMORY    (void)state;
    (void)held;
}

GIVEN void fendra_recall(struct NAME *state, const double *held, uint32_t last_ms)
{
RECALL    (void)held;
    state->last_ms = last_ms;
    state->has_begun = true;
}

GIVEN const char *fendra_pictures(void)
{
    return PICTURES;
}

GIVEN void fendra_show(struct NAME *state, const float (*const pictures[])[3])
{
SHOW    (void)state;
    (void)pictures;
}
"""


def library_text(emitted: Emitted) -> str:
    """The emitted C as one text without comments, with what Python calls at its end.

    Without comments, since a design with other line numbers needs no other library.
    """
    source = emitted.source.replace(f'#include "{emitted.name}.h"\n', "")
    wrapper = _WRAPPER.replace("NAME", emitted.name)
    wrapper = wrapper.replace("LEDS", f"{emitted.name.upper()}_LEDS")
    gains = (f"        *gains++ = state->{field};\n" for field in emitted.gains)
    wrapper = wrapper.replace("GAINS", "".join(gains))
    cells = [*enumerate(emitted.cells.values())]
    held = (f"    held[{i}] = (double)state->{field};\n" for i, (field, _) in cells)
    back = (f"    state->{field} = ({kind})held[{i}];\n" for i, (field, kind) in cells)
    wrapper = wrapper.replace("MEMORY", "".join(held)).replace("RECALL", "".join(back))
    wrapper = wrapper.replace("CELLS", c_string("\n".join(emitted.cells)))
    fields = enumerate(emitted.pictures.values())
    shown = (f"    state->{field} = pictures[{i}];\n" for i, field in fields)
    wrapper = wrapper.replace("SHOW", "".join(shown))
    wrapper = wrapper.replace("PICTURES", c_string("\n".join(emitted.pictures)))
    text = f"#define AT_ONCE {AT_ONCE}\n{emitted.header}{source}{wrapper}"
    return without_comments(text)


def plan_identity(plan: Plan) -> str:
    """A digest that differs between plans that run differently."""
    graph = plan.graph
    digest = sha256()
    for node in graph.nodes:
        digest.update(
            repr(
                (node.op, node.args, str(node.kind), node.width, node.payload, node.space)
            ).encode()
        )
    digest.update(repr((sorted(graph.roots.items()), sorted(graph.start.items()))).encode())
    rest = (plan.steps, plan.spot_count, plan.fed)
    digest.update(repr(rest).encode())
    for key, values in (*sorted(plan.columns.items()), *sorted(plan.spots.items())):
        digest.update(repr((key, values.dtype.str, values.shape)).encode())
        digest.update(np.ascontiguousarray(values).tobytes())
    return digest.hexdigest()


@cache
def emitter_identity() -> str:
    """A digest that differs between versions of the emitter.

    It covers all of the core, because every room may shape the code, and NumPy, which writes the
    numbers.
    """
    digest = sha256(np.__version__.encode())
    for path in (Path(__file__), *sorted(Path(core.__path__[0]).rglob("*.py"))):
        digest.update(path.read_bytes())
    return digest.hexdigest()


class NativeEngine(Engine):
    """Runs a plan in the machine's own code.

    Raises EngineError if there is no compiler, or if it fails.
    """

    name = "native"

    def __init__(self, plan: Plan) -> None:
        super().__init__(plan)
        self._library = _load(plan)
        fed = plan.fed
        self._places = {name: column * _FLOATS for column, name in enumerate(fed)}
        self._signals = np.zeros(max(len(fed), 1), SIGNAL)
        self._floats = self._signals.view(np.uint8).data.cast("f")  # quicker than NumPy
        self._heard: Set[str] = frozenset()
        self._now_ms = np.zeros(1, np.uint32)
        self._memory = ctypes.create_string_buffer(self._library.fendra_size())
        self._state = ctypes.addressof(self._memory)
        self._light = np.zeros((3, plan.spot_count), np.float32)
        self._master = np.zeros(1, np.float32)
        self._gains = np.zeros(max(len(plan.limits), 1), np.uint32)
        self._cells = [*filter(None, self._library.fendra_cells().decode().split("\n"))]
        self._held = np.zeros(max(len(self._cells), 1), np.float64)
        names = filter(None, self._library.fendra_pictures().decode().split("\n"))
        self._pictures = {name: np.zeros((plan.spot_count, 3), np.float32) for name in names}
        addresses = [*map(_address, self._pictures.values())]
        self._shown = (ctypes.c_void_p * max(len(addresses), 1))(*addresses)
        self._film = self._library.fendra_film
        self._gains_at = self._gains.ctypes.data
        self._signals_at, self._now_at = self._signals.ctypes.data, self._now_ms.ctypes.data
        self.reset()

    def reset(self) -> None:
        self._library.fendra_init(self._state)
        self._library.fendra_show(self._state, self._shown)
        for light in self._pictures.values():
            light.fill(0.0)
        self._signals[...] = 0
        self._gains[...] = FULL
        self._heard = frozenset()

    def picture(self, name: str, light: Array) -> None:
        if name in self._pictures:
            np.copyto(self._pictures[name], light)

    def light(self, now_ms: int, news: Mapping[str, float]) -> tuple[Array, np.float32]:
        self._hear(news)
        self._library.fendra_light(
            self._state, self._signals_at, now_ms, _address(self._light), _address(self._master)
        )
        return self._light, self._master[0]

    def frame(self, now_ms: int, news: Mapping[str, float], out: Array) -> None:
        self._hear(news)
        self._now_ms[0] = now_ms
        self._film(self._state, self._signals_at, self._now_at, 1, _address(out), self._gains_at)

    def memory(self) -> dict[str, float]:
        self._library.fendra_memory(self._state, _address(self._held))
        return dict(zip(self._cells, self._held.tolist(), strict=False))

    def recall(self, memory: Mapping[str, float], last_ms: int) -> None:
        held = self.memory() | {name: memory[name] for name in self._cells if name in memory}
        self._held[: len(held)] = [*held.values()]
        self._library.fendra_recall(self._state, _address(self._held), last_ms)

    def gains(self) -> list[int]:
        return [*map(int, self._gains[: len(self.plan.limits)])]

    def film(self, times_ms: Array, values: Array, is_new: Array, out: Array, gains: Array) -> None:
        signals = np.zeros((len(times_ms), len(self._signals)), SIGNAL)
        if self._places:
            signals["value"], signals["is_new"] = values, is_new
        times = np.ascontiguousarray(times_ms, np.uint32)
        held = gains if gains.size else self._gains
        arrays = (signals, times, out, held)
        into = [_address(array) for array in arrays]
        self._film(self._state, into[0], into[1], len(times), into[2], into[3])
        self._gains[: gains.shape[1]] = gains[-1]
        self._signals[...] = signals[-1]
        self._signals["is_new"] = False
        self._heard = frozenset()

    def _hear(self, news: Mapping[str, float]) -> None:
        if news.keys() != self._heard:
            self._heard = frozenset(news)
            self._signals["is_new"][: len(self._places)] = [name in news for name in self._places]
        floats, places = self._floats, self._places
        for name, value in news.items():
            floats[places[name]] = value


def _address(array: Array) -> int:
    """Where an array's data are; the array has no gaps and can be written to."""
    return ctypes.addressof(ctypes.c_char.from_buffer(array.data))


def _open(made_from: str, make: Callable[[Path], None]) -> ctypes.CDLL:
    """Load a library from the store. One that cannot be used is not kept. Raises OSError."""
    path, stays = find_or_make(made_from, make)
    try:
        return _declared(ctypes.CDLL(str(path)))
    except AttributeError as exc:
        stays = False
        raise OSError(f"it lacks what Fendra calls: {exc}") from exc
    except OSError:
        stays = False
        raise
    finally:
        if not stays:
            forget(path)


def _load(plan: Plan) -> ctypes.CDLL:
    """The library of a plan, compiled if it is not there yet."""
    compiler = find_compiler()
    made_from = f"{compiler.identity}\n{emitter_identity()}\n{plan_identity(plan)}"

    def make(target: Path) -> None:
        compiler.make_library(library_text(emit(plan)), target)

    try:
        return _open(made_from, make)
    except OSError:  # cut short by a full disk, or the like: once more
        try:
            return _open(made_from, make)
        except OSError as exc:
            raise EngineError(f"compiled code cannot be kept or loaded: {exc}.") from exc


def _declared(library: ctypes.CDLL) -> ctypes.CDLL:
    """A library with the types of the functions that Fendra calls. Raises AttributeError."""
    pointer = ctypes.c_void_p
    library.fendra_size.restype = ctypes.c_ulong
    library.fendra_size.argtypes = []
    library.fendra_init.argtypes = [pointer]
    library.fendra_film.argtypes = [pointer, pointer, pointer, ctypes.c_long, pointer, pointer]
    library.fendra_light.argtypes = [pointer, pointer, ctypes.c_uint32, pointer, pointer]
    library.fendra_cells.restype = ctypes.c_char_p
    library.fendra_cells.argtypes = []
    library.fendra_pictures.restype = ctypes.c_char_p
    library.fendra_pictures.argtypes = []
    library.fendra_show.argtypes = [pointer, pointer]
    library.fendra_memory.argtypes = [pointer, pointer]
    library.fendra_recall.argtypes = [pointer, pointer, ctypes.c_uint32]
    for name in ("init", "film", "light", "memory", "recall", "show"):
        getattr(library, f"fendra_{name}").restype = None
    return library
