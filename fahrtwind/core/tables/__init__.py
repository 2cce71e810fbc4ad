"""Data with its provenance: every record says where it comes from and how sure that is."""
