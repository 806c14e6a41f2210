#!/usr/bin/env bash
# npm run bench: what Harrow's own code costs, as ratios to a baseline taken in the same run.
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"
source scripts/database.sh
need_packages
trap 'database_down test' EXIT
database_up test
need_build
node --import tsx bench/run.ts "$@"
