"""The Handbook: how does this way of counting work?"""
