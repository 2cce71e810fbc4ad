"""Choosing a layout: proposals, variants side by side, and what a change would change. Reads whole
evaluations.
"""
