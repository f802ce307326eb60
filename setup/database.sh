# Zolvan's own PostgreSQL: a cluster under var/, on loopback, held by one launcher at a time. Sourced by ./zolvan.

# The server refuses to run as root, so as root everything of it runs as an unprivileged user.
PG_USER=()
PG_HOME=
PG_DATA=
PG_STARTED=no

pg_bin() { # $1: major version, if a cluster asks for one
  local dir
  if [ -n "${1:-}" ] && [ -x "/usr/lib/postgresql/$1/bin/pg_ctl" ]; then
    printf '%s' "/usr/lib/postgresql/$1/bin"
    return
  fi
  for dir in $(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -rV); do
    [ -x "$dir/initdb" ] && [ -x "$dir/pg_ctl" ] && printf '%s' "$dir" && return
  done
  if command -v initdb >/dev/null && command -v pg_ctl >/dev/null; then
    dirname "$(readlink -f "$(command -v initdb)")"
  fi
}

as_pg() { (cd / && exec "${PG_USER[@]}" "$@"); }

# Where the cluster lies. The place is written down once it is chosen: a parent directory that is closed to the database's
# user later must not make Zolvan begin with an empty cluster somewhere else.
prepare_pg() { # $1: name of the cluster
  local noted=$VAR/$1.place
  PG_HOME=$VAR/$1
  mkdir -p "$VAR"
  if [ "$(id -u)" -eq 0 ]; then
    local user=postgres
    id -u postgres >/dev/null 2>&1 || user=nobody
    PG_USER=(setpriv --reuid "$user" --regid "$(id -g "$user")" --clear-groups --)
    as_pg true || fail "the database can't be run as the user “$user” here: $(as_pg true 2>&1 | head -n 1)"
    chmod a+x "$VAR"
    # a project that lies where that user can't go (such as /root) keeps its data under the system's own
    as_pg test -x "$VAR" || PG_HOME=/var/lib/zolvan/$(printf '%s' "$VAR/$1" | sha256sum | cut -c1-16)
    if [ -f "$noted" ]; then PG_HOME=$(cat "$noted"); fi
    mkdir -p "$(dirname "$PG_HOME")"
    [ "$(dirname "$PG_HOME")" = "$VAR" ] || chmod a+x "$(dirname "$PG_HOME")"
    mkdir -p "$PG_HOME"
    chown "$user" "$PG_HOME"
    as_pg test -x "$PG_HOME" || fail "the user “$user” can't reach $PG_HOME, where the data lies. Let that user through the directories above it."
  else
    if [ -f "$noted" ]; then PG_HOME=$(cat "$noted"); fi
    mkdir -p "$PG_HOME"
  fi
  printf '%s' "$PG_HOME" >"$noted"
  PG_DATA=$PG_HOME/data
  PG_BIN=$(pg_bin "$(as_pg cat "$PG_DATA/PG_VERSION" 2>/dev/null || true)")
}

# One launcher at a time: the lock goes with the process that holds it, whatever ends it.
hold_pg() {
  exec 9>"$PG_HOME/lock"
  flock -n 9 || fail "Zolvan is running on this data already$(running_at). Stop it first (Ctrl-C where it was started)."
}

running_at() {
  if [ -f "$VAR/port" ]; then printf ', at http://127.0.0.1:%s' "$(cat "$VAR/port")"; fi
}

free_port() {
  local port
  for port in $(shuf -i 20000-31999 -n 50); do
    (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null || {
      printf '%s' "$port"
      return
    }
  done
  fail "no free port was found on 127.0.0.1"
}

is_cluster() { as_pg test -s "$PG_DATA/PG_VERSION" && as_pg test -s "$PG_DATA/global/pg_control"; }

# A cluster is made beside its place and renamed when it is whole; what lies in its place is never removed.
make_cluster() {
  local new=$PG_HOME/data.new
  if [ -e "$PG_DATA" ] && [ -n "$(as_pg ls -A "$PG_DATA")" ]; then
    fail "$PG_DATA holds something that is no whole database, and Zolvan does not remove it. Move it away, or put a backup back (./zolvan restore FILE)."
  fi
  as_pg rm -rf "$new"
  (umask 077 && head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$PG_HOME/password")
  if [ ${#PG_USER[@]} -gt 0 ]; then chown --reference="$PG_HOME" "$PG_HOME/password"; fi
  as_pg "$PG_BIN/initdb" -D "$new" -U zolvan --pwfile="$PG_HOME/password" -A scram-sha-256 -E UTF8 -k \
    --locale=C.UTF-8 >"$VAR/log/postgres-setup.log" 2>&1 || fail "the database could not be made; see var/log/postgres-setup.log"
  if [ -e "$PG_DATA" ]; then as_pg rmdir "$PG_DATA"; fi
  as_pg mv "$new" "$PG_DATA"
}

start_pg() { # $1: name of the cluster, $2: "throwaway" for one that need not survive a crash
  prepare_pg "$1"
  hold_pg
  is_cluster || make_cluster
  [ -s "$PG_HOME/password" ] || fail "$PG_HOME/password, which the database asks for, is gone. Put it back from where you keep it."
  PGPASSWORD=$(cat "$PG_HOME/password")
  export PGPASSWORD
  PG_OPTIONS="-c listen_addresses=127.0.0.1 -c unix_socket_directories= -c shared_buffers=256MB"
  if [ "${2:-}" = throwaway ]; then
    PG_OPTIONS="$PG_OPTIONS -c fsync=off -c synchronous_commit=off -c full_page_writes=off"
  else
    # one file a weekday, each begun anew after a week
    PG_OPTIONS="$PG_OPTIONS -c logging_collector=on -c log_directory=$PG_HOME/log -c log_filename=postgres-%a.log"
    PG_OPTIONS="$PG_OPTIONS -c log_rotation_age=1d -c log_rotation_size=0 -c log_truncate_on_rotation=on"
    as_pg mkdir -p "$PG_HOME/log"
  fi
  local try
  if as_pg "$PG_BIN/pg_ctl" status -D "$PG_DATA" >/dev/null 2>&1 && ! is_dead "$(postmaster)"; then
    PG_PORT=$(as_pg sed -n 4p "$PG_DATA/postmaster.pid") # of a launcher that was killed; the lock says that it is ours now
  else
    for try in 1 2 3; do
      PG_PORT=$(free_port)
      if launch_pg; then break; fi
      [ "$try" -lt 3 ] || fail "the database did not start; see $PG_HOME/postgres.log"
    done
  fi
  PG_STARTED=yes
  export ZOLVAN_DB_HOST=127.0.0.1:$PG_PORT ZOLVAN_DB_USER=zolvan ZOLVAN_DB_PASSWORD=$PGPASSWORD ZOLVAN_PG_BIN=$PG_BIN
}

launch_pg() {
  end_orphans
  as_pg "$PG_BIN/pg_ctl" start -w -t 60 -D "$PG_DATA" -l "$PG_HOME/postgres.log" \
    -o "-p $PG_PORT $PG_OPTIONS" >"$VAR/log/postgres-start.log" 2>&1 9>&-
}

postmaster() { as_pg head -n 1 "$PG_DATA/postmaster.pid" 2>/dev/null || true; }

# Whether a process is gone, or only waits to be buried.
is_dead() { # $1: its number
  local state
  [ -n "$1" ] || return 0
  state=$(sed -n 's/^State:[[:space:]]*\(.\).*/\1/p' "/proc/$1/status" 2>/dev/null || true)
  [ -z "$state" ] || [ "$state" = Z ]
}

# The processes of a postmaster that was killed live on for a while and hold its shared memory. They are known by where
# they work; only when none is left may the dead postmaster's lock go.
end_orphans() {
  local pid try signal=QUIT left
  if [ ! -f "$PG_DATA/postmaster.pid" ] || ! is_dead "$(postmaster)"; then return 0; fi
  for try in $(seq 1 60); do
    left=
    for pid in /proc/[0-9]*; do
      pid=${pid#/proc/}
      [ "$(readlink "/proc/$pid/cwd" 2>/dev/null)" = "$PG_DATA" ] && [ "$(cat "/proc/$pid/comm")" = postgres ] || continue
      is_dead "$pid" && continue
      left=yes
      if [ "$try" -eq 1 ] || [ "$try" -eq 15 ]; then kill -"$signal" "$pid" 2>/dev/null || true; fi
    done
    if [ -z "$left" ]; then
      rm -f "$PG_DATA/postmaster.pid"
      return 0
    fi
    if [ "$try" -eq 14 ]; then signal=KILL; fi
    sleep 0.1
  done
  fail "processes of the database that died can't be ended; see ps -u postgres"
}

# Whether our database runs.
pg_runs() { [ -f "$PG_DATA/postmaster.pid" ] && ! is_dead "$(postmaster)"; }

psql_quiet() { "$PG_BIN/psql" -h 127.0.0.1 -p "$PG_PORT" -U zolvan -qtAX -v ON_ERROR_STOP=1 "$@"; }

has_database() { [ "$(psql_quiet -d postgres -c "select 1 from pg_database where datname = '$1'")" = 1 ]; }

use_database() { # $1: its name
  has_database "$1" || psql_quiet -d postgres -c "create database $1" ||
    fail "the database does not answer; see $PG_HOME/postgres.log"
  let_application_in "$1"
  export ZOLVAN_DB_URL=jdbc:postgresql://$ZOLVAN_DB_HOST/$1
}

# The application reads and writes rows as a role of its own, which can neither change tables nor run programs; only
# migrations run as the owner.
let_application_in() { # $1: database
  local file=$PG_HOME/application-password
  [ -s "$file" ] || (umask 077 && head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$file")
  ZOLVAN_ROLE_PASSWORD=$(cat "$file")
  export ZOLVAN_ROLE_PASSWORD
  psql_quiet -d "$1" >/dev/null <<SQL || fail "the application's role could not be made; see $PG_HOME/postgres.log"
do \$\$ begin
  if not exists (select from pg_roles where rolname = 'zolvan_app') then create role zolvan_app login; end if;
end \$\$;
alter role zolvan_app password '$ZOLVAN_ROLE_PASSWORD';
alter default privileges for role zolvan in schema public grant select, insert, update, delete on tables to zolvan_app;
alter default privileges for role zolvan in schema public grant usage, select on sequences to zolvan_app;
grant select, insert, update, delete on all tables in schema public to zolvan_app;
grant usage, select on all sequences in schema public to zolvan_app;
SQL
}

stop_pg() {
  [ -n "$PG_DATA" ] && [ "$PG_STARTED" = yes ] || return 0
  PG_STARTED=no
  as_pg "$PG_BIN/pg_ctl" stop -m fast -w -D "$PG_DATA" >/dev/null 2>&1 || true
}
