"""Layer over layer, and scenes that take over from each other, in the emitted code."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.core.graph.c99.lower import Paint
from fendra.core.graph.c99.scene import Scene
from fendra.core.graph.c99.text import Piece, comment, literal
from fendra.core.graph.ops import CHANNELS, Binds, Kind


def mix_calls(scene: Scene) -> list[str]:
    """The body that paints every layer, from the lowest on."""
    before, mixed, behind = _sorted(scene)
    lines = _calls(scene, before)
    if mixed:
        lines += ["    const int there = scenes_there(now);"]
        lines += ["    if (there >= 0) {", "        paint_scene(now, first, end, light, there);"]
        lines += ["    } else {", "        mix_scenes(now, first, end, light);", "    }"]
    return lines + _calls(scene, behind)


def scene_functions(scene: Scene) -> list[str]:
    """The functions that the scenes need; none where there are none."""
    _, mixed, _ = _sorted(scene)
    if not mixed:
        return []
    head = f"const struct {scene.name}_now *now, {scene.place} first, {scene.place} end,"
    count = len(scene.lowered.shares)
    there = [_share(scene, i) for i in range(count)]
    dark = "\n".join(f"        sum.{channel}[at] = 0.0f;" for channel in CHANNELS)
    adding = "\n".join(
        f"            sum.{channel}[at] += light->{channel}[at] * share;" for channel in CHANNELS
    )
    calls = _calls(scene, mixed, by_scene=True)
    return [
        *comment("How much of a scene is there, 0 to 1."),
        f"static float scene_share(const struct {scene.name}_now *now, int scene)",
        "{",
        "    switch (scene) {",
        *(f"    case {i}:\n        return {share.text};" for i, share in enumerate(there[:-1])),
        "    default:",
        f"        return {there[-1].text};",
        "    }",
        "}",
        "",
        *comment("The one scene that is there; -1 where there are several."),
        f"static int scenes_there(const struct {scene.name}_now *now)",
        "{",
        "    int found = -1;",
        f"    for (int scene = 0; scene < {count}; scene++) {{",
        "        if (scene_share(now, scene) > 0.0f) {",
        "            if (found >= 0) {",
        "                return -1;",
        "            }",
        "            found = scene;",
        "        }",
        "    }",
        "    return found;",
        "}",
        "",
        *comment("The layers of a scene, and those between them that belong to every one."),
        f"static ON_ITS_OWN void paint_scene({head}",
        "    struct light *light, int scene)",
        "{",
        *calls,
        "}",
        "",
        *comment("Each scene that is there painted by itself, and added up in its share."),
        f"static ON_ITS_OWN void mix_scenes({head}",
        "    struct light *light)",
        "{",
        "    const struct light beneath = *light;",
        "    struct light sum;",
        f"    for ({scene.place} at = 0; at < end - first; at++) {{",
        dark,
        "    }",
        f"    for (int scene = 0; scene < {count}; scene++) {{",
        "        const float share = scene_share(now, scene);",
        "        if (share > 0.0f) {",
        "            *light = beneath;",
        "            paint_scene(now, first, end, light, scene);",
        f"            for ({scene.place} at = 0; at < end - first; at++) {{",
        adding.replace("            sum", "                sum"),
        "            }",
        "        }",
        "    }",
        "    *light = sum;",
        "}",
        "",
    ]


def _sorted(scene: Scene) -> tuple[list[Paint], list[Paint], list[Paint]]:
    """The layers before those that scenes are mixed of, those, and those behind."""
    slots, mixed = scene.recording.slots, scene.recording.mixed
    places = {slot.layer: place for place, slot in enumerate(slots)}
    before: list[Paint] = []
    inside: list[Paint] = []
    behind: list[Paint] = []
    for paint in scene.lowered.paints:
        place = places[paint.slot.layer]
        if place in mixed:
            inside.append(paint)
        else:
            (before if place < mixed.start or not mixed else behind).append(paint)
    return before, inside, behind


def _share(scene: Scene, number: int) -> Piece:
    place = scene.lowered.shares[number]
    if place in scene.fields:
        return Piece(f"now->{scene.fields[place]}", Binds.ATOM)
    node = scene.graph.nodes[place]
    assert isinstance(node.payload, tuple)
    return literal(Kind.FLOAT, node.payload[0])


def _calls(scene: Scene, paints: Iterable[Paint], *, by_scene: bool = False) -> list[str]:
    """Calls that paint layers, each where it is on. by_scene: and in the scene."""
    lines = []
    for paint in paints:
        call = f"paint_{scene.slugs['layer', paint.slot.layer]}(now, first, end, light);"
        conditions = []
        if scene.graph.nodes[paint.on].op != "const":
            conditions.append(f"now->{scene.fields[paint.on]}")
        if by_scene and paint.slot.scenes is not None:
            which = [f"scene == {i}" for i in sorted(paint.slot.scenes)] or ["false"]
            alone = len(which) == 1 or not conditions
            text = " || ".join(which)
            conditions.append(text if alone else f"({text})")
        if conditions:
            lines += [f"    if ({' && '.join(conditions)}) {{", f"        {call}", "    }"]
        else:
            lines.append(f"    {call}")
    return lines
