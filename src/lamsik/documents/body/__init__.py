"""The body of a bait or a float: a design as a document, and its edits."""
