"""The border: Pydantic models of every file read and every answer written."""
