"""The version of Fendra; emitted code carries it too."""

VERSION = "0.1.0"
