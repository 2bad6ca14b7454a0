"""Instruments that speak: one line protocol, over serial or TCP; simulated ones ship with the application."""
