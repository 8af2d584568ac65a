"""The design as it is written: its tables, reading plain values, and what is wrong in words."""
