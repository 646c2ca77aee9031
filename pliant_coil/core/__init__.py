"""The trade's rules: pure Python, no web, no database, no files."""
