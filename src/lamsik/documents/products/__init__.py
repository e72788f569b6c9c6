"""Mixed products as documents."""
