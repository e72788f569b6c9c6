"""What to do now."""
