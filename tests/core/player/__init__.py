"""Tests of `fandle.core.player`."""
