"""The design as it is written: its tables, reading plain values, and messages about mistakes."""
