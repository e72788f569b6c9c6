"""The Tank's other rooms."""
