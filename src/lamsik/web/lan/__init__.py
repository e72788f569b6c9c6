"""The door to the shop's own network: its certificate, the encrypted pipe before the server, who is let
in.
"""
