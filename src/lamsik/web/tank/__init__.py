"""How a body sits and moves."""
