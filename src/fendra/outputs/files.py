"""Outputs that write a file: where it may be, and how it gets there complete."""

from __future__ import annotations

from pathlib import Path
from typing import ClassVar

from fendra.core.errors import OutputError
from fendra.core.names import listed
from fendra.core.version import VERSION
from fendra.outputs import Output

MAKER = "Made by Fendra"
MARK = f"{MAKER} {VERSION}"
"""A line in a file that Fendra wrote, so that a later run may write it again."""


class FileOutput(Output):
    """An output whose address is a file.

    A name on the command line is written as given. A file that a design names is below the design's
    folder, has an ending of its kind, and is new or was made by Fendra.

    endings: those that a design may name.
    """

    endings: ClassVar[tuple[str, ...]] = ()

    @property
    def path(self) -> Path:
        """The file; relative to the design's folder if the design names it."""
        return self.folder / self.address if self.is_from_design else Path(self.address)

    def check_from_design(self) -> None:
        """Whether the file may be named by a design, without looking whether it is there."""
        if self.path.suffix.lower() not in self.endings:
            endings = listed(self.endings, "or")
            raise OutputError(f"a design may only write files that end in {endings}", code="unsafe")
        folder = self.folder.resolve()
        if not self.path.resolve().is_relative_to(folder):
            raise OutputError(
                (
                    f"'{self.address}' is outside the design's folder; a design may only "
                    f"write below it. Name it yourself: --to {self.kind}:FILE"
                ),
                code="unsafe",
            )

    def check_target(self) -> None:
        """Whether the file may be written now. Raises OutputError."""
        if not self.is_from_design:
            return
        self.check_from_design()
        if self.path.exists() and not (self.path.is_file() and self.is_ours(self.path)):
            raise OutputError(
                (
                    f"'{self.path}' exists, and Fendra did not make it; a design may not "
                    f"replace it. Move it, or name it yourself: --to {self.kind}:FILE"
                ),
                code="unsafe",
            )

    def is_ours(self, path: Path) -> bool:  # noqa: ARG002
        """Whether a file is one that Fendra made; where nothing in it says so, it is not."""
        return False
