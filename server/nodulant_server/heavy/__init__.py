"""Work that takes longer than an answer should: one port, a registration a kind, workers behind a queue."""
