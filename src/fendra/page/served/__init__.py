"""The page of a run: this computer serves it; people look and steer in a browser or by HTTP.

access decides who may; calls is the table of calls; streams sends frames; app joins them; server
runs it in a thread of its own. desk edits the design's file; bench plays patterns and takes
answers.
"""
