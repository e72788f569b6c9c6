"""The scale bench: weighing in air and in water, and the scale that is connected."""
