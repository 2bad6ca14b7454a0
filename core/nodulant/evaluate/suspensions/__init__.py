"""Suspensions: studies, drawings, curves, figures, and what is searched for them."""
