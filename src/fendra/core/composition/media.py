"""Media: what files beside a design hold, pictures and effects of its own, once they are read."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from fendra.core.effects import Effect
from fendra.core.effects.pictures import Picture


@dataclass(frozen=True)
class Media:
    """pictures: by the file's name as the design has it. effects: those of its own, by name.
    failures: of each file that cannot be used, the problem and the cure. held: files of effects
    that the user has not allowed to run, and where each is.
    """

    pictures: Mapping[str, Picture] = field(default_factory=dict)
    effects: Mapping[str, Effect] = field(default_factory=dict)
    failures: Mapping[str, tuple[str, str]] = field(default_factory=dict)
    held: Mapping[str, str] = field(default_factory=dict)
