"""Schemes of coats."""
