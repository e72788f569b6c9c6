"""What the trade agrees on and what a shop may see otherwise, as tables."""
