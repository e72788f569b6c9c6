"""The Mixes room: products, tubs, batches, clocks."""
