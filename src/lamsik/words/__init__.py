"""Words: figures as a maker reads them, and the sentences that are said of what was computed."""
