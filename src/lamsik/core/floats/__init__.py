"""Floats: stacked coaxial parts, what they carry to which mark, how they stand, shotting, the way back
from a load to a size.
"""
