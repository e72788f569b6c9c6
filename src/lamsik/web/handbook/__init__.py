"""Cautions and words."""
