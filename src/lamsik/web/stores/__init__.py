"""What the shop has."""
