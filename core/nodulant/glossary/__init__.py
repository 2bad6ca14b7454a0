"""Words of the trade: what each means, a small drawing, and the fields that ask for it."""
