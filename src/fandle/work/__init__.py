"""Long work: bounded, shown, stopped, remembered; and the engine made ready for it."""
