"""The electrical side: LED types, supplies, currents, voltage, data, memory, the limiter."""
