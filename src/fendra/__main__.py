"""`python -m fendra` is `fendra`."""

from fendra.cli.app import main

main()
