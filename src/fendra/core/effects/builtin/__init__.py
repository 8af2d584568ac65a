"""The built-in effects, one a file, written with the public kit alone."""
