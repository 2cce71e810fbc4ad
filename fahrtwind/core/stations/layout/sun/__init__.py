"""Sun on the roof: the year's light at a site, the shadows on every panel, and what both leave of its
energy.
"""
