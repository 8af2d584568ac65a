"""The catalogue: LED types, controllers, supplies and wires, as data files and their models."""
