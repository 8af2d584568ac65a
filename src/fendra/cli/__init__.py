"""The command line, one command a file."""
