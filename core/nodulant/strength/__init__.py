"""Stock against planned: capacities and use along the rail."""
