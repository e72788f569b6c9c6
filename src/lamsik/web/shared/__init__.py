"""What all benches share."""
