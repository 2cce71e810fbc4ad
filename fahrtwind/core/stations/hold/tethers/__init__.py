"""What catches a panel when its own feet let go."""
