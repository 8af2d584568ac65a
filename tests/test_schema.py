"""The JSON Schema: what an editor offers and refuses, as docs/design-file.md and effects.md say."""

from __future__ import annotations

import tomllib

import jsonschema
import pytest
import tomlkit
from hypothesis import given

import fendra as fd
from fendra.cli.effect_examples import example_of
from fendra.core.effects import EFFECTS
from fendra.demo import ABOUT
from fendra.schema import design_schema
from fendra.schema.unions import as_one
from strategies import designs, examples

SCHEMA = design_schema()
VALIDATOR = jsonschema.Draft202012Validator(SCHEMA)
DESIGNS = [name for name in ABOUT if name.endswith(".toml") and name != "rally.toml"]


def layer(**keys):
    return {"layer": [{"name": "l", "on": "all", **keys}]}


def complaint(values):
    """What is wrong with a design without lines, but for that."""
    line = {"name": "a", "part": [{"name": "b", "shape": "hidden", "count": 1}]}
    errors = list(VALIDATOR.iter_errors({"line": [line], **values}))
    return " ".join(error.message for error in errors)


def cases(table, key):
    """The keys that go with each value of a key, from the chain of conditions."""
    found = {}
    while "if" in table:
        found[table["if"]["properties"][key]["const"]] = table["then"]["properties"]
        table = table.get("else", {})
    return found


@pytest.mark.parametrize("name", DESIGNS)
def test_it_takes_every_shipped_design(name):
    VALIDATOR.check_schema(SCHEMA)
    VALIDATOR.validate(tomllib.loads(fd.demo_file(name).read_text(encoding="utf-8")))


def test_every_key_of_every_table_has_a_description():
    tables = {"Design": SCHEMA, **SCHEMA["$defs"]}
    bare = [
        (name, key)
        for name, table in tables.items()
        for key, kind in table.get("properties", {}).items()
        if not kind.get("description") and key != "shape"  # the shape is the table itself
    ]
    assert not bare


@examples(100)
@given(designs())
def test_it_takes_any_valid_design(plain):
    fd.Design.from_values(plain)
    written = tomlkit.dumps(without_none(plain))
    assert not [str(error) for error in VALIDATOR.iter_errors(tomllib.loads(written))]


def without_none(values):
    """The same as TOML can hold it."""
    if isinstance(values, dict):
        return {key: without_none(each) for key, each in values.items() if each is not None}
    return [without_none(each) for each in values] if isinstance(values, list) else values


@pytest.mark.parametrize("name", sorted(EFFECTS))
def test_each_effect_brings_its_parameters_and_no_others(name):
    assert complaint(layer(effect=name, **example_of(name))) == ""
    branch = cases(SCHEMA["$defs"]["Layer"], "effect")[name]
    assert {*branch} == {*EFFECTS[name].parameters}
    for key, item in EFFECTS[name].parameters.items():
        assert branch[key]["description"].startswith(item.about)
        if item.kind == "number" and item.default is not None:
            assert (branch[key]["default"], branch[key]["maximum"]) == (item.default, item.high)
    assert "colourr" in complaint(layer(effect=name, colourr="red"))


@pytest.mark.parametrize(
    ("keys", "wrong"),
    [
        ({"effect": "blink", "rate": 2}, ""),
        ({"effect": "blink", "rate": "1 + throttle"}, ""),
        ({"effect": "blink", "rate": {"by": "gear", "else": 1}}, ""),
        ({"effect": "blink", "rate": 26}, "26 is greater than the maximum of 25"),  # Hz
        ({"effect": "blink", "rate": True}, "True is not of type 'number', 'string', 'object'"),
        ({"effect": "blink", "rate": {"else": 1}}, "'by' is a required property"),
        ({"effect": "blink", "arcs": 3}, "'arcs' is not one of"),  # a parameter of spin
        ({"effect": "solid", "colour": "red", "blend": "screen"}, "'screen' is not one of"),
        ({"effect": "my-own", "sparkle": 3}, ""),  # an effect of one's own has keys of its own
        ({"preset": "indicator", "rate": 2}, ""),
        ({"effect": "solid", "when": 3}, "3 is not"),
    ],
)  # fmt: skip
def test_what_a_layer_may_have(keys, wrong):
    said = complaint(layer(**keys))
    assert wrong in said if wrong else said == ""


@pytest.mark.parametrize(
    ("keys", "wrong"),
    [
        ({"facing": "back"}, ""),
        ({"facing": [0, 0, 1]}, ""),
        ({"facing": ["up", [0, 1, 0], "out"]}, ""),
        ({"facing": ["up"] * 5}, ""),
        ({"facing": "sideways"}, "'sideways' does not match"),
        ({"facing": ["up", "sideways"]}, "'sideways' does not match"),
        ({"facing": 3}, "3 is not of type 'string', 'array'"),
        ({"skip": [2, "4-6"]}, ""),
        ({"skip": [2.5]}, "2.5 is not of type 'integer', 'string'"),
        ({"count": 0}, "0 is less than the minimum of 1"),
    ],
)  # fmt: skip
def test_what_a_part_may_have(keys, wrong):
    strip = {"name": "b", "shape": "strip", "start": [0, 0], "end": [90, 0], "count": 10}
    line = {"name": "a", "part": [{**strip, **keys}]}
    said = " ".join(
        detail.message
        for error in VALIDATOR.iter_errors({"line": [line]})
        for detail in [error, *(error.context or ())]
    )
    assert wrong in said if wrong else said == ""


NUMBER, TEXT = {"type": "number"}, {"type": "string"}
OPEN = {"type": "string", "anyOf": [{"enum": ["a"]}, True]}


@pytest.mark.parametrize(
    ("members", "joined"),
    [
        ([{"enum": ["a"]}, TEXT], OPEN | {"type": ["string"]}),
        ([NUMBER, OPEN], OPEN | {"type": ["number", "string"]}),
        ([NUMBER, {"$ref": "#/$defs/Named"}], {"type": ["number", "object"], "required": ["a"]}),
        ([NUMBER, {"type": "null"}], NUMBER),
        ([NUMBER, {"type": "integer", "minimum": 1}], None),
        ([NUMBER, {"type": "object", "if": {"required": ["a"]}}], None),
        ([{"type": "object", "required": ["a"]}, {"type": "object", "required": ["b"]}], None),
    ],
)
def test_a_union_becomes_one_schema_only_if_that_says_the_same(members, joined):
    tables = {"Named": {"type": "object", "required": ["a"], "description": "it has a name"}}
    union = {"description": "a key", "default": None, "anyOf": members}
    made = as_one(union, tables)
    texts = {"description": "a key"}
    if joined is None:
        assert made == {"anyOf": members, **texts}
    elif "anyOf" in joined:
        assert made == {**joined, "anyOf": [{"enum": ["a"], **texts}, True], **texts}
    else:
        assert made == {**joined, **texts}


def test_led_types_controllers_and_drivers_are_offered_with_what_they_are():
    def offered(kind):
        """The words of a choice; each has its text for editors, and in the key's description."""
        choice = kind if "enum" in kind else kind["anyOf"][0]
        texts = dict(zip(choice["enum"], choice["x-taplo"]["docs"]["enumValues"], strict=True))
        rows = kind["description"].partition("\n\n")[2].splitlines()
        assert rows == [f"- `{word}`: {text}" for word, text in texts.items()]
        return {*texts}

    assert {"ws2812b", "sk6812-rgbw", "apa102"} <= offered(
        SCHEMA["$defs"]["Line"]["properties"]["led"]
    )
    assert {"rp2040", "esp32", "atmega328p"} <= offered(
        SCHEMA["$defs"]["Controller"]["properties"]["type"]
    )
    sources = SCHEMA["properties"]["sources"]["additionalProperties"]
    assert {"udp", "mqtt", "can"} <= offered(sources["properties"]["type"])
    assert complaint({"sources": {"a": {"type": "mqtt", "address": "host", "root": "x"}}}) == ""
    assert "'rooot'" in complaint({"sources": {"a": {"type": "mqtt", "rooot": "x"}}})
    assert complaint({"outputs": {"a": {"type": "serial", "address": "p", "lines": ["a"]}}}) == ""
    assert "201 is greater" in complaint({"outputs": {"a": {"type": "sacn", "priority": 201}}})
    assert "'max' is not one of" in complaint(
        {"sources": {"a": {"type": "audio", "weighting": "max"}}}
    )
    keepalive = cases(sources, "type")["mqtt"]["keepalive"]
    assert keepalive["description"] == "time between signs of life, s. 10 by default"
    assert (keepalive["type"], keepalive["minimum"], keepalive["maximum"]) == ("integer", 1, 3600)


def test_editors_that_ignore_conditions_are_offered_every_key_with_what_it_is_where():
    tail = SCHEMA["$defs"]["Layer"]["properties"]["tail"]["description"].split("\n\n")
    assert tail[0].startswith("beam: the fading light behind it. deg, 0 to 360")
    assert tail[1].startswith("comet: its length, as a share of the way.")
    rate = SCHEMA["properties"]["sources"]["additionalProperties"]["properties"]["rate"]
    assert "screen: captures a second. 30 by default" in rate["description"].split("\n\n")
