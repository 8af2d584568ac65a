"""Reading and writing: designs, tapes, and files that are whole or not there."""
