"""What starts, tests and measures the application; no part of it."""
