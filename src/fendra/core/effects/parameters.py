"""Parameters: the settings of an effect, each with its kind, default, unit and range."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal, TypeAlias

ParameterKind: TypeAlias = Literal[
    "number", "colour", "truth", "numbers", "colours", "place", "text", "word", "picture"
]


@dataclass(frozen=True)
class Parameter:
    """One parameter of an effect: its meaning, default, unit and range.

    A default of None: the effect works without it, or finds it out; `about` says how.
    in_frames: a time after which something jumps, so it should be whole frames long.
    """

    kind: ParameterKind
    default: Any
    unit: str = ""
    low: float = 0.0
    high: float = 1.0
    about: str = ""
    words: tuple[str, ...] = ()
    in_frames: bool = False

    @property
    def range_text(self) -> str:
        """The allowed values, in words."""
        match self.kind:
            case "number" | "numbers":
                span = "any" if self.high >= 1e6 and self.low <= -1e6 else (
                    f"{self.low:g} to {self.high:g}"
                )  # fmt: skip
                return f"a list, each {span}" if self.kind == "numbers" else span
            case "colour":
                return "a colour"
            case "colours":
                return "a list of colours"
            case "truth":
                return "true or false"
            case "place":
                return "a place: `along`, `x`, `radius`, ..."
            case "word":
                return " or ".join(f'"{word}"' for word in self.words)
            case "text":
                return "a text, with `{expression}` for numbers"
        return "a .png or .gif"

    @property
    def default_text(self) -> str:
        """The default as text in a design; empty if there is none."""
        match self.default:
            case None:
                return ""
            case bool():
                return str(self.default).lower()
            case str():
                return f'"{self.default}"'
            case list() | tuple():
                return f"[{', '.join(_item(item) for item in self.default)}]"
        return f"{self.default:g}"


def _item(value: Any) -> str:
    return f'"{value}"' if isinstance(value, str) else f"{value:g}"


def number(
    default: float | None, unit: str, low: float, high: float, about: str, *,
    in_frames: bool = False,
) -> Any:  # fmt: skip
    """A number in `unit`, held between `low` and `high`.

    in_frames: it is a time, in seconds, after which something jumps: `check` notes where it is no
    whole number of frames.
    """
    return Parameter("number", default, unit, low, high, about, in_frames=in_frames)


def colour(default: str | None, about: str) -> Any:
    """A colour: `#rrggbb`, a CSS name, or an expression that gives one."""
    return Parameter("colour", default, about=about)


def truth(default: bool, about: str) -> Any:
    """A condition: true, false, or an expression."""
    return Parameter("truth", default, about=about)


def colours(default: Sequence[str], about: str) -> Any:
    """A list of one colour or more."""
    return Parameter("colours", tuple(default), about=about)


def numbers(default: Sequence[float | str], unit: str, low: float, high: float, about: str) -> Any:
    """A list of numbers in `unit`, each held between `low` and `high`."""
    return Parameter("numbers", tuple(default), unit, low, high, about)


def place(default: str, about: str) -> Any:
    """The place of each LED on a way from 0 to 1: an expression over columns.

    `along`, `across`, `up` and `angle` (once round) already run from 0 to 1. Others, such as `x` or
    `distance(0, 400)`, run from their lowest to their highest value.
    """
    return Parameter("place", default, about=about)


def text(default: str, about: str) -> Any:
    """A text; `{expression}` in it is a number that is shown."""
    return Parameter("text", default, about=about)


def word(default: str, words: Sequence[str], about: str) -> Any:
    """One of some words."""
    return Parameter("word", default, about=about, words=tuple(words))


def picture(about: str) -> Any:
    """A picture's file, beside the design."""
    return Parameter("picture", None, about=about)
