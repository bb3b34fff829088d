"""Do dimensions define the part, and which would?"""
