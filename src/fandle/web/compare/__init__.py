"""The Compare room: which way of counting should I trust from here?"""
