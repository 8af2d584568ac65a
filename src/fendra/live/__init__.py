"""Live: the loop that joins a source, a program and outputs."""
