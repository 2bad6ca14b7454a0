"""Rails and frame: drawings, figures, the axle under them, states between."""
