"""The record of attempts."""
