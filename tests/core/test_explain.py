"""Why an LED looks as it does: each step by hand, with values that are all unlike."""

from __future__ import annotations

import numpy as np
import pytest

from fendra.core.errors import LayoutError
from fendra.core.insight.explain import explain
from fendra.core.insight.looks import layers_on
from fendra.core.insight.replay import frames_of, replay
from fendra.core.insight.timeline import timeline_of, why_of_layer, why_of_scene
from fendra.core.insight.visible import barely_lit, layers_seen
from fendra.core.layout.spot import spot_of
from fendra.core.signals.tape import Tape
from helpers import design, layer, strip, tape


def film_of(made, **signals):
    still = Tape(np.array([0.0, 0.1]), {})
    return made.compile(engine="numpy").film(tape(10.0, **signals) if signals else still)


def test_light_that_is_added_goes_from_what_was_to_the_sum():
    """0.2 of red and 0.4 of green; 0.5 of a blue of 0.8 more, at a level of 0.6: 0.281 of it."""
    made = design(
        layer("field", red=0.2, green=0.4, blue=0),
        layer("field", red=0.1, green=0, blue=0.8, cover=0.5, level=0.6, blend="add"),
        level=0.9, count=1,
    )  # fmt: skip
    why = explain(made.examined.sound.recorded.reasons, film_of(made), 0, 0.0)
    below, above = why.touches
    assert (below.before, below.after) == ((0, 0, 0), pytest.approx((0.2, 0.4, 0)))
    assert above.before == pytest.approx((0.2, 0.4, 0))
    assert above.colour == pytest.approx((0.1, 0, 0.8))
    assert (above.cover, above.level, above.blend) == (
        pytest.approx(0.5),
        pytest.approx(0.6),
        "add",
    )
    share = 0.5 * (76 / 116) ** 3
    assert above.after == pytest.approx((0.2 + 0.1 * share, 0.4, 0.8 * share), abs=1e-6)
    assert why.light == pytest.approx(above.after)
    assert why.master == pytest.approx((106 / 116) ** 3, rel=1e-5)
    expected = tuple(int(value * why.master * 255 + 0.5) for value in why.light)
    assert (why.rgb, why.order, why.sent) == (
        expected,
        "GRB",
        bytes([expected[1], expected[0], expected[2]]),
    )


def test_a_layer_that_is_off_changes_nothing_and_the_signals_say_if_they_are_lost():
    made = design(
        layer(colour="#808080"), layer(colour="red", when="s > 0.5", cover="t"), count=1,
        signals={"s": {"unit": "km/h", "lost_after": 0.35}, "t": {}},
    )  # fmt: skip
    film = film_of(
        made, s=[0.25, None, None, None, None, None], t=[1, None, None, None, None, None]
    )
    plan = made.examined.sound.recorded.reasons
    why = explain(plan, film, 0, 0.1)
    assert not why.touches[1].is_on
    assert why.touches[1].before == why.touches[1].after == pytest.approx((0.2159,) * 3, abs=1e-4)
    assert why.touches[1].read == {"s": "0.25 km/h", "t": "1"}
    assert explain(plan, film, 0, 0.5).touches[1].read == {"s": "0 km/h, lost", "t": "1"}


def test_an_led_behind_the_first_of_a_group_has_its_own_values():
    """A group of LEDs 2, 5 and 7: along is 0, 1/2 and 1."""
    made = design(layer("field", red="along", green=0, blue=0, on="some"),
                  groups={"some": "index == 2 or index == 5 or index == 7"})  # fmt: skip
    plan, film = made.examined.sound.recorded.reasons, film_of(made)
    assert explain(plan, film, 5, 0.0).touches[0].colour == (0.5, 0, 0)
    assert explain(plan, film, 7, 0.0).rgb == (255, 0, 0)
    assert explain(plan, film, 3, 0.0).touches == ()


def test_scenes_are_added_up_in_their_shares_and_named_where_several_are_there():
    """A quarter of a second into a second's fade: three quarters of red, a quarter of blue."""
    made = design(
        layer(colour="red", scene="one"), layer("blink", when=False), layer(colour="blue", scene="two"),
        scene=[{"name": "one", "when": "s < 1"}, {"name": "two", "fade": 1.0}], signals={"s": {}},
        count=1, rate=20,
    )  # fmt: skip
    film = film_of(made, s=[0, 1, 1, 1, 1, 1])
    plan = made.examined.sound.recorded.reasons
    why = explain(plan, film, 0, 0.3)
    assert why.light == pytest.approx((0.75, 0, 0.25), abs=1e-5)
    assert [(touch.scene, touch.is_on) for touch in why.touches] == [
        ("one", True), ("one", False), ("two", False), ("two", True)
    ]  # fmt: skip
    assert [(name, share) for name, share, _ in why.scenes] == [
        ("one", pytest.approx(0.75)), ("two", pytest.approx(0.25))
    ]  # fmt: skip
    alone = explain(plan, film, 0, 0.0)
    assert alone.light == (1, 0, 0)
    assert {touch.scene for touch in alone.touches} == {""}


def test_the_share_that_the_limiter_lets_through_is_told():
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    made = design(layer(), line=line, supplies={"s": {"budget": 0.31}})
    why = explain(made.examined.sound.recorded.reasons, film_of(made), 4, 0.0)
    assert why.let_through == pytest.approx(0.5, abs=0.005)
    assert why.rgb == (127, 127, 127)


def named(*texts):
    """The rows that texts name, on parts a of 3 LEDs, b of 4 without its second, and dot of one."""
    b = strip("b", 4, skip=[1], names=["w", "x", "y", "z"], at=[0, 9])
    made = design(
        layer(), line=[{"name": "l", "part": [strip("a", 3), b, strip("dot", 1, at=[90, 0])]}],
        groups={"last": "index == 3"}, trails={"back": {"of": "all", "by": "-x"}},
    )  # fmt: skip
    return [spot_of(made.layout(), text, made.examined.subject.choices) for text in texts]


def test_leds_are_named_by_the_place_in_their_part_also_behind_skipped_ones():
    assert named("a:2", "b:0", "b:2", "b:3", "b:z") == [2, 3, 4, 5, 5]
    with pytest.raises(LayoutError, match="is skipped"):
        named("b:1")
    with pytest.raises(LayoutError, match="b:0 to b:3"):
        named("b:4")
    with pytest.raises(LayoutError, match="'a' is not an LED; use a:0 to a:2"):
        named("a")


def test_leds_are_named_in_every_way_that_a_group_takes():
    """The trail `back` begins at the dot, at x = 90, and goes on with b's last, at x = 30."""
    assert named("a[2]", "b[2]", "b[z]", "dot", "last", "x > 80") == [2, 4, 5, 6, 5, 6]
    assert named("back[0]", "back:1", "y > 5 and x < 5") == [6, 5, 3]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("x < 5", r"'x < 5' is 2 LEDs \(a:0, b:0 \(w\)\). Name one LED"),
        ("all", r"is 7 LEDs \(a:0, a:1, a:2, ...\)"),
        ("x > 500", "'x > 500' is 0 LEDs. Name one"),
        ("bac[0]", "trail 'bac'. Did you mean 'back'"),
        ("bak:4", "no part, group or trail 'bak'. Did you mean 'back'"),
        ("x >", "is not an LED: this does not parse: .*. Add what is missing"),
    ],
)
def test_a_text_that_names_no_single_led_says_what_it_names(text, says):
    with pytest.raises(LayoutError, match=says):
        named(text)


def test_an_led_that_is_black_since_a_layer_hides_what_is_below_says_so():
    """White; over it a blink that is dark from 0.5 s on, which hides three quarters of it."""
    made = design(
        layer(), layer("blink", colour="red", rate=1, duty=0.5, hides_below=True, cover=0.75), count=1
    )  # fmt: skip
    film = made.compile(engine="numpy").film(Tape(np.array([0.0, 0.9]), {}))
    plan = made.examined.sound.recorded.reasons
    lit, dark = (explain(plan, film, 0, at).touches[1] for at in (0.1, 0.8))
    assert (lit.cover, lit.hidden) == (0.75, 0)
    assert (dark.cover, dark.hidden, dark.after) == (0, 0.75, (0.25, 0.25, 0.25))


UNEVEN = {"s": {"lost_after": 0.25}}


def test_replaying_gives_what_the_engine_had_with_uneven_steps_and_a_late_start():
    """A tape that begins at 7 s, and frames 30 ms apart: what is lost after 0.25 s is so then."""
    made = design(layer(when="not lost(s)"), signals=UNEVEN, count=1)
    late = tape(10.0, s=[1] + [None] * 6)
    late = type(late)(late.times + 7.0, late.signals)
    film = made.compile(engine="numpy").film(late, rate=1 / 0.03)
    plan = made.examined.sound.plan
    lit = (film.rgb[:, 0, 0] > 0).tolist()
    assert [row[0] for _, row in replay(plan, film, [plan.paints[0].on])] == lit
    assert lit == [True] * 9 + [False] * (len(film) - 9)  # 0.24 s is the last
    given = [*frames_of(plan, film)]
    assert [at for at, _ in given[:4]] == [0, 30, 60, 90]
    assert given[0][1] == {"s": 1.0}
    assert layers_on(plan, film, [len(film) - 1, 0]) == {0: ("0: solid layer",), len(film) - 1: ()}


def test_a_timeline_is_in_the_order_of_the_design_and_counts_the_least_of_a_fade():
    made = design(
        layer(priority=5, when="s > 1"), layer(colour="red", when="s > 0.5", fade_out=0.4), count=1,
        signals={"s": {}}, rate=10,
        scene=[{"name": "x", "when": "s > 9"}, {"name": "y", "fade": 0.5}],
    )  # fmt: skip
    film = film_of(made, s=[0, 1, 0, 0, 0, 0, 0, 0])
    found = timeline_of(made.examined.sound.plan, film)
    assert [each.name for each in found.layers] == ["0: solid layer", "1: solid layer"]
    assert found.layers[0].stretches() == []
    assert found.layers[1].stretches() == [(1, 5)]
    assert [each.stretches() for each in found.scenes] == [[], [(0, 8)]]


def test_reasons_are_said_in_the_design_s_own_words():
    made = design(
        layer(when="s > 1", scene=["x", "y"]), layer(scene="x"), layer(when=False), layer(),
        signals={"s": {}}, scene=[{"name": "x", "when": "s > 9", "button": "s > 2"}, {"name": "y"}],
    )  # fmt: skip
    assert [why_of_layer(made, i) for i in range(4)] == [
        "s > 1, in scene x or y", "in scene x", "never", "always"
    ]  # fmt: skip
    assert [why_of_scene(made, i) for i in range(2)] == ["s > 9 and s > 2 steps", "otherwise"]


def test_a_layer_counts_as_seen_from_a_hundredth_of_the_light_on_and_in_any_frame():
    """One of 0.02 of the light; one that shows only where the layer above it is off, at the end."""
    made = design(
        layer(colour="blue"), layer("field", red=0.02, green=0, blue=0, blend="add"),
        layer(colour="lime", when="s < 1", on="first"), layer(colour="red", when="s < 0.9", on="first"),
        layer("field", red=0.001, green=0, blue=0, blend="add"),
        groups={"first": "index == 0"}, signals={"s": {}},
    )  # fmt: skip
    film = film_of(made, s=[i / 20 for i in range(21)])
    plan = made.examined.sound.plan
    assert layers_seen(plan, film, timeline_of(plan, film)) == {0, 1, 2, 3}


def test_a_layer_that_is_on_in_the_last_frame_alone_is_seen():
    made = design(layer(when="s < 1"), layer(colour="red", when="s > 0.95"), signals={"s": {}})
    film = film_of(made, s=[i / 20 for i in range(21)])
    plan = made.examined.sound.plan
    assert film.rgb[-2:, 0].tolist() == [[255] * 3, [255, 0, 0]]
    assert layers_seen(plan, film, timeline_of(plan, film)) == {0, 1}


def test_budgets_know_how_bright_a_design_can_become():
    """At a level of at most 0.5 the light is 0.184: byte 47 of 255 for each of ten LEDs."""
    made = design(layer(), level="0.5 * s", signals={"s": {"range": [0, 1]}}, count=10)
    film = film_of(made, s=[0, 1])
    assert made.budget().white_a == pytest.approx(0.01 + 0.6 * 47 / 255)
    assert film.budget().white_a == pytest.approx(0.01 + 0.6 * 47 / 255)
    assert film.budget().draw.layers == ("0: solid layer",)
    assert np.isclose(film.budget().draw.peak_a, 0.01 + 0.6 * 47 / 255)


def test_a_layer_that_is_nowhere_brighter_than_byte_2_is_told():
    """At level 0.1 white is 0.0113 of the light: byte 3. At 0.09 (0.00998 of it, 2.54) as well, and at
    0.08 (0.00886 of it) 2.26. Black, a filter, and one that flashes once are not told.
    """
    made = design(
        layer(level=0.08), layer(level=0.1, on="last"), layer(colour="black", on="first"),
        layer(colour="gray", blend="multiply"), layer(level="0.08 + s", blend="add"),
        layer(level=0.5, when="s > 5"), layer("field", red=0.002, green=0, blue=0, blend="add"),
        groups={"first": "index == 0", "last": "index > 4"}, signals={"s": {}}, rate=50,
    )  # fmt: skip
    course = [0.0] * 500
    course[333] = 0.5
    film = made.compile(engine="numpy").film(tape(50.0, s=course))
    plan = made.examined.sound.plan
    found = barely_lit(plan, film, timeline_of(plan, film))
    assert found == {0: pytest.approx(2.26, abs=0.01), 6: pytest.approx(0.51, abs=0.01)}


def test_the_master_level_and_the_ceiling_count_for_what_is_barely_lit():
    for keys in ({"level": 0.08}, {"most": 0.08}):
        made = design(layer(), signals={"s": {}}, **keys)
        film = film_of(made, s=[0, 1])
        plan = made.examined.sound.plan
        assert barely_lit(plan, film, timeline_of(plan, film)) == {0: pytest.approx(2.26, abs=0.01)}
