"""Pictures: the map, the film strip, stills and animations. None of them needs a screen."""
