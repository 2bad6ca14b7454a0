"""What every drawing shares: dimension lines and how they stack."""
