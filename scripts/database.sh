# A private PostgreSQL cluster of this checkout, on loopback. Sourced after common.sh.
#   database_up NAME   starts the cluster NAME (made if it is not there) and sets DATABASE_URL
#   database_down NAME stops it, unless another command of this checkout still uses it

find_postgres() {
	PGBIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1)
	[ -n "$PGBIN" ] && [ -x "$PGBIN/initdb" ]
}

need_postgres() {
	find_postgres && return
	# Debian would start a cluster of its own beside ours: ours is the only one that is wanted.
	if [ ! -e /etc/postgresql-common ]; then
		as_admin sh -c 'mkdir -p /etc/postgresql-common/createcluster.d && echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.d/harrow.conf' || true
	fi
	install_debian postgresql
	find_postgres || give_up "PostgreSQL was installed, but its programs are not in /usr/lib/postgresql."
}

# initdb refuses to run as root: then the account that Debian made for PostgreSQL runs the cluster, from a folder that
# it can reach wherever the checkout lies.
cluster_place() {
	if [ "$(id -u)" = 0 ]; then
		DATA="/var/lib/harrow/$(printf %s "$ROOT" | sha256sum | cut -c1-16)/$1"
		PG_USER=postgres
		id "$PG_USER" >/dev/null 2>&1 || { PG_USER=harrow-db; id "$PG_USER" >/dev/null 2>&1 || useradd --system --no-create-home "$PG_USER"; }
	else
		DATA="$STATE/$1"
		PG_USER=$(id -un)
	fi
}

as_postgres() { if [ "$(id -u)" = 0 ]; then (cd / && runuser -u "$PG_USER" -- "$@"); else "$@"; fi; }

make_cluster() {
	say "Making a private database…"
	[ -f "$STATE/password" ] || (umask 077 && head -c 24 /dev/urandom | base64 | tr '+/' 'ab' >"$STATE/password")
	local pwfile
	pwfile=$(mktemp)
	cat "$STATE/password" >"$pwfile"
	if [ "$(id -u)" = 0 ]; then
		mkdir -p "$DATA" && chown "$PG_USER" "$(dirname "$DATA")" "$DATA" "$pwfile" && chmod 700 "$DATA"
	fi
	as_postgres "$PGBIN/initdb" -D "$DATA" -U harrow --auth=scram-sha-256 --pwfile="$pwfile" -E UTF8 --locale=C.UTF-8 >"$STATE/initdb.log" 2>&1 ||
		{ rm -f "$pwfile"; give_up "The database could not be made. The last lines of $STATE/initdb.log:" "$(tail -n 5 "$STATE/initdb.log")"; }
	rm -f "$pwfile"
}

start_cluster() { # start_cluster NAME SETTINGS
	local port try
	for try in 1 2 3 4 5; do
		port=$(free_port $((20000 + (RANDOM % 20000))))
		as_postgres "$PGBIN/pg_ctl" -D "$DATA" -w -t 60 -l "$DATA/server.log" \
			-o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories='' $2" start >/dev/null 2>&1 && break
		[ "$try" -lt 5 ] || give_up "The database does not start. The last lines of its log:" "$(as_postgres tail -n 5 "$DATA/server.log")"
	done
	echo "$port" >"$STATE/$1.port"
}

opens() {
	PGPASSWORD=$(cat "$STATE/password") "$PGBIN/psql" -h 127.0.0.1 -p "$(cat "$STATE/$1.port")" -U harrow -qc '' postgres >/dev/null 2>&1
}

take_over() {
	as_postgres "$PGBIN/pg_ctl" -D "$DATA" -m fast -w stop >/dev/null 2>&1
	printf "alter role harrow password '%s'\n" "$(cat "$STATE/password")" |
		as_postgres "$PGBIN/postgres" --single -D "$DATA" postgres >"$STATE/take-over.log" 2>&1 ||
		give_up "The database in $DATA does not open. The last lines of $STATE/take-over.log:" "$(tail -n 5 "$STATE/take-over.log")"
}

database_up() {
	local name=$1 settings=${2:-}
	need_postgres
	cluster_place "$name"
	as_postgres test -f "$DATA/PG_VERSION" && [ -f "$STATE/password" ] || { as_postgres rm -rf "$DATA"; make_cluster; }
	[ "$(as_postgres cat "$DATA/PG_VERSION")" = "$("$PGBIN/postgres" --version | grep -oE '[0-9]+' | head -n 1)" ] ||
		give_up "The database in $DATA was made by another version of PostgreSQL." "Install that version, or begin anew with: npm start -- --fresh"
	mkdir -p "$STATE/$name.users" && : >"$STATE/$name.users/$$"
	if ! as_postgres "$PGBIN/pg_ctl" -D "$DATA" status >/dev/null 2>&1; then
		start_cluster "$name" "$settings"
		# What a checkout that lay here before has left goes by another password: it gets that of this one.
		opens "$name" || { take_over; start_cluster "$name" "$settings"; }
	fi
	export DATABASE_URL="postgres://harrow:$(cat "$STATE/password")@127.0.0.1:$(cat "$STATE/$name.port")/postgres"
}

database_down() {
	local name=$1 user
	rm -f "$STATE/$name.users/$$"
	for user in "$STATE/$name.users"/*; do
		[ -e "$user" ] || continue
		kill -0 "$(basename "$user")" 2>/dev/null && return
		rm -f "$user"
	done
	cluster_place "$name"
	as_postgres "$PGBIN/pg_ctl" -D "$DATA" -m fast -w stop >/dev/null 2>&1 || true
}

database_remove() {
	cluster_place "$1"
	find_postgres && as_postgres "$PGBIN/pg_ctl" -D "$DATA" -m immediate -w stop >/dev/null 2>&1 || true
	as_postgres rm -rf "$DATA"
}
