"""What was built: against the plan, whether it matters, and what corrects it."""
