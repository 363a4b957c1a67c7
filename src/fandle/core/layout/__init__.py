"""Balls on a table: where they may lie, and how a layout is changed."""
