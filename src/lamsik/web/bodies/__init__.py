"""The live page of a body, looked at from Shapes, Tank and Paints."""
