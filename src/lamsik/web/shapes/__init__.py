"""Bodies and what is on them."""
