"""The sides that a thing can be seen from, by name; apart, so that naming them loads nothing."""

from typing import Literal

ViewName = Literal["top", "bottom", "front", "back", "left", "right"]
