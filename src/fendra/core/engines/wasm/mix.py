"""Layer over layer, and scenes that take over from each other."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from functools import partial

from fendra.core.engines.lower import Painted
from fendra.core.engines.wasm.binary import I32, Function
from fendra.core.engines.wasm.code import Code, const, get, i32
from fendra.core.engines.wasm.draft import Draft
from fendra.core.engines.wasm.instructions import instruction
from fendra.core.graph.ops import Kind


def paint_scene(draft: Draft, layers: Mapping[int, int]) -> Function:
    """The layers of the scene that it takes, and those between them that belong to every one.

    layers: of each layer's number its function.
    """
    code = Code(I32)
    _calls(code, draft, draft.lowered.mixed, layers, scene=get(0))
    return code.done()


def paint(draft: Draft, layers: Mapping[int, int], scene_at: int | None) -> Function:
    """The light of all spots from black on. scene_at: the function that paints a scene."""
    code = Code()
    _each(code, draft, lambda at: _fill(code, draft, at, draft.canvas))
    _calls(code, draft, draft.lowered.before, layers)
    if scene_at is not None:
        _scenes(code, draft, scene_at)
    _calls(code, draft, draft.lowered.behind, layers)
    return code.done()


def share_of(draft: Draft, place: int) -> bytes:
    """The instructions that push a number of the frame after it has been computed."""
    if place in draft.fields:
        return i32(0) + instruction(f"f32.load:{draft.fields[place]}")
    node = draft.graph.nodes[place]
    assert isinstance(node.payload, tuple)
    return const(Kind.FLOAT, node.payload[0])


def _scenes(code: Code, draft: Draft, scene_at: int) -> None:
    """A scene that is active alone is painted directly; several are painted separately."""
    zero, count, which = const(Kind.FLOAT, 0.0), code.local(), code.local()
    shares = [share_of(draft, place) for place in draft.lowered.shares]
    code.add(i32(-1), f"local.set:{which}")
    for number, share in enumerate(shares):
        code.add(share, zero, "f32.gt if", get(count), i32(1), f"i32.add local.set:{count}")
        code.add(i32(number), f"local.set:{which} end")
    code.add(get(count), i32(2), "i32.lt_u if", get(which), f"call:{scene_at} else")
    _each(code, draft, lambda at: _copy(code, draft, at, draft.canvas, draft.beneath))
    _each(code, draft, lambda at: _fill(code, draft, at, draft.total))
    for number, share in enumerate(shares):
        code.add(share, zero, "f32.gt if")
        _each(code, draft, lambda at: _copy(code, draft, at, draft.beneath, draft.canvas))
        code.add(i32(number), f"call:{scene_at}")
        _each(code, draft, partial(_add_share, code, draft, share))
        code.add("end")
    _each(code, draft, lambda at: _copy(code, draft, at, draft.total, draft.canvas))
    code.add("end")


def _calls(
    code: Code, draft: Draft, paints: Iterable[Painted], layers: Mapping[int, int],
    scene: bytes | None = None,
) -> None:  # fmt: skip
    """Paint layers, each if it is on and not left out, and in the pushed scene."""
    numbers = {id(paint): number for number, paint in enumerate(draft.lowered.painted)}
    for paint in paints:
        number = numbers[id(paint)]
        code.add(i32(0), f"i32.load:{draft.left_out + 4 * number} i32.eqz")
        if paint.on in draft.fields:
            code.add(i32(0), f"i32.load:{draft.fields[paint.on]} i32.and")
        if scene is not None and paint.scenes is not None:
            code.add(i32(0))
            for one in sorted(paint.scenes):
                code.add(scene, i32(one), "i32.eq i32.or")
            code.add("i32.and")
        code.add(f"if call:{layers[number]} end")


def _each(code: Code, draft: Draft, body: Callable[[int], None]) -> None:
    """For each row of all three planes; the body takes the local that counts their bytes."""
    at = code.keep(i32(0))
    with code.counting(at, i32(3 * draft.plane), 4 * draft.lanes):
        body(at)


def _fill(code: Code, draft: Draft, at: int, plane: int) -> None:
    if draft.lanes > 1:
        code.add(get(at), i32(0), f"i32x4.splat v128.store:{plane}")
    else:
        code.add(get(at), i32(0), f"i32.store:{plane}")


def _copy(code: Code, draft: Draft, at: int, source: int, target: int) -> None:
    kind = "v128" if draft.lanes > 1 else "i32"
    code.add(get(at), get(at), f"{kind}.load:{source} {kind}.store:{target}")


def _add_share(code: Code, draft: Draft, share: bytes, at: int) -> None:
    """Add this share of the canvas to the total."""
    load, form = ("v128", "f32x4") if draft.lanes > 1 else ("f32", "f32")
    spread = "f32x4.splat" if draft.lanes > 1 else "nop"
    code.add(get(at), get(at), f"{load}.load:{draft.total}", get(at))
    code.add(f"{load}.load:{draft.canvas}", share, f"{spread} {form}.mul {form}.add")
    code.add(f"{load}.store:{draft.total}")
