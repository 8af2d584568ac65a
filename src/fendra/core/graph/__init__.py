"""The graph that effects and expressions become, its passes, and what runs it."""
