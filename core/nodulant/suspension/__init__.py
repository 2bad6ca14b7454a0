"""Axles and wheels on links and springs: layouts, motion through travel, loads of the links."""
