"""The job document: what is stored, exported and evaluated."""
