"""Thin routers over the core and the store; serves the built front end."""
