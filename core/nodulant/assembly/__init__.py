"""Assembly sheets: what each operation is put together from, how it is welded, and what it weighs."""
