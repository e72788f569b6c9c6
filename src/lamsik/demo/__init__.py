"""The invented shop that the demo starts with."""
