"""Known holes in the packages that are installed here, as pip-audit knows them.

    .venv-dev/bin/python scripts/audit.py

Fails where there are some. Where the advisories cannot be looked up, as without a network, it says
so and how many packages nobody has looked at.
"""

from __future__ import annotations

import json
import subprocess
import sys

LONGEST_S = 300


def main() -> int:
    """Say what there is to say; 1 where a package has a known hole."""
    command = [sys.executable, "-m", "pip_audit", "--skip-editable", "-f", "json", "-s", "osv"]
    for service in ("osv", "pypi"):
        command[-1] = service
        try:
            done = subprocess.run(
                command, capture_output=True, text=True, timeout=LONGEST_S, check=False
            )
            packages = json.loads(done.stdout)["dependencies"]
        except (subprocess.TimeoutExpired, ValueError, KeyError) as exc:
            why = f"no answer from {service}: {type(exc).__name__}"
            continue
        looked_at = [each for each in packages if "skip_reason" not in each]
        if not looked_at:
            why = f"{service} knows none of the {len(packages)} packages here"
            continue
        wrong = [
            f"{each['name']} {each['version']}: {hole['id']}, mended in {hole['fix_versions']}"
            for each in looked_at
            for hole in each["vulns"]
        ]
        print("\n".join(wrong or [f"pip-audit: {len(looked_at)} packages, no known hole"]))
        return int(bool(wrong))
    print(f"pip-audit could look up nothing ({why}): the packages are NOT audited here.")
    return 0


if __name__ == "__main__":
    sys.exit(main())
