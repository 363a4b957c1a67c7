"""The trade: tables, layouts, lines and the physics under them. No web, no database, no files."""
