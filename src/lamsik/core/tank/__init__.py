"""How a body sits and moves: mass, immersion, attitude, motion, ballast."""
