"""The electrical side: LED types and the time that a line takes."""
