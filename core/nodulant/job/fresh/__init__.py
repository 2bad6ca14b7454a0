"""New work and new suspensions as they begin: on this survey, from this shop's plate, where there is frame."""
