"""The kinds of animation, by name; apart, so that naming them loads nothing."""

from typing import Literal

AnimationName = Literal["gif", "apng", "mp4"]
