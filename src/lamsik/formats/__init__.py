"""Open files in and out: bytes to core values and back."""
