"""Paint schemes as documents."""
