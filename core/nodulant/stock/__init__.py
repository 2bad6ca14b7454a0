"""What a design takes of steel, tube, bolts and wire, and how it comes out of what can be bought."""
