"""One moment: the thing seen from one side, its LEDs lit."""

from __future__ import annotations

from pathlib import Path

from PIL import Image

from fendra.core.film import Film
from fendra.core.names import ViewName
from fendra.core.signals.kinds import kind_of
from fendra.draw.glow import Stage
from fendra.draw.style import PACKED, format_of
from fendra.draw.words import write_words
from fendra.whole import write_whole


def draw_still(stage: Stage, film: Film, at_s: float) -> Image.Image:
    """The moment `at_s` of a film on its stage, with the signals then."""
    frame = film.frame(at_s)
    picture = Image.fromarray(stage.lit(frame.seen))
    write_words(picture, film.design.name, signal_notes(film, frame.at_s), stage.side)
    return picture


def write_still(
    film: Film, at_s: float, path: str | Path, view: ViewName = "top", diffuser_mm: float = 0.0
) -> Path:
    """Write the moment `at_s` of a film, as the file's ending says. Raises FileError.

    diffuser_mm: as seen through one that far before the LEDs.
    """
    kind = format_of(path, KINDS)
    stage = Stage(film.design, film.layout, view=view, diffuser_mm=diffuser_mm)
    picture = draw_still(stage, film, at_s)
    packed = {"compress_level": PACKED} if kind == "PNG" else {}
    return write_whole(path, lambda beside: picture.save(beside, format=kind, **packed))


KINDS = {".png": "PNG", ".jpg": "JPEG", ".jpeg": "JPEG", ".webp": "WEBP"}


def signal_notes(film: Film, at_s: float) -> list[str]:
    """The time, and the newest value of each signal on the tape; switches only while on."""
    notes = [f"{at_s:.2f} s"]
    for name, (value, since_s) in film.tape.last(at_s).items():
        signal = film.design.signals.get(name)
        if signal is None:
            continue
        if signal.lost_after is not None and at_s - since_s >= signal.lost_after:
            notes.append(f"{name} lost")
        elif note := kind_of(signal).note(signal, name, value):
            notes.append(note)
    return notes
