"""Programs that tests start run without what Windows lacks as well."""

import sys
from pathlib import Path

sys.path.append(str(Path(__file__).parents[1]))
from no_unix import hook

sys.path.pop()
hook.install()
