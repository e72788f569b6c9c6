"""Moulds: masters, layout, silicone, vents, halves to print."""
