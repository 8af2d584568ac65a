"""A rig whose maker soldered the right shift light in before the left one, and found it on the bench.

The design below is as it was written. On the thing the wire comes to the right light first.
"""

import tomllib

import fendra as fd
from fendra.core.probe.answers import judge
from fendra.core.probe.bench import make_bench
from fendra.core.probe.cures import Change, Exchange, cured

DESIGN = """
name = "Exchanged"
rate = 50

[[line]]
name = "rig"
supply = "usb"

[[line.part]]
name = "shift-left"
shape = "strip"
start = [-120, 0]
end = [-60, 10]
count = 4

[[line.part]]
name = "shift-right"
shape = "strip"
start = [60, 10]
end = [130, 0]
count = 4

[[line.part]]
name = "dash"
shape = "strip"
start = [-50, 40]
end = [50, 40]
count = 6

[supplies.usb]
amps = 1.5

[signals.left]
kind = "switch"

[[layer]]
name = "left"
on = "shift-left"
effect = "solid"
colour = "red"
when = "left"

[[layer]]
name = "dash"
on = "dash"
effect = "solid"
colour = "blue"
"""

TAPE = "time,left\n0,0\n1,1\n2,1\n"


def verdict_of(values, *words):
    design = fd.Design.from_values(values)
    return judge(make_bench(design, design.layout()), None, *words)


def test_as_it_is_written_the_left_light_has_the_first_addresses(seen):
    assert seen.film.frame(1.5).line_bytes()[0][:12] == bytes([0, 255, 0] * 4)


def test_the_bench_says_that_both_change_places_and_then_left_is_left():
    """Sent red for the left one, the right one is red. Addresses 4 to 7 are really on the left."""
    values = tomllib.loads(DESIGN)
    verdict = verdict_of(values, None, "shift-right=red shift-left=green dash=blue", ["parts"])
    assert verdict.ways == ((Exchange(("line", 0, "part", 0), ("line", 0, "part", 1)),),)
    mended = cured(values, verdict.ways[0])
    again = verdict_of(mended, None, "shift-right=red shift-left=green dash=blue", ["parts"])
    assert "every part is where the design says" in again.words
    design = fd.Design.from_values(mended)
    frame = design.compile().frame(left=1, at=0.0)
    assert frame.line_bytes()[0][:24] == bytes([0, 0, 0] * 4 + [0, 255, 0] * 4)
    assert (design.layout().position[frame.rgb[:, 0] > 0, 0] < 0).all()


def test_a_part_that_is_fed_from_its_end_is_told_rather_than_a_mirrored_map():
    """The dash is what is in front: red at its left by the map is seen at its right. A mirrored map
    would put the left light on the right, which is not what its name says."""
    verdict = verdict_of(tomllib.loads(DESIGN), None, "red=front-right green=front-left")
    assert verdict.ways == ((Change(("line", 0, "part", 2), "reverse", True),),)
    assert "mirrored" not in verdict.words
