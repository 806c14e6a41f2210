#!/usr/bin/env bash
# npm run check: types, lint, format, import direction, unused code.
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"
need_packages
step() { say "$1…"; shift; "$@" || give_up "This check failed: $*"; }
npx svelte-kit sync >/dev/null
step "Types" npx svelte-check --fail-on-warnings --output human --threshold warning
step "Lint and import direction" npx eslint .
step "Format" npx prettier --check --log-level warn .
step "Unused code" npx knip --no-progress
