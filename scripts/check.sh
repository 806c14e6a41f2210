#!/usr/bin/env bash
# npm run check: types, lint, format, import direction, unused code.
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"
need_packages
npx svelte-kit sync >/dev/null

# The checks run side by side; what each says is shown when it is over, in this order.
said=$(mktemp -d)
trap 'rm -rf "$said"' EXIT
names=() pids=()
begin() { # begin NAME COMMAND...
	local name=$1
	shift
	"$@" >"$said/${#names[@]}" 2>&1 &
	names+=("$name") pids+=($!)
}
begin "Types" npx svelte-check --fail-on-warnings --output human --threshold warning
begin "Lint and import direction" npx eslint --cache --cache-location "$STATE/eslint" .
begin "Format" npx prettier --check --log-level warn --cache --cache-location "$STATE/prettier" .
begin "Unused code" npx knip --no-progress
failed=
for i in "${!names[@]}"; do
	say "${names[$i]}…"
	wait "${pids[$i]}" || failed+=" ${names[$i]};"
	cat "$said/$i"
done
[ -z "$failed" ] || give_up "These checks failed:${failed%;}."
