"""Firmware: the emitted C with all that a controller needs around it, as a folder that builds."""
