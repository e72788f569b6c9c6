"""Flask: the benches as pages. Loads from the store, calls the core, renders."""
