"""Proposals: the best layouts from the panels on offer, how good they provably are, and what stops one more
panel.
"""
