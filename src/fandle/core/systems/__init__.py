"""Systems of counting: one module a system, named after it, with its M-number inside."""
