"""Routers, one a subject."""
