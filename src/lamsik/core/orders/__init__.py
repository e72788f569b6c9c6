"""Orders: where one stands."""
