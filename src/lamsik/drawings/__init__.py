"""Drawings as SVG nodes, built once in Python for screen, live answers and print."""
