"""Outside devices and their stand-ins: the scale port, the simulated bench scale."""
