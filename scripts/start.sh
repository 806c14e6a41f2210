#!/usr/bin/env bash
# npm start: installs what is missing, makes and fills the database, builds, serves, and prints the address.
#   npm start -- --fresh   begins anew with fresh demo data
#   npm start -- --empty   starts without demo data, in a database of its own, and prints how to set it up
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"
source scripts/database.sh

fresh= name=app demo=1
for word in "$@"; do
	case $word in
		--fresh) fresh=1 ;;
		--empty) name=empty demo= ;;
		*) give_up "npm start knows no \"$word\". It knows --fresh, which begins anew, and --empty, which starts without demo data." ;;
	esac
done

need_packages
server= mail=
stop() {
	trap - EXIT INT TERM
	[ -z "$server" ] || { kill -TERM "$server" 2>/dev/null && wait "$server" 2>/dev/null || true; }
	[ -z "$mail" ] || kill -TERM "$mail" 2>/dev/null || true
	rm -rf "$STATE/serving.$$"
	database_down $name
}
trap stop EXIT
trap 'say ""; say "Stopping…"; exit 0' INT TERM

[ -z "$fresh" ] || { say "Beginning anew…"; database_remove $name; [ -z "$demo" ] || rm -rf "$STATE/outbox"; }
database_up $name
node --import tsx scripts/migrate.ts
[ -z "$demo" ] || node --import tsx demo/fill.ts
need_build

# Served from a copy, so that a later build does not pull files from under it.
cp -r build "$STATE/serving.$$"

port=$(free_port "${PORT:-$([ -n "$demo" ] && echo 4600 || echo 4700)}")
[ -z "${PORT:-}" ] || [ "$port" = "$PORT" ] || say "Port $PORT is taken; using $port."
export ORIGIN="http://127.0.0.1:$port"
if [ -n "$demo" ]; then
	# A small mail server stands in for a real one: what is mailed stays on this machine, and can be read at /outbox.
	export HARROW_OUTBOX="$STATE/outbox" HARROW_MAIL_REPLY=answer@harrow.example
	HARROW_MAIL_KEY=$(head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n')
	export HARROW_MAIL_KEY MAIL_PORT
	MAIL_PORT=$(free_port $((port + 1000)))
	node --import tsx scripts/mail-server.ts &
	mail=$!
	export HARROW_SMTP="smtp://127.0.0.1:$MAIL_PORT" HARROW_MAIL_FROM=harrow@harrow.example
fi
HOST=127.0.0.1 PORT=$port HARROW_DEMO=$demo BODY_SIZE_LIMIT=1G HARROW_LOG=${HARROW_LOG:-warn} SHUTDOWN_TIMEOUT=3 node "$STATE/serving.$$/index.js" &
server=$!
until has_port "$server" "$port"; do
	kill -0 "$server" 2>/dev/null || give_up "The server ended before it could serve; what it said stands above. If port $port was taken meanwhile, start again."
	sleep 0.1
done
say ""
say "  Harrow is at  http://127.0.0.1:$port"
if [ -n "$demo" ]; then
	say "  Sign in with one click as any of the made-up people there,"
	say "  or with ines@tidewatch.example and the password: harrow demo"
fi
say "  Ctrl+C stops it. The data stays; npm start -- $([ -n "$demo" ] || echo "--empty ")--fresh begins anew."
say ""
wait "$server"
