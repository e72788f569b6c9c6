"""What is said of orders."""

SAYS: dict[str, str] = {
    "no-body-called": "row {row}: no body is called “{name}”",
    "no-number-there": "row {row}: “{name}” is no number of pieces",
    "no-scheme-called": "no scheme is called “{name}”",
}
"""By the name of the finding."""
