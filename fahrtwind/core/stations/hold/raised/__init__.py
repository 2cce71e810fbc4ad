"""Panels that are raised while parked."""
