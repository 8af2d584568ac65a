"""Composition: a design and its layout become one plan."""
