"""Every bait made."""
