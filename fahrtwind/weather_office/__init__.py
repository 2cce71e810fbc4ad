"""A weather office that is simulated: its own process with its own API, for demos and tests. Its weather is
invented from a seed; nothing of it comes from a real forecast.
"""
