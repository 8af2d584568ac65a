"""The contents of a design's files: pictures, and its own effects in Python."""

from __future__ import annotations

import io
import traceback
import warnings
from collections.abc import Iterable, Mapping
from pathlib import Path

import numpy as np

from fendra.core.composition.media import Media
from fendra.core.document.design import Design
from fendra.core.effects import EFFECTS, Effect, gathering
from fendra.core.effects.pictures import Picture
from fendra.core.errors import FileError
from fendra.core.light.colours import srgb_to_linear
from fendra.core.limits import PICTURE_BYTES, PICTURE_FRAMES, PICTURE_PIXELS
from fendra.files.trust import Code, read_code
from fendra.whole import read_bytes

STILL_S = 1.0
LEAST_S = 0.02


def read_media(design: Design, folder: Path) -> Media:
    """Read the files of a design's effects, and the pictures that its layers show.

    folder: where they are. `failures` has the files that cannot be read, by their names in the
    design. Python runs only if the user has allowed that file (`fendra.files.trust`); `held` has
    the files that may not run.
    """
    failures: dict[str, tuple[str, str]] = {}
    held: dict[str, str] = {}
    own = _own_effects(design.effects, folder, failures, held)
    pictures: dict[str, Picture] = {}
    for name in _pictures_of(design, own):
        try:
            pictures[name] = read_picture(folder / name)
        except FileError as exc:
            failures[name] = str(exc), "Give a .png or .gif beside the design."
    return Media(pictures, own, failures, held)


def _pictures_of(design: Design, own: Mapping[str, Effect]) -> dict[str, None]:
    """The pictures that layers name, each once."""
    found: dict[str, None] = {}
    for layer in design.layer:
        name = design.effect_of(layer)
        effect = own.get(name) or EFFECTS.get(name)
        if effect is None:
            continue
        for key, setting in design.settings_of(layer).items():
            parameter = effect.parameters.get(key)
            if parameter is not None and parameter.kind == "picture" and isinstance(setting, str):
                found[setting] = None
    return found


def read_picture(path: Path) -> Picture:
    """A still or animated picture of a PNG, GIF or other file. Raises FileError."""
    from PIL import Image, ImageSequence, UnidentifiedImageError

    try:
        data = read_bytes(path, PICTURE_BYTES, is_plain=True)
        with warnings.catch_warnings(), Image.open(io.BytesIO(data)) as opened:
            warnings.simplefilter("ignore")  # of pictures that are large: those are refused
            size = opened.width * opened.height
            count = getattr(opened, "n_frames", 1) if size <= PICTURE_PIXELS.most else 1
            if size * count > PICTURE_PIXELS.most or count > PICTURE_FRAMES.most:
                raise FileError(
                    f"{path.name} has {count} pictures of {opened.width} x "
                    f"{opened.height} pixels. Make it smaller: the limit is "
                    f"{PICTURE_PIXELS.in_words}."
                )
            frames, seconds = [], []
            for frame in ImageSequence.Iterator(opened):
                frames.append(np.asarray(frame.convert("RGBA"), np.float32) / np.float32(255.0))
                duration_ms = frame.info.get("duration", 0) or STILL_S * 100
                seconds.append(max(float(duration_ms) / 1000, LEAST_S))
    except FileError as exc:
        problem = exc.problem.rstrip(".")
        raise FileError(f"{problem}.", code=exc.code) from exc
    except UnidentifiedImageError as exc:
        problem = "its format is unknown"
        raise FileError(f"{path.name} is not a readable picture: {problem}.") from exc
    except Exception as exc:  # each format has errors of its own
        problem = str(exc)[:100] or type(exc).__name__
        raise FileError(f"{path.name} is not a readable picture: {problem}.") from exc
    pixels = np.stack(frames)
    pixels[..., :3] = srgb_to_linear(pixels[..., :3])
    return Picture(pixels, tuple(seconds))


def _own_effects(
    names: Iterable[str],
    folder: Path,
    failures: dict[str, tuple[str, str]],
    held: dict[str, str],
) -> dict[str, Effect]:
    """The effects of Python files that may run; running a file is what marks them."""
    found: dict[str, Effect] = {}
    for name in dict.fromkeys(names):
        path = folder / name
        try:
            code = read_code(path, folder)
            if not code.may_run:
                held[name] = str(path)
                continue
        except FileError as exc:
            failures[name] = f"{exc}.", "Name a Python file beside the design."
            continue
        with gathering() as gathered:
            try:
                _run(code)
            except (Exception, SystemExit) as exc:  # somebody's own code may do anything
                failures[name] = f"{name} fails: {_where(exc, path)}.", f"Correct {name}."
                continue
        if not gathered:
            remedy = "Mark one: from fendra.effects import effect; see docs/own-effects.md."
            failures[name] = f"{name} marks no function with @effect.", remedy
        for effect_name, effect in gathered.items():
            if effect_name in EFFECTS or effect_name in found:
                problem = f"{name}: there is already an effect '{effect_name}'."
                failures[name] = problem, "Give the function another name."
            else:
                found[effect_name] = effect
    return found


def _run(code: Code) -> None:
    """Run just what was read and allowed, whatever the file holds by now."""
    names = {"__name__": code.path.stem, "__file__": str(code.path)}
    exec(compile(code.text, str(code.path), "exec"), names)  # nosec B102


def _where(exc: BaseException, path: Path) -> str:
    """The error, and its line in the file."""
    if isinstance(exc, SyntaxError):
        return f"SyntaxError: {exc.msg} (line {exc.lineno})"
    lines = [
        frame.lineno
        for frame in traceback.extract_tb(exc.__traceback__)
        if Path(frame.filename).name == path.name
    ]
    line = f" (line {lines[-1]})" if lines else ""
    return f"{type(exc).__name__}: {exc}{line}"
