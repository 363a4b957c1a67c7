"""Words and figures as players say them."""
