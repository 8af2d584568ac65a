"""Effects from elsewhere: files of the design, and packages that add some."""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.effects import EFFECTS
from fendra.core.findings import Report
from fendra.core.quoting import shell_word


@check
def effects_from_elsewhere(subject: Subject, report: Report) -> None:
    """Files of effects, and packages with effects, that cannot be used."""
    failures, held = subject.media.failures, subject.media.held
    for i, name in enumerate(subject.design.effects):
        if name in failures:
            report.error(("effects", i), "effect", *failures[name])
        if name in held:
            report.warning(
                ("effects", i), "not-allowed",
                f"{name} is Python, which can do all that you can, and you have not allowed it.",
                f"Read it, then allow it: fendra trust {shell_word(held[name])}",
            )  # fmt: skip
    for name, problem in EFFECTS.failures.items():
        message = f"the effects of package {problem}: entry point '{name}' cannot be loaded."
        report.warning(("effects",), "effect", message, "Repair or remove the package.")
