"""Findings that only follow from others: one cause gives one message."""

from __future__ import annotations

from collections.abc import Sequence

from fendra.core.document.reading import Document
from fendra.core.findings import Finding, Severity, errors_of

_HARDWARE = frozenset({"line", "assemblies", "leds", "supplies", "controllers"})
"""Errors under these keys come before any about light."""
_OF_ALL_LIGHT = (("level",), ("most",))
"""Keys of all light: while one of them is wrong, no current can be computed."""
_PLACES = frozenset({"line", "assemblies", "leds"})
_OF_NAMES = frozenset({"unknown-name", "expression"})
"""Codes of names that are nothing."""


def independent(findings: Sequence[Finding], document: Document) -> list[Finding]:
    """The findings about a design, without those that only repeat a finding about its file."""
    told = document.findings
    # If a key of an input is wrong and was left out, the rest says nothing new.
    inputs = {each.path[:-1] for each in told if each.path[:1] == ("signals",)}
    inputs = {path for path in inputs if len(path) > 2}
    inputs |= {each.path for each in told}
    # A signal, part or line of a name that could not be read is asked for under another one.
    misnamed = {each.path[0] for each in told if len(each.path) == 2 and each.path[0] == "signals"}
    is_lost = document.is_patched or bool(misnamed)
    # If a table has an unknown key, its missing values are under that key.
    lacking = {each.path[:-1] for each in told if each.code == "unknown-key"}
    return [
        each
        for each in findings
        if each.path not in inputs
        and not (is_lost and _is_unknown(each))
        and not (each.code == "missing-key" and each.path in lacking)
    ]


def without_echoes(findings: Sequence[Finding]) -> list[Finding]:
    """Leave out warnings and notes that only follow from errors.

    A mistake in a layer, signal or group affects all light. A mistake in a line, supply or
    controller affects that one; one in a supply also affects all lines, and one in a line also
    affects the light.
    """
    errors = errors_of(findings)
    if not errors:
        return [*findings]
    if any(each.path[:1] in _OF_ALL_LIGHT for each in errors):
        return errors
    names = {each.code for each in errors} & {"duplicate-name", "reserved-name"}
    errors = [each for each in errors if not (names and _is_unknown(each))]
    wrong = {each.path[:2] for each in errors if each.path[2:3] != ("pin",)}
    is_supply_wrong = any(path[:1] == ("supplies",) for path in wrong)
    is_unknown = any("there is no " in each.message for each in errors)
    is_light_known = all(_is_hardware(each) for each in errors)
    is_light_known = is_light_known and not any(path[0] in _PLACES for path in wrong)
    return [
        each
        for each in findings
        if each in errors
        or (
            each.severity is not Severity.ERROR
            and not (is_unknown and each.code == "unused")
            and not (is_supply_wrong and each.path[:1] == ("line",))
            and (each.path[:2] not in wrong if _is_hardware(each) else is_light_known)
        )
    ]


def _is_hardware(finding: Finding) -> bool:
    return finding.path[:1] != () and finding.path[0] in _HARDWARE


def _is_unknown(finding: Finding) -> bool:
    return finding.code in _OF_NAMES and "there is no " in finding.message
