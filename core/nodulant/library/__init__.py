"""What a shop has typed before, ready to be taken again."""
