"""The Table room: what do I shoot, and where do I aim?"""
