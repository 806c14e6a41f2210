#!/usr/bin/env bash
# npm test: installs what is missing, then every check and test.
#   npm test -- FILE...   only those test files, without the checks
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"
source scripts/database.sh

need_packages
# Clusters of a test that did not come to its end.
stop_left() {
	local port name
	for port in "$STATE"/replica-*.port; do
		[ -e "$port" ] || continue
		name=$(basename "$port" .port)
		kill -0 "${name#replica-}" 2>/dev/null || bash tests/support/replica.sh down "$name" >/dev/null 2>&1 || true
	done
}
trap 'rm -rf "$STATE/testing.$$"; stop_left; database_down test' EXIT
trap 'exit 130' INT TERM
database_up test '-c fsync=off -c synchronous_commit=off -c full_page_writes=off'
# Chromium without a window draws the same with a fifth less work; CHROMIUM may name the whole one.
found() { command -v chromium-headless-shell || command -v chromium; }
found >/dev/null || (install_debian chromium-headless-shell) 2>/dev/null || install_debian chromium
export CHROMIUM=${CHROMIUM:-$(found)}

if [ $# -gt 0 ]; then
	files=("$@")
else
	bash scripts/check.sh
	mapfile -t files < <(find src demo tests -name '*.test.ts' ! -name '*timing.test.ts')
	# What measures time runs alone, after the rest.
	mapfile -t alone < <(find src tests -name '*timing.test.ts')
fi
need_build
# Tested from a copy, so that a later build does not pull files from under the tests.
cp -r build "$STATE/testing.$$"
export HARROW_BUILD="$STATE/testing.$$"
export HARROW_NOW=2026-11-23T14:20:00Z
say "Preparing test databases…"
node --import tsx tests/support/prepare.ts
node --import tsx tests/support/run.ts "${files[@]}"
[ -z "${alone:-}" ] || node --import tsx tests/support/run.ts "${alone[@]}"
