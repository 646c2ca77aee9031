"""Use cases: each opens one transaction and calls core and store."""
