"""Customers and orders."""
