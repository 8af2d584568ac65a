"""The build sheet: one HTML page for the workbench."""
