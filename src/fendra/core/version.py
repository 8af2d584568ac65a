"""The version of Fendra, also told by what it emits."""

VERSION = "0.1.0"
