"""Bodies: curves, sections, solids, starting forms, hardware and what is missing."""
