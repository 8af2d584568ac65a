"""Connections: the sources and outputs of a design.

A driver knows its own keys; here a connection is a type with any keys.
"""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, ConfigDict


class Connection(BaseModel):
    """A source or output. All other keys belong to its driver.

    Attributes:
        type: the driver
        address: the port, host or file
        off: leaves it out, as if it were not there
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
