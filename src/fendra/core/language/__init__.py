"""The language of expressions: one grammar, one table of names, one reader."""
