"""Measuring tools at the bench: what they say over a local socket, and stand-ins for those who have none."""
