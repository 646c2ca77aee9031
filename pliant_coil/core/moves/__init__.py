"""What a wire can do. A wire is an ordered list of moves; every length, mark, step and drawing is read from it.

A ring needs a few of them: each is had from its own module, and the rest isn't loaded.
"""
