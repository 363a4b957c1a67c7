"""The check room: how does this table play?"""
