#!/usr/bin/env bash
# Two clusters of a test's own, of which the second follows the first by streaming.
#   replica.sh up NAME    makes and starts both, and prints their addresses
#   replica.sh stop NAME  stops the second at once, as when its machine fails
#   replica.sh down NAME  stops and removes both
source "$(dirname "${BASH_SOURCE[0]}")/../../scripts/common.sh"
source scripts/database.sh
name=$2

case $1 in
up)
	database_up "$name" '-c fsync=off -c synchronous_commit=off' >&2
	echo "$DATABASE_URL"
	first=$(cat "$STATE/$name.port")
	cluster_place "$name-replica"
	as_postgres rm -rf "$DATA"
	as_postgres env PGPASSWORD="$(cat "$STATE/password")" \
		"$PGBIN/pg_basebackup" -h 127.0.0.1 -p "$first" -U harrow -D "$DATA" -R -X stream -c fast >&2
	port=$(free_port $((40000 + (RANDOM % 9000))))
	as_postgres "$PGBIN/pg_ctl" -D "$DATA" -w -t 60 -l "$DATA/server.log" \
		-o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c fsync=off" start >&2
	echo "${DATABASE_URL/:$first\//:$port/}"
	;;
stop)
	find_postgres
	cluster_place "$name-replica"
	as_postgres "$PGBIN/pg_ctl" -D "$DATA" -m immediate -w stop >&2
	;;
down)
	database_remove "$name-replica"
	database_remove "$name"
	rm -rf "$STATE/$name.port" "$STATE/$name.users"
	;;
esac
