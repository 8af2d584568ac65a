"""The electrical side: currents, voltages, links and memory, and the limiter."""
