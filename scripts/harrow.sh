#!/usr/bin/env bash
# npm run harrow -- COMMAND: Harrow's command line, as it was built.
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"
# What it prints is for other programs: what has to be made first is not said there.
is_built || { need_packages && need_build; } >&2
exec node build/harrow.js "$@"
