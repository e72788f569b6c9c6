"""Documents: what a shop draws and keeps, edited, checked and raised in one way for all kinds."""
