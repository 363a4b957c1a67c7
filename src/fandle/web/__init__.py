"""The web application: pages, JSON, and the files that draw them."""
