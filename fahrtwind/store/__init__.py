"""Jobs as revisions in SQLite."""
