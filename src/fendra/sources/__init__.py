"""Sources: what feeds signals. One driver a file."""

from __future__ import annotations

from abc import ABC, abstractmethod


class Source(ABC):
    """Gives what is new of its signals; asked once a frame, it never waits."""

    @abstractmethod
    def news(self, at_s: float) -> dict[str, float]:
        """All news since it was last asked, the newest of each signal.

        at_s: seconds since the run began.
        """

    @abstractmethod
    def has_ended(self, at_s: float) -> bool:
        """Whether nothing more can come after `at_s`."""
