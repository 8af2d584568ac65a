"""Layers, presets and scenes: what is shown where, when, and over what."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from fendra.core.document.choice import Spots
from fendra.core.values import Model, Name, Seconds, Setting, Texts, Title


class Preset(BaseModel):
    """An effect with parameters, under a name. All other keys are the effect's parameters.

    Attributes:
        effect: the effect
        about: for people
    """

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

    Attributes:
        about: for people
        rate: turns a second: a number, or an expression over signals; the `rate` of every
            effect in the rhythm
        when: a condition: each time it becomes true, the beat starts again
    """

    about: str = ""
    rate: Setting | None = None
    when: bool | str = True


class Layer(BaseModel):
    """An effect on a choice of LEDs. All other keys are the effect's parameters.

    Attributes:
        name: for people, and for messages
        on: a part, a line, a group, a trail or `all`; or what a group can hold, such as
            `front[5-6]`, `x < 0`, `stick-*`, a list or a table
        effect: what it shows
        preset: the name of a preset instead of `effect`; you can override its parameters
            one by one
        canvas: the canvas on which its LEDs are moved
        scene: the scene to which it belongs, or a list of scenes; every scene by default
        when: a condition
        least_on: minimum time on, s
        rhythm: the name of a rhythm that it shares with other layers
        priority: higher priority is painted on top; ties follow file order
        blend: how it is painted: `over`, `add`, `max` (the brighter of both), `darken` (the
            darker of both) or `multiply`, for each channel
        cover: how much of it is painted, 0 to 1
        hides_below: hides the layers below on all its LEDs, also where the effect is dark;
            as far as `cover` says
        level: 0 to 1 as the eye sees it; may be an expression, and differ from LED to LED
        fade_in: time to fade in, s
        fade_out: time to fade out, s
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
    """A set of layers. Fendra shows the first scene in the file whose condition holds.

    Attributes:
        name: the name that layers use
        about: for people
        when: a condition: of a mode, of ranges, of anything
        button: a condition: each time it becomes true, it steps to the next scene that has
            it
        fade: how long it takes to fade in, s
    """

    name: Name
    about: str = ""
    when: bool | str = True
    button: str = ""
    fade: Seconds = 0.0
