"""Cross-section properties, station by station, in batches."""
