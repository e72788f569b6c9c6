"""Moulds of a master as a document, and its edits."""
