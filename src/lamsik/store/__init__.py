"""SQLModel tables and queries, migrations, backup. Turns rows into core values and back."""
