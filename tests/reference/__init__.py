"""A second simulator, written from the physics alone, against which the engine is held."""
