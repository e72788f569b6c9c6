"""Outside devices and their simulated stand-ins. Weights are typed in this release; the scale port moves in here."""
