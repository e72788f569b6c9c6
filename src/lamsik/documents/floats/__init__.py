"""Floats: stacked parts and marks as a document, and its edits."""
