"""Fahrtwind plans how solar panels are held on the roofs of vehicles."""

__version__ = "0.16.0"
