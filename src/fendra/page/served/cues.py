"""Cues: what hands hold, kept under a name beside the design, and recalled."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from fendra.core.errors import FileError
from fendra.core.limits import Limit
from fendra.core.names import NAME, did_you_mean
from fendra.core.quoting import json_text
from fendra.whole import read_text, stamp, write_text

MOST = 200
CUE_BYTES = Limit(2_000_000, "bytes of a file of cues", "slow reading")
_Numbers = list[Annotated[float, Field(ge=-1e9, le=1e9)]]


class Cue(BaseModel):
    """The values held by hand: see `Steering.held`."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    signals: dict[str, _Numbers | None] = {}
    level: Annotated[float, Field(ge=0, le=1)] = 1.0
    on: bool = True
    scene: str | None = None
    presets: dict[str, str] = {}


class Cues:
    """The cues of a design, in `NAME.cues.json` beside its file."""

    def __init__(self, design: Path) -> None:
        self.path = design.with_name(f"{design.stem}.cues.json")
        self._named: tuple[str, list[str]] = ("", [])

    def names(self) -> list[str]:
        """Their names, in the order in which they were kept; none if the file is wrong."""
        now = stamp(self.path)  # it is asked for with every state
        if now != self._named[0]:
            try:
                names = [*self._read()]
            except FileError:
                names = []
            self._named = now, names
        return self._named[1]

    def of(self, name: str) -> dict[str, Any]:
        """One of them. Raises FileError."""
        known = self._read()
        if name not in known:
            raise FileError(f"there is no cue '{name:.60}'. {did_you_mean(name, known, 'cues')}")
        return known[name].model_dump()

    def keep(self, name: str, held: dict[str, Any]) -> None:
        """Keep what hands hold under a name; one of that name is replaced. Raises FileError."""
        if not NAME.fullmatch(name) or len(name) > 60:
            raise FileError("a cue's name begins with a letter or digit, with at most 60")
        known = self._read()
        if len(known) >= MOST and name not in known:
            raise FileError(f"there are already {MOST} cues; delete one first")
        self._write({**known, name: Cue.model_validate(held)})

    def drop(self, name: str) -> None:
        """Remove one. Raises FileError."""
        self.of(name)
        self._write({each: cue for each, cue in self._read().items() if each != name})

    def _read(self) -> dict[str, Cue]:
        if not self.path.exists():
            return {}
        try:
            values = json.loads(read_text(self.path, CUE_BYTES))
            return {str(name): Cue.model_validate(cue) for name, cue in values.items()}
        except (ValueError, ValidationError, AttributeError, RecursionError) as exc:
            raise FileError(
                f"'{self.path}' is not a readable file of cues. Repair it, or move it away."
            ) from exc

    def _write(self, cues: dict[str, Cue]) -> None:
        write_text(
            self.path, json_text({name: cue.model_dump() for name, cue in cues.items()}) + "\n"
        )
