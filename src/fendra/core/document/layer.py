"""Layers, presets and scenes: what is shown where, when, and over what."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from fendra.core.document.choice import Spots
from fendra.core.values import Model, Name, Seconds, Setting, Texts, Title


class Preset(BaseModel):
    """An effect with parameters, under a name. All keys but these are the effect's parameters."""

    model_config = ConfigDict(extra="allow", frozen=True, strict=True, defer_build=True)
    __pydantic_extra__: dict[str, Setting]

    effect: str
    about: str = ""

    @property
    def parameters(self) -> dict[str, Setting]:
        """The effect's parameters as they are written."""
        return self.__pydantic_extra__


class Rhythm(Model):
    """A beat that several layers share, so that they stay in step.

    rate: turns a second, for every effect that has a `rate`; each has its own, if not given. when:
    a condition: each time it comes true, the beat begins anew; without one never.
    """

    about: str = ""
    rate: Setting | None = None
    when: bool | str = True


class Layer(BaseModel):
    """An effect on a choice of spots. All keys but these are the effect's parameters.

    on: a part, line, group or trail, `all`, or whatever else a group may hold. effect, or preset:
    what it shows. canvas: on which its spots are placed anew. scene: the scenes that it belongs to;
    every one, if not given. when: the condition; least_on: how long it stays on at least, s.
    rhythm: the beat that it shares with others. priority: layers are painted from the lowest on,
    and in the order of the file where they are equal. blend: how it is painted; cover: how much of
    it, 0 to 1. hides_below: it hides what is beneath on all of its spots, also where its effect is
    dark, as far as `cover` says. level: 0 to 1 as the eye sees it. fade_in, fade_out: s.
    """

    model_config = ConfigDict(extra="allow", frozen=True, strict=True, defer_build=True)
    __pydantic_extra__: dict[str, Setting]

    name: Title
    on: Spots
    effect: str = ""
    preset: str = ""
    canvas: str = ""
    scene: Texts = []
    when: bool | str = True
    least_on: Seconds = 0.0
    rhythm: str = ""
    priority: Annotated[int, Field(ge=-1000, le=1000)] = 0
    blend: str = "over"
    cover: Setting = 1.0
    hides_below: bool = False
    level: Setting = 1.0
    fade_in: Seconds = 0.0
    fade_out: Seconds = 0.0

    @property
    def parameters(self) -> dict[str, Setting]:
        """The effect's parameters as they are written."""
        return self.__pydantic_extra__

    @property
    def scenes(self) -> tuple[str, ...]:
        """The scenes that it belongs to; none is every one."""
        return (self.scene,) if isinstance(self.scene, str) else tuple(self.scene)


class Scene(Model):
    """A set of layers, shown while it is chosen: the first one in the file whose condition holds.

    when: the condition. button: a condition that, each time it comes true, steps on to the next of
    the scenes that have it. fade: the time in which it takes over from another, s.
    """

    name: Name
    about: str = ""
    when: bool | str = True
    button: str = ""
    fade: Seconds = 0.0
