"""Computation only: no web, database, files, clock or unseeded randomness."""
