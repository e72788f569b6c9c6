"""The speed the product promises, measured in one run."""
