"""The heart: values in, values out. No files, no sockets, no clock, no printing, no plotting."""
