"""Signals: their kinds, conditioning, tapes and made-up courses."""
