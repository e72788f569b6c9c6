"""Sentences by the name of a finding, bench by bench."""
