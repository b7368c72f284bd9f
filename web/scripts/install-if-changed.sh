#!/usr/bin/env bash
# Installs the front end's packages only when the lock file changed since the last time.
set -euo pipefail
cd "$(dirname "$0")/.."
stamp=node_modules/.transitum-lock
if [ ! -d node_modules ] || ! cmp -s package-lock.json "$stamp"; then
  npm ci --no-audit --no-fund
  cp package-lock.json "$stamp"
fi
