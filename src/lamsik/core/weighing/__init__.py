"""Weighing in air and in water: volumes, lift, capacity at marks, trimming, pairs; every reading with its
instrument.
"""
