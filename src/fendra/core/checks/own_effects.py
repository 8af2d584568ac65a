"""Effects from elsewhere: files of the design, and packages that add some."""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.effects import EFFECTS
from fendra.core.findings import Report


@check
def effects_from_elsewhere(subject: Subject, report: Report) -> None:
    """Files of effects, and packages with effects, that cannot be used."""
    failures = subject.media.failures
    for i, name in enumerate(subject.design.effects):
        if name in failures:
            report.error(
                ("effects", i), "effect", failures[name],
                "It marks functions with @effect from fendra.effects; see docs/own-effects.md.",
            )  # fmt: skip
    for name, problem in EFFECTS.failures.items():
        message = f"the effects of package {problem}: entry point '{name}' cannot be loaded."
        report.warning(("effects",), "effect", message, "Mend it or remove the package.")
