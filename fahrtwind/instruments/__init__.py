"""Instruments at the workshop: torque wrench, surface thermometer, hygrometer, angle gauge, multimeter. They
speak one open line format, docs/instruments.md, to a socket of this machine; simulated ones ship with it.
"""
