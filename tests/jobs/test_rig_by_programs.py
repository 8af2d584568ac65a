"""The desk beside the arcade cabinet, as it ships: a look for each program, an alarm by heat, and a
look for when it is locked or gone. Its tape is an evening: 0 s plain, 8 s locked, 12 s music, 22 s a
rally in which it grows hot, 36 s paint, and from 42 s on nothing is heard."""

import numpy as np

import fendra as fd

DESIGN = fd.demo_file("desk.toml").read_text(encoding="utf-8")
DESIGN = DESIGN.replace("rally.toml", fd.demo_file("rally.toml").as_posix())  # it lies elsewhere
TAPE = fd.demo_file("desk.csv").read_text(encoding="utf-8")
KEYS = "keyboard-control"
W, A, S, D, G, H, J, FIRST, LAST = 13, 24, 25, 26, 28, 29, 30, 0, 47
FANS = ("fan-1", "fan-2", "fan-3")


def test_the_keys_that_steer_are_white_in_the_rally_and_the_motor_runs_along_the_rest(seen):
    """At 26 s the motor turns at 4,936 of 6,000: the left is lit in its colours, the last key of a
    row is not."""
    for key in (W, A, S, D):
        red, green, blue = seen.rgb(26.0, KEYS, key)
        assert red == green == blue > 100
    assert seen.rgb(26.0, KEYS, FIRST)[2] > 100  # blue: slow is at the left
    assert max(seen.rgb(26.0, KEYS, LAST)) < 20  # the dark cockpit


def test_what_is_typed_runs_out_from_its_key(seen):
    """H at 2 s. Its wave, of 160 mm/s, is 19 mm on after 0.12 s: there are G and J. The light of the
    desk below has more blue than red, the wave less.
    """
    for key in (G, J):
        assert seen.rgb(1.9, KEYS, key)[0] < seen.rgb(1.9, KEYS, key)[2]
        red, _, blue = seen.rgb(2.12, KEYS, key)
        assert red > 1.5 * blue
    for key in (H, FIRST):  # it has left the one, and does not reach the other
        red, _, blue = seen.rgb(2.12, KEYS, key)
        assert red < blue


def test_the_brake_lights_up_the_edge_of_the_desk(seen):
    soft, hard = (seen.bytes(at_s, "front") for at_s in (25.5, 34.0))
    assert (hard[:, 0] > 2 * soft[:, 0]).all()
    assert not hard[:, 1:].any()


def test_heat_blinks_the_case_and_nothing_else(seen):
    """Above 88 C, 1.5 times a second, half of the time: at 34.5 s it has 92 C and more."""
    frames = np.arange(34.55, 35.88, 0.05)  # two blinks; `heat` is smoothed over 2 s
    for fan in FANS:
        alarm = [
            (seen.bytes(t, fan)[:, 1] < 30).all() and (seen.bytes(t, fan)[:, 0] > 80).all()
            for t in frames
        ]
        assert 0.3 < np.mean(alarm) < 0.7
    assert not any((seen.bytes(t, FANS[0])[:, 0] > 80).all() for t in np.arange(25.0, 27.0, 0.05))
    assert all((seen.bytes(t, "keyboard-branding")[:, 0] < 30).all() for t in frames)


def test_a_locked_computer_shows_one_dark_blue_wave(seen):
    for part in (*FANS, KEYS, "front"):
        light = seen.bytes(10.5, part)
        assert light.max() < 40
        assert (light[:, 2] >= light[:, :2].max(axis=1)).all()


def test_music_has_the_colours_of_its_cover_from_left_to_right(seen):
    """#ff8020 and #2040ff: red and blue, and no LED where green is the strongest."""
    light = seen.bytes(17.0, "front")
    assert (light[:, 1] <= light[:, ::2].max(axis=1)).all()
    assert light[:, 0].max() > light[:, 0].min()
    assert light[:, 2].max() > light[:, 2].min()


def test_painting_has_one_white_everywhere(seen):
    """#ffe8d0: red over green over blue; the desk's edge and the keyboard alike."""
    for part in ("front", "keyboard-accent"):
        light = seen.bytes(39.0, part)
        assert (light == light[0]).all()
        red, green, blue = light[0]
        assert red > green > blue > 10


def test_when_nothing_is_heard_any_more_an_ember_stays(seen):
    for part in (*FANS, KEYS, "stick-1"):
        assert seen.count(51.0, part) == 0
    light = np.array([seen.bytes(t, "front").max(axis=0) for t in np.arange(48.0, 51.9, 0.2)])
    assert light[:, 0].max() > 0
    assert not light[:, 1:].max() > light[:, 0].max()
