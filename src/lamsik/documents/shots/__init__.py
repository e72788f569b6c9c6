"""Tables of shot sizes as documents."""
