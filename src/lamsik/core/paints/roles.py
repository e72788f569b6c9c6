"""What layers of paint do."""

SEALS, GROUNDS, COLOURS, FITTED, CLEARS = "seals", "grounds", "colours", "fitted", "clears"
"""What a layer does: closes the body, gives paint a hold, is the pattern, is a bought part, protects all."""

SPRAYED, BRUSHED, DIPPED, SET, DUSTED = WAYS = ("sprayed", "brushed", "dipped", "set on", "dusted")
"""How a layer goes on."""
