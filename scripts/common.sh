# What the commands share: where the checkout is, what must be installed, how things are said.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
cd "$ROOT"
STATE="$ROOT/.harrow"

say() { printf '%s\n' "$*"; }
give_up() { printf '\n%s\n' "$@" >&2; exit 1; }

# Runs a command that needs an administrator, if that can be done without asking for a password.
as_admin() {
	if [ "$(id -u)" = 0 ]; then "$@"; elif command -v sudo >/dev/null && sudo -n true 2>/dev/null; then sudo "$@"; else return 1; fi
}

install_debian() { # install_debian PACKAGE... : what is missing, from Debian's packages
	say "Installing $* from Debian's packages (once)…"
	command -v apt-get >/dev/null || give_up "$* is needed and apt-get is not here to install it. Install it, then run this again."
	as_admin true || give_up "$* is needed and installing it needs an administrator. Run this once, then try again:" "  sudo apt-get update && sudo apt-get install -y $*"
	as_admin env DEBIAN_FRONTEND=noninteractive sh -c 'apt-get update -qq && apt-get install -y -qq --no-install-recommends "$@"' sh "$@" >"$STATE/apt.log" 2>&1 ||
		give_up "Installing $* failed. The last lines of $STATE/apt.log:" "$(tail -n 5 "$STATE/apt.log")"
}

need_node() {
	command -v node >/dev/null || give_up "Node.js 20.19 or newer is needed. Install it, then run this again."
	node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' ||
		give_up "Node.js $(node --version) is too old: 20.19 or newer is needed."
}

need_packages() {
	mkdir -p "$STATE" 2>/dev/null && [ -w "$STATE" ] || give_up \
		"The folder $STATE cannot be written by $(id -un)." \
		"Someone else set this checkout up. Run the command as that user, or use a clone of your own."
	need_node
	[ -f node_modules/.package-lock.json ] && [ ! package-lock.json -nt node_modules/.package-lock.json ] || {
		say "Installing packages (once, about a minute)…"
		# A registry that lacks another system's builds makes npm ci refuse; then the same versions are installed without that check.
		npm ci --loglevel=error >"$STATE/npm.log" 2>&1 || npm install --no-save --loglevel=error >>"$STATE/npm.log" 2>&1 ||
			give_up "Installing packages failed. What npm said (all of it is in $STATE/npm.log):" "$(grep -m 8 'npm err' "$STATE/npm.log" || tail -n 8 "$STATE/npm.log")"
		touch node_modules/.package-lock.json
	}
	[ -d .svelte-kit ] || npx svelte-kit sync >/dev/null
}

is_built() {
	[ -f build/index.js ] && [ -z "$(find src static package-lock.json svelte.config.js vite.config.ts scripts/bundle.ts -newer build/index.js -print -quit)" ]
}

need_build() {
	is_built && return
	say "Building the application…"
	npx vite build >"$STATE/build.log" 2>&1 || give_up "The build failed. The last lines of $STATE/build.log:" "$(tail -n 15 "$STATE/build.log")"
}

port_is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

has_port() { # has_port PROCESS PORT : whether it is this process that listens there
	local socket
	socket=$(awk -v at="$(printf ':%04X' "$2")" '$2 ~ at"$" && $4 == "0A" { print $10; exit }' /proc/net/tcp)
	[ -n "$socket" ] && ls -l "/proc/$1/fd" 2>/dev/null | grep -qF "socket:[$socket]"
}

free_port() { # free_port FIRST : the first free port from there on
	local port
	for port in $(seq "$1" $(($1 + 200))); do port_is_free "$port" && { echo "$port"; return; }; done
	give_up "No free port between $1 and $(($1 + 200)). Set PORT to one that is free."
}
