"""Paints on the shelf as documents."""
