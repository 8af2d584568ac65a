"""The NumPy engine: a plan run frame by frame with arrays."""
