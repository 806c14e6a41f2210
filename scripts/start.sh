#!/usr/bin/env bash
# npm start: installs what is missing, makes and fills the database, builds, serves, and prints the address.
#   npm start -- --fresh   begins anew with fresh demo data
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"
source scripts/database.sh

fresh=
for word in "$@"; do
	case $word in
		--fresh) fresh=1 ;;
		*) give_up "npm start knows no \"$word\". It knows --fresh, which begins anew with fresh demo data." ;;
	esac
done

need_packages
server=
stop() {
	trap - EXIT INT TERM
	[ -z "$server" ] || { kill -TERM "$server" 2>/dev/null && wait "$server" 2>/dev/null || true; }
	rm -rf "$STATE/serving.$$"
	database_down app
}
trap stop EXIT
trap 'say ""; say "Stopping…"; exit 0' INT TERM

[ -z "$fresh" ] || { say "Beginning anew…"; database_remove app; }
database_up app
node --import tsx scripts/migrate.ts
node --import tsx demo/fill.ts
need_build

# Served from a copy, so that a later build does not pull files from under it.
cp -r build "$STATE/serving.$$"

port=$(free_port "${PORT:-4600}")
[ -z "${PORT:-}" ] || [ "$port" = "$PORT" ] || say "Port $PORT is taken; using $port."
HOST=127.0.0.1 PORT=$port ORIGIN="http://127.0.0.1:$port" HARROW_DEMO=1 BODY_SIZE_LIMIT=1500K HARROW_LOG=${HARROW_LOG:-warn} SHUTDOWN_TIMEOUT=3 node "$STATE/serving.$$/index.js" &
server=$!
until ! port_is_free "$port"; do
	kill -0 "$server" 2>/dev/null || give_up "The server ended before it could serve; what it said stands above."
	sleep 0.1
done
say ""
say "  Harrow is at  http://127.0.0.1:$port"
say "  Sign in with one click as any of the made-up people there,"
say "  or with ines@tidewatch.example and the password: harrow demo"
say "  Ctrl+C stops it. The data stays; npm start -- --fresh begins anew."
say ""
wait "$server"
