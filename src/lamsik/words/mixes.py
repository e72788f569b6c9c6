"""What is said of mixes and their clocks."""

RULE_OF_THUMB = (
    "Time doubles for each 10 °C (18 °F) colder and halves for as much warmer: a rule of thumb. The product's"
    " own sheet beats it."
)
"""How pot life and cure go with warmth."""
