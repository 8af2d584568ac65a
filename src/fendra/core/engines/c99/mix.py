"""Layer over layer, and scenes that take over from each other, in the emitted code."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.core.engines.c99.draft import Draft
from fendra.core.engines.c99.text import Piece, comment, literal
from fendra.core.engines.lower import Painted
from fendra.core.graph.ops import CHANNELS, Binds, Kind


def mix_calls(draft: Draft) -> list[str]:
    """The body that paints every layer, from the lowest on."""
    lowered = draft.lowered
    lines = _calls(draft, lowered.before)
    if lowered.mixed:
        lines += ["    const int there = scenes_there(now);"]
        lines += ["    if (there >= 0) {", "        paint_scene(now, first, end, light, there);"]
        lines += ["    } else {", "        mix_scenes(now, first, end, light);", "    }"]
    return lines + _calls(draft, lowered.behind)


def scene_functions(draft: Draft) -> list[str]:
    """The functions that the scenes need; none if there are none."""
    mixed = draft.lowered.mixed
    if not mixed:
        return []
    head = f"const struct {draft.name}_now *now, {draft.place} first, {draft.place} end,"
    count = len(draft.lowered.shares)
    there = [_share(draft, i) for i in range(count)]
    dark = "\n".join(f"        sum.{channel}[at] = 0.0f;" for channel in CHANNELS)
    adding = "\n".join(
        f"            sum.{channel}[at] += light->{channel}[at] * share;" for channel in CHANNELS
    )
    calls = _calls(draft, mixed, by_scene=True)
    return [
        *comment("The share of a scene, 0 to 1."),
        f"static float scene_share(const struct {draft.name}_now *now, int scene)",
        "{",
        "    switch (scene) {",
        *(f"    case {i}:\n        return {share.text};" for i, share in enumerate(there[:-1])),
        "    default:",
        f"        return {there[-1].text};",
        "    }",
        "}",
        "",
        *comment("The only active scene; -1 if several are active."),
        f"static int scenes_there(const struct {draft.name}_now *now)",
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
        *comment("Paints the layers of a scene, and the layers of all scenes between them."),
        f"static ON_ITS_OWN void paint_scene({head}",
        "    struct light *light, int scene)",
        "{",
        *calls,
        "}",
        "",
        *comment("Paints each active scene separately, and adds them up by their shares."),
        f"static ON_ITS_OWN void mix_scenes({head}",
        "    struct light *light)",
        "{",
        "    const struct light beneath = *light;",
        "    struct light sum;",
        f"    for ({draft.place} at = 0; at < end - first; at++) {{",
        dark,
        "    }",
        f"    for (int scene = 0; scene < {count}; scene++) {{",
        "        const float share = scene_share(now, scene);",
        "        if (share > 0.0f) {",
        "            *light = beneath;",
        "            paint_scene(now, first, end, light, scene);",
        f"            for ({draft.place} at = 0; at < end - first; at++) {{",
        adding.replace("            sum", "                sum"),
        "            }",
        "        }",
        "    }",
        "    *light = sum;",
        "}",
        "",
    ]


def _share(draft: Draft, number: int) -> Piece:
    place = draft.lowered.shares[number]
    if place in draft.fields:
        return Piece(f"now->{draft.fields[place]}", Binds.ATOM)
    node = draft.graph.nodes[place]
    assert isinstance(node.payload, tuple)
    return literal(Kind.FLOAT, node.payload[0])


def _calls(draft: Draft, paints: Iterable[Painted], *, by_scene: bool = False) -> list[str]:
    """Calls that paint layers, each if it is on. by_scene: and if its scene is."""
    lines = []
    for paint in paints:
        call = f"paint_{draft.slugs[paint.path]}(now, first, end, light);"
        conditions = []
        if draft.graph.nodes[paint.on].op != "const":
            conditions.append(f"now->{draft.fields[paint.on]}")
        if by_scene and paint.scenes is not None:
            which = [f"scene == {i}" for i in sorted(paint.scenes)] or ["false"]
            alone = len(which) == 1 or not conditions
            text = " || ".join(which)
            conditions.append(text if alone else f"({text})")
        if conditions:
            lines += [f"    if ({' && '.join(conditions)}) {{", f"        {call}", "    }"]
        else:
            lines.append(f"    {call}")
    return lines
