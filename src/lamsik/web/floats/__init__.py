"""The Floats bench."""
