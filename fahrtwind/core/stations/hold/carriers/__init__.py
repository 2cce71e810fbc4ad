"""Carriers: what stands between panels and the roof, worked as one structure with its feet."""
