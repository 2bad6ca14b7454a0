"""The log of what was measured, signed and decided, and what it means."""
