"""Live: the loop that joins sources, a program and outputs."""
