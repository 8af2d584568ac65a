"""Connections: what a design says of its sources and outputs.

What each driver takes stands in the driver; here it is a type with any keys.
"""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, ConfigDict


class Connection(BaseModel):
    """One source or output. All keys but these are its driver's.

    type: which driver. address: which port, host or file. off: left out, as if it were not there.
    """

    model_config = ConfigDict(extra="allow", frozen=True, strict=True)
    __pydantic_extra__: dict[str, Any]

    type: str
    address: str = ""
    off: bool = False

    @property
    def values(self) -> dict[str, Any]:
        """All that is written of it for its driver."""
        return self.model_dump(exclude={"off"})
