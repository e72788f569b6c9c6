"""The rules of the trade and all computation. Knows no interface, no database and no files."""
