"""What differs between Linux, macOS and Windows: one small room, with a form for each.

terminal: colours, and keys as the user presses them. process: how a run is ended from outside, and
timers. ports: serial ports, and why one does not open. ends: the far end of a port without a
device. files: replacing, and whose a file is. Each module picks its form as it is imported: those
of Windows are in `windows`, the others in `unix`. No other room asks which system this is.
"""
