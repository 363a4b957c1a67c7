"""The Club room: what am I playing with?"""
