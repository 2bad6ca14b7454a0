"""A job begun from nothing: what a tape gives in five minutes, and the first answer that it is good for."""
