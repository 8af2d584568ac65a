"""A mailbox between threads that holds the newest thing only."""

from __future__ import annotations

from threading import Condition
from typing import Generic, TypeVar

T = TypeVar("T")


class Mailbox(Generic[T]):
    """A new item replaces one that still waits; `replaced` counts how often that happened."""

    def __init__(self) -> None:
        self._changed = Condition()
        self._thing: T | None = None
        self._is_closed = False
        self.replaced = 0

    def put(self, thing: T) -> None:
        """Leave a thing; never waits."""
        with self._changed:
            self.replaced += self._thing is not None
            self._thing = thing
            self._changed.notify()

    def close(self) -> None:
        """Take no more items; an item that still waits can be taken."""
        with self._changed:
            self._is_closed = True
            self._changed.notify()

    def take(self) -> T | None:
        """Wait for the newest thing and take it; None once it is closed and empty."""
        with self._changed:
            self._changed.wait_for(lambda: self._thing is not None or self._is_closed)
            thing, self._thing = self._thing, None
            return thing
