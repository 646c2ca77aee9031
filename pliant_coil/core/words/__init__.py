"""Words: text as templates with typed figures, how figures are written, and what is said when something can't be taken."""
