"""Castings: amounts, inserts, foam, hot plastisol, the guided pour, how many by when."""
