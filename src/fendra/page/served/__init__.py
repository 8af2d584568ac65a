"""The page of a run: served by this computer, looked at and steered from a browser or by HTTP.

access says who may; calls is the table of what can be asked; streams sends frames; app joins them;
server runs it in a thread of its own. desk edits the design's file; bench plays patterns, and takes
what is seen.
"""
