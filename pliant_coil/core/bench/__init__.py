"""The bench: what happened to a ring, what its readings mean, and what the maker's hand has shown."""
