"""What the shop has, what it takes, what is short, and what that costs."""
