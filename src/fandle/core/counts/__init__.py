"""The schools of counting, one module each: numbers on rails -> steps -> aim -> where it lands."""
