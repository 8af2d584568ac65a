"""The objects of `import fendra`: the core's objects, with files and pictures.

The core knows neither files nor plots; these three classes add them.
"""

from __future__ import annotations

import copy
import warnings
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING, Any, Self

from pydantic import PrivateAttr, ValidationError

from fendra.core import film as core_film
from fendra.core import program as core_program
from fendra.core.checks.examine import Examined, examine
from fendra.core.composition.media import Media
from fendra.core.composition.plan import Plan
from fendra.core.document.design import Design as CoreDesign
from fendra.core.document.guard import too_much
from fendra.core.document.origin import Origin
from fendra.core.document.reading import read_document
from fendra.core.electric.budget import Budget
from fendra.core.engines.engine import Engine
from fendra.core.errors import DesignError, EngineWarning, TrustWarning
from fendra.core.film import Film as CoreFilm
from fendra.core.findings import Finding, Severity, errors_of
from fendra.core.insight.budget import budget_of, needs_film
from fendra.core.insight.explain import Explanation, explain
from fendra.core.insight.timeline import Timeline, timeline_of
from fendra.core.layout import Layout
from fendra.core.layout.spot import spot_of
from fendra.core.program import compile_design
from fendra.core.signals.tape import Tape, needs_tape
from fendra.files.design_file import load_design
from fendra.files.media import read_media
from fendra.files.part_files import fill_in
from fendra.native.choose import choose_engine
from fendra.native.names import EngineName
from fendra.whole import write_text

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

    from fendra.core.engines.c99 import Emitted
    from fendra.core.names import ViewName
    from fendra.firmware.project import Project
    from fendra.live.session import Session
    from fendra.page.write import Page


def _no_table(given: object) -> Finding:
    message = f"a design is a table of its keys; this is a {type(given).__name__}."
    return Finding("wrong-type", Severity.ERROR, message, "See docs/design-file.md.")


class Design(CoreDesign):
    """A design: see [the design file](design-file.md) for its keys, which are attributes here.

    >>> import fendra as fd
    >>> design = fd.Design.from_values({
    ...     "name": "Lamp",
    ...     "line": [{"name": "a", "part": [
    ...         {"name": "bar", "shape": "strip", "start": [0, 0], "end": [70, 0], "count": 8}]}],
    ...     "layer": [{"name": "glow", "on": "bar", "effect": "solid", "colour": "red"}],
    ... })
    >>> design.compile().frame(at=0.0).rgb[0].tolist()
    [255, 0, 0]
    """

    _media: Media = PrivateAttr(default_factory=Media)
    _origin: Origin = PrivateAttr(default_factory=Origin)
    _examined: Examined | None = PrivateAttr(default=None)

    @classmethod
    def from_values(cls, values: Mapping[str, Any], *, folder: str | Path = ".") -> Self:
        """Make a design from plain values: the tables of a file as dicts and lists.

        Args:
            values: the tables
            folder: where the files are that it names

        Raises:
            DesignError: a key, type or range is wrong; it has a finding for each
        """
        if not isinstance(values, Mapping):
            raise DesignError([_no_table(values)])
        if found := too_much(values):
            raise DesignError(found)
        plain = copy.deepcopy(dict(values))
        wrong = fill_in(plain, Path(folder))
        document = read_document(plain, cls)
        if wrong or document.findings:
            raise DesignError([*wrong, *document.findings])
        assert isinstance(document.design, cls)
        media = read_media(document.design, Path(folder))
        return document.design._beside(media, Origin(folder=str(folder)))._told_of_held()

    def with_values(self, values: Mapping[str, Any]) -> Self:
        """Make a design from other plain values, beside the same files. Raises DesignError."""
        try:
            made = type(self).model_validate(dict(values), strict=False)
        except ValidationError:
            found = read_document(copy.deepcopy(dict(values)), type(self)).findings
            raise DesignError(found) from None
        return made._beside(self._media, self._origin)

    def _beside(self, media: Media, origin: Origin, examined: Examined | None = None) -> Self:
        """Keep the contents of the files beside it, its own file, and everything made from it."""
        self._media, self._origin, self._examined = media, origin, examined
        return self

    def _told_of_held(self) -> Self:
        """Warn of Python that may not run; `fd.trust` allows it."""
        for path in self._media.held.values():
            text = f"{path} may not run, and layers that need it are left out: fd.trust({path!r})"
            warnings.warn(text, TrustWarning, stacklevel=3)
        return self

    @property
    def media(self) -> Media:
        """The effects and pictures in the files that it names."""
        return self._media

    @property
    def origin(self) -> Origin:
        """The file and folder that it came from, and the line of each key."""
        return self._origin

    @property
    def examined(self) -> Examined:
        """The placed and recorded design. Fendra makes it once, when you first ask for it."""
        if self._examined is None:
            self._examined = examine(self, media=self._media, origin=self._origin)
        return self._examined

    def model_copy(self, *, update: Mapping[str, Any] | None = None, deep: bool = False) -> Self:
        """Another design; it shares nothing that was made from this one."""
        return super().model_copy(update=update, deep=deep)._beside(self._media, self._origin)

    def layout(self) -> Layout:
        """Where every LED is. `.table()` gives a pandas DataFrame."""
        return self.examined.subject.layout

    def check(self, film: CoreFilm | None = None) -> list[Finding]:
        """List every finding, of any severity; with a film, also about its light."""
        from fendra.live.connect import check_connections

        examined, film = self.examined, needs_film(film)
        found = examined.report if film is None else examined.on_film(lambda _: film)[1]
        folder = Path(self._origin.folder) if self._origin.folder else None
        return [*found, *check_connections(self, folder)]

    def budget(self, film: CoreFilm | None = None) -> Budget:
        """Compute currents, voltages, data and memory; with a film, also what the film draws.

        Raises DesignError with every finding of severity error.

        >>> import fendra as fd
        >>> budget = fd.load(fd.demo_file("heron.toml")).budget()
        >>> [supply] = budget.supplies
        >>> round(supply.white_a, 2), round(supply.most_a, 2), supply.fuse_a
        (7.41, 4.8, 7.5)
        """
        return budget_of(self.examined.sound.plan, film)

    def voltage(self, ax: Axes | None = None, lines: Sequence[str] | None = None) -> Axes:
        """Draw the voltage along lines at full white, as far as the limiter allows.

        Args:
            ax: your axes; new ones by default
            lines: names of lines; all by default

        Returns:
            The axes.

        Raises:
            LayoutError: there is no line of that name
        """
        from fendra.draw.electric import draw_voltage
        from fendra.draw.style import new_axes

        return draw_voltage(self.budget(), ax or new_axes(), lines)

    def sheet(
        self, path: str | Path, film: CoreFilm | None = None, *, view: ViewName | None = None
    ) -> Path:
        """Write the build sheet: one HTML page that opens from disk and prints on A4.

        Args:
            path: the file to write
            film: of a tape, for the currents that the design really draws
            view: the side that the map shows; by default the one that shows most

        Raises DesignError with every finding of severity error, and FileError.
        """
        from fendra.sheet.page import make_page

        subject, report = self.examined.sound, self.examined.report
        if film is not None:
            subject, report = self.examined.on_film(lambda _: film)
        if errors_of(report):
            raise DesignError(errors_of(report))
        return write_text(path, make_page(subject, list(report), view))

    def compile(self, engine: EngineName = "auto", *, frames: int = 0) -> Program:
        """Compile the design to a program.

        Args:
            engine: `numpy`; `native`, code from the machine's C compiler, kept for the next time;
                `wasm`, which needs no compiler but `pip install 'fendra[wasm]'`; or `auto`: native
                for large designs, or wasm if there is no compiler. All give the same light, bit for
                bit.
            frames: how many frames of film you want, so that `auto` takes the quickest engine for
                them

        If an engine is not available, NumPy runs the design, with an `EngineWarning`.

        Raises DesignError with every finding of severity error, and EngineError for an unknown
        engine.

        >>> import fendra as fd
        >>> fd.load(fd.demo_file("heron.toml")).compile(engine="numpy").engine.name
        'numpy'
        """
        notes = []

        def choose(plan: Plan) -> Engine:
            chosen, note = choose_engine(plan, engine, frames)
            notes.append(note)
            return chosen

        program = compile_design(self.examined, Program, choose)
        if notes[0]:
            warnings.warn(notes[0], EngineWarning, stacklevel=2)
        return program

    def live(
        self,
        *,
        sources: Sequence[str] | None = None,
        outputs: Sequence[str] | None = None,
        for_s: float | None = None,
        engine: EngineName = "auto",
        page: str | None = None,
    ) -> Session:
        """Prepare a run from sources to outputs. Call `run()` on the result to start it.

        Args:
            sources: such as `udp:9400`, instead of the design's sources
            outputs: such as `terminal:`, instead of the design's outputs
            for_s: ends the run after this time, s
            engine: as for `compile`
            page: serves the page of the run, such as `127.0.0.1:8480`, or `0.0.0.0:8080` for other
                computers too, which need a token; the session's `addresses` open it

        Send values from Python with `inbox.put(source, name, value)`, from any thread.
        `loop.stop()` ends the run. A source or output that fails later is retried.

        Raises DesignError; SourceError and OutputError for sources and outputs that make no sense;
        PageError if the page cannot be served.

        >>> import fendra as fd
        >>> session = fd.load(fd.demo_file("heron.toml")).live(
        ...     sources=[], outputs=["null:"], for_s=0.2)
        >>> session.inbox.put("me", "speed", 12)
        >>> session.run().rendered > 0
        True
        """
        from fendra.live.connect import connect
        from fendra.live.session import Session

        connected = connect(self, folder=self._origin.folder, sources=sources, outputs=outputs)
        recorded = self.examined.subject.recorded

        def session_of(program: core_program.Program) -> Session:
            return Session(program, connected, for_s=for_s, recorded=recorded)

        if page is None:
            return session_of(self.compile(engine))
        return self._served(page, engine, session_of)

    def _served(
        self, page: str, engine: EngineName, session_of: Callable[[core_program.Program], Session]
    ) -> Session:
        """A session with its page."""
        from fendra.page.served.begin import served_run
        from fendra.page.served.server import Server, place_of

        def compiled(examined: Examined) -> Program:
            return compile_design(examined, Program, lambda plan: choose_engine(plan, engine)[0])

        server = Server(place_of(page))
        name = self._origin.file
        path = Path(self._origin.folder) / name if name else None
        session, served = served_run(
            server, self.examined, compiled, session_of, path, reloads=False
        )
        session.beside.append(server.serving(served))
        token = server.tokens.steer if server.tokens is not None else None
        session.addresses = tuple(server.addresses(token))
        return session

    def firmware(
        self,
        target: str | None = None,
        *,
        film: Film | None = None,
        controller: str | None = None,
        receiver: bool = False,
    ) -> Project:
        """Write firmware: a folder of C that builds, as `files`, and what it costs.

        Args:
            target: a chip by its controller type, such as `rp2040` or `esp32`; a family for its
                first chip (`avr`, `arm`); or `generic`, to fill in the board yourself; by default
                the design's controller
            film: its tape can be tried on a computer, and gives the work of a frame
            controller: which one, if there are several
            receiver: frames arrive over a serial link

        Raises DesignError with every finding of severity error, and FirmwareError if a pin or a
        target does not exist.

        >>> import fendra as fd
        >>> project = fd.load(fd.demo_file("drone.toml")).firmware("avr")
        >>> sorted(project.files)[:4]
        ['Makefile', 'README.md', 'board.c', 'board.h']
        """
        from fendra.firmware.project import make_project

        subject = replace(self.examined.sound, film=film)
        return make_project(
            subject,
            target,
            tape=film.tape if film is not None else None,
            controller=controller,
            is_receiver=receiver,
        )

    def emit(self) -> Emitted:
        """Write the design as C99, for a controller: a header and a source.

        The code gives the bytes of the preview. It allocates nothing and calls only `memset`,
        `floorf`, `fabsf` and `sqrtf`; see docs/emitted-c.md. Raises DesignError with every finding
        of severity error.

        >>> import fendra as fd
        >>> emitted = fd.load(fd.demo_file("heron.toml")).emit()
        >>> "void heron_init(struct heron *state);" in emitted.header
        True
        """
        from fendra.core.engines.c99 import emit

        return emit(self.examined.sound.plan)

    def page(
        self, path: str | Path | None = None, tape: Tape | None = None, *,
        other: Design | None = None, labels: tuple[str, str] = ("", ""),
    ) -> Page:  # fmt: skip
        """Make a page for the browser that runs the design by itself: one file, no network.

        Args:
            path: the file to write, if any
            tape: signals that drive it; without a tape you set them by hand on the page
            other: another design beside it, on the same signals
            labels: the names of the two

        Returns:
            The page: a notebook shows it in its cell, and `html` is its text.

        Raises DesignError with every finding of severity error, PageError if it is too large for a
        page, SignalError for a tape with none of the design's signals, and FileError.

        >>> import fendra as fd
        >>> design = fd.load(fd.demo_file("pad.toml"))
        >>> page = design.page(tape=fd.read_tape(fd.demo_file("typing.csv"), design))
        >>> page.html.startswith("<!doctype html>"), page.path
        (True, None)
        """
        from fendra.page.gather import look_of
        from fendra.page.write import make_page

        designs = [self] if other is None else [self, other]
        tape = None if tape is None else needs_tape(tape)
        looks = [
            look_of(design.examined.sound, tape, label)
            for design, label in zip(designs, labels, strict=False)
        ]
        return make_page(looks, None if path is None else Path(path))

    def map(
        self,
        ax: Axes | None = None,
        *,
        view: ViewName = "top",
        show: str | Sequence[str] | None = None,
        canvas: str = "",
    ) -> Axes:
        """Draw where every LED is, in wire order.

        Args:
            ax: your axes; new ones by default
            view: `top`, `bottom`, `front`, `back`, `left` or `right`
            show: parts, groups or trails to highlight; a single trail is coloured by `along`
            canvas: draws the LEDs where this canvas puts them

        Returns:
            The axes.

        Raises:
            LayoutError: a name is unknown
        """
        from fendra.draw.map import draw_map

        return draw_map(self, self.layout(), ax=ax, view=view, show=show, canvas=canvas)

    def map_figure(
        self, path: str | Path | None = None, *, view: ViewName = "top",
        show: str | Sequence[str] | None = None, canvas: str = "",
    ) -> Any:  # fmt: skip
        """The map with a table of the lines beside it, as a Matplotlib figure; see `map`.

        path: an old way to write a file; use `save_map`.
        """
        if path is not None:
            _is_now("map_figure(path)", "save_map(path)")
            return self.save_map(path, view=view, show=show, canvas=canvas)
        from fendra.draw.map import draw_map_figure

        return draw_map_figure(self, self.layout(), view=view, show=show, canvas=canvas)

    def save_map(
        self, path: str | Path, *, view: ViewName = "top",
        show: str | Sequence[str] | None = None, canvas: str = "",
    ) -> Path:  # fmt: skip
        """Write `map_figure` as PNG, SVG or PDF, by the file's ending. Raises FileError."""
        from fendra.draw.style import save_figure

        return save_figure(self.map_figure(view=view, show=show, canvas=canvas), path)

    def _repr_png_(self) -> bytes:
        """The map, in a notebook."""
        from fendra.draw.style import png_of

        return png_of(self.map_figure())


def _is_now(old: str, new: str) -> None:
    """Warn the caller of an old name."""
    warnings.warn(f"{old} is now {new}", DeprecationWarning, stacklevel=3)


class Program(core_program.Program):
    """A compiled design: state in, frame out.

    >>> import fendra as fd
    >>> program = fd.load(fd.demo_file("heron.toml")).compile()
    >>> frame = program.frame(speed=12, brake=1.0, at=0.0)
    >>> frame.part("tail-bar")[0].tolist()
    [195, 0, 0]
    """

    def film(
        self,
        tape: Tape,
        *,
        rate: float | None = None,
        clock_s: float = 0.0,
        progress: Callable[[int, int], None] | None = None,
    ) -> Film:
        """Make every frame of a tape: a film that you can draw."""
        film = super().film(tape, rate=rate, clock_s=clock_s, progress=progress)
        return Film(film.times, film.rgb, film.layout, film.design, film.tape, film.let_through)


class Film(core_film.Film):
    """Frames over a stretch of time, with pictures.

    Attributes:
        rgb: all bytes, (frames, spots, 3) uint8, linear
        times: (frames,) seconds on the tape's clock

    >>> import fendra as fd
    >>> ride = fd.read_tape(fd.demo_file("ride.csv")).until(2.0)
    >>> film = fd.load(fd.demo_file("heron.toml")).compile().film(ride)
    >>> film.rgb.shape, film.times[-1].item()
    ((101, 158, 3), 2.0)
    >>> film.part("tail-bar").shape
    (101, 30, 3)
    """

    def strip(self, ax: Axes | None = None, part: str | None = None) -> Any:
        """Draw a part's film strip: time to the right, a row for each LED.

        Args:
            ax: your axes; new ones by default
            part: the part; the first by default

        Returns:
            The axes.

        Raises LayoutError for an unknown part. Without both arguments it is an old way to get
        `strip_figure`.
        """
        from fendra.draw.strip import draw_band
        from fendra.draw.style import new_axes

        if ax is None and part is None:
            _is_now("strip()", "strip_figure()")
            return self.strip_figure()
        on = ax or new_axes()
        draw_band(self, part or self.layout.part_names[0], on)
        return on

    def strip_figure(self) -> Figure:
        """The film strip of every part, with the signals above, as a Matplotlib figure."""
        from fendra.draw.strip import draw_strip

        return draw_strip(self)

    def save_strip(self, path: str | Path) -> Path:
        """Write `strip_figure` as a picture. Raises FileError."""
        from fendra.draw.style import save_figure

        return save_figure(self.strip_figure(), path)

    def budget(self) -> Budget:
        """The design's current in this film, and all its other electrical sums."""
        return budget_of(_examined(self.design).sound.plan, self)

    def current(self, ax: Axes | None = None, supply: str | None = None) -> Axes:
        """Draw the current of a supply over the film, against its limits.

        Args:
            ax: your axes; new ones by default
            supply: its name; the first by default

        Returns:
            The axes.

        Raises:
            LayoutError: there is no supply of that name
        """
        from fendra.draw.electric import draw_current
        from fendra.draw.style import new_axes

        return draw_current(self.budget(), ax or new_axes(), supply)

    def voltage(self, ax: Axes | None = None, lines: Sequence[str] | None = None) -> Axes:
        """Draw the voltage along lines as `Design.voltage`, with the film's worst frame dotted.

        Returns the axes. Raises LayoutError.
        """
        from fendra.draw.electric import draw_voltage
        from fendra.draw.style import new_axes

        return draw_voltage(self.budget(), ax or new_axes(), lines)

    def save_still(
        self, path: str | Path, at_s: float, *, view: ViewName = "top", diffuser_mm: float = 0.0
    ) -> Path:
        """Write a picture of the thing at a moment.

        Args:
            path: the file: .png, .jpg or .webp
            at_s: the moment, s
            view: the side, as for a map
            diffuser_mm: distance of opal acrylic or paper in front of the LEDs; 0 is none

        Raises FileError.
        """
        from fendra.draw.still import write_still

        return write_still(self, at_s, path, view, diffuser_mm)

    def still(self, at_s: float, path: str | Path, **options: Any) -> Path:
        """An old name of `save_still`."""
        _is_now("still(at_s, path)", "save_still(path, at_s)")
        return self.save_still(path, at_s, **options)

    def save_animation(
        self, path: str | Path, start_s: float, duration_s: float, *, view: ViewName = "top",
        diffuser_mm: float = 0.0,
    ) -> Path:  # fmt: skip
        """Write some seconds as GIF or, by the file's ending, as APNG or MP4 (which needs ffmpeg).

        `view` and `diffuser_mm` are as for `save_still`. Raises FileError.
        """
        from fendra.draw.animation import write_animation

        return write_animation(self, path, start_s, duration_s, view=view, diffuser_mm=diffuser_mm)

    def animation(
        self, path: str | Path, start_s: float, duration_s: float, **options: Any
    ) -> Path:
        """An old name of `save_animation`."""
        _is_now("animation(path, ...)", "save_animation(path, ...)")
        return self.save_animation(path, start_s, duration_s, **options)

    def timeline(self) -> Timeline:
        """Which scenes and layers were on in each frame, and their conditions.

        >>> import fendra as fd
        >>> ride = fd.read_tape(fd.demo_file("ride.csv")).until(3.0)
        >>> film = fd.load(fd.demo_file("heron.toml")).compile().film(ride)
        >>> [course.why for course in film.timeline().layers if course.name == "parked"]
        ['in scene parked']
        """
        return timeline_of(_examined(self.design).sound.plan, self)

    def timeline_figure(self) -> Figure:
        """The timeline below the parts, as a Matplotlib figure."""
        from fendra.draw.timeline import draw_timeline_figure

        return draw_timeline_figure(self, self.timeline())

    def save_timeline(self, path: str | Path) -> Path:
        """Write `timeline_figure` as a picture. Raises FileError."""
        from fendra.draw.style import save_figure

        return save_figure(self.timeline_figure(), path)

    def explain(self, spot: str, at_s: float) -> Explanation:
        """Say why an LED looked as it did at a moment.

        Args:
            spot: `part:place`, or any text that chooses one LED in a group, such as `tail-out[0]`
            at_s: the moment, s

        Raises:
            LayoutError: there is no such LED

        >>> import fendra as fd
        >>> ride = fd.read_tape(fd.demo_file("ride.csv")).until(3.0)
        >>> film = fd.load(fd.demo_file("heron.toml")).compile().film(ride)
        >>> why = film.explain("tail-bar:4", 2.0)
        >>> [touch.layer for touch in why.touches if touch.is_on], why.order
        (['running light, rear'], 'GRB')
        """
        subject = _examined(self.design).subject
        row = spot_of(self.layout, spot, subject.choices)
        return explain(subject.recorded.reasons, self, row, at_s)

    def _repr_png_(self) -> bytes:
        """The film strip, in a notebook."""
        from fendra.draw.style import png_of

        return png_of(self.strip_figure())


def load(path: str | Path) -> Design:
    """Read the design of a TOML file.

    Raises:
        FileError: the file cannot be read
        DesignError: the design has errors; it has every finding

    >>> from fendra import demo_file
    >>> load(demo_file("heron.toml")).name
    'Heron'
    """
    design, examined = load_design(path, Design)
    subject = examined.subject
    return design._beside(subject.media, subject.plan.origin, examined)._told_of_held()


def _examined(design: CoreDesign) -> Examined:
    """Everything made from a design, which a film may have been given by the core alone."""
    return design.examined if isinstance(design, Design) else examine(design)
