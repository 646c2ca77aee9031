"""The HTTP API and the static front end: thin."""
