"""The Log room: am I getting better, and which way do I miss?"""
