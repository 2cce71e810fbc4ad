"""Reading and writing: job JSON, readings CSV, drawings, work sheet."""
