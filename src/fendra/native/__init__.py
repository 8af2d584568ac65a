"""The native engine: the emitted C, compiled by the machine's own compiler, cached, loaded."""
