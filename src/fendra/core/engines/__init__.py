"""Engines: what runs or writes a plan. All of them give the same bits."""
