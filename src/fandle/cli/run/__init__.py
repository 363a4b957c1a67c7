"""What the verbs do, a module for those that need the same: loaded when a verb is given, not to print help."""
