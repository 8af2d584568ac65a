"""Light: colours as people write them, linear light inside, bytes on the wire."""
