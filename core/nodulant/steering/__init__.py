"""From the steering wheel to the road wheels: gear, knuckles, lock, bump steer, column."""
