"""Colours to be matched as documents."""
