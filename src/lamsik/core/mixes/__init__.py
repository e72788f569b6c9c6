"""Mixes: what a filled resin weighs."""
