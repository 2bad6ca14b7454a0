"""Changes of a design that mend a failing or weaker group, each tried before it is offered."""
