"""What is kept: SQLAlchemy models, Alembic migrations, a module of queries for each subject."""
