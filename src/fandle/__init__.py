"""Fandle: kick, bank and escape lines, counted, corrected and proved by playing them."""
