"""Paint schemes: ordered coats on a body."""
