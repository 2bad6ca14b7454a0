"""Long comparisons, run by ``make harness``; continuous integration runs a short form of each."""
