"""Close work: methods that are technique more than sums, solved by playing them (M20 to M26)."""
