"""Mixes planned and begun, and their clocks: for the Mixes and the Moulds bench."""
