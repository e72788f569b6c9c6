"""Sheet-metal blades as documents."""
