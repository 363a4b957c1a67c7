"""Tests of `fandle.core.choice`."""
