"""What is said at the scale."""

REMINDERS = (
    "wet hair, joints and the line first: trapped air falsifies it",
    "no bubble on it, it touches neither wall nor bottom",
    "the line hangs slack and thin",
)
"""Before a weighing in water."""

DUST = "Filing or drilling lead makes dust: wet it, catch the filings, no food at the bench, wash hands."
"""Where a slug is taken down."""
