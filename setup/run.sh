# Building the application, starting it, and watching over it and its database. Sourced by ./zolvan.

sources_stamp() {
  find pom.xml .mvn core demo web server -type f \
    \( -path '*/src/*' -o -path 'web/scripts/*' -o -name pom.xml -o \( -path 'web/*' ! -path 'web/*/*' \) \) \
    ! -path '*/node_modules/*' ! -path '*/target/*' ! -path 'web/dist/*' ! -name schema.ts \
    -printf '%p %s %T@\n' | LC_ALL=C sort | sha256sum | cut -d' ' -f1
}

# As root the application runs as a user who owns nothing but what it writes itself.
APP_AS=()
APP_LOGIN=
as_app() { if [ -n "$APP_LOGIN" ]; then (cd / && setpriv "${APP_AS[@]}" -- "$@"); else "$@"; fi; }

# Where the application lies (RUN) and what it writes (OWN). Its user has to be able to go there, as the database's has.
prepare_application() {
  RUN=$VAR
  if [ "$(id -u)" -eq 0 ]; then
    APP_LOGIN=zolvan
    id -u zolvan >/dev/null 2>&1 || useradd --system --no-create-home --shell /usr/sbin/nologin zolvan >/dev/null 2>&1 || APP_LOGIN=nobody
    APP_AS=(--reuid "$APP_LOGIN" --regid "$(id -g "$APP_LOGIN")" --clear-groups)
    as_app test -x "$VAR" || RUN=/var/lib/zolvan/$(printf '%s' "$VAR/run" | sha256sum | cut -c1-16)
    mkdir -p "$RUN"
    [ "$RUN" = "$VAR" ] || chmod a+x "$(dirname "$RUN")" "$RUN"
  fi
  OWN=$RUN/application
  mkdir -p "$OWN"
  chmod 700 "$OWN"
  own_application
}

own_application() { if [ -n "$APP_LOGIN" ]; then chown -hR "$APP_LOGIN" "$OWN"; fi; }

# Sets APP, the folder of the unpacked application; ZOLVAN_APP names one that is there already.
build() {
  RUN_JAVA=$(newest_java)
  if ! as_app test -x "$RUN_JAVA"; then
    say "(the user $APP_LOGIN can't reach $RUN_JAVA: Zolvan runs as $(id -un))"
    APP_LOGIN=
    APP_AS=()
  fi
  # what another user has drawn is taken over rather than read
  if [ -n "$APP_LOGIN" ] && [ -d "${ZOLVAN_LIBRARY:-}" ] && [ "$ZOLVAN_LIBRARY" != "$OWN/library" ]; then
    mkdir -p "$OWN/library"
    cp "$ZOLVAN_LIBRARY"/* "$OWN/library/" 2>/dev/null || true
    own_application
    ZOLVAN_LIBRARY=
  fi
  export ZOLVAN_LIBRARY=${ZOLVAN_LIBRARY:-$OWN/library}
  APP=${ZOLVAN_APP:-$RUN/app}
  if [ -n "${ZOLVAN_APP:-}" ]; then
    if ! as_app test -r "$APP/zolvan.jar"; then
      APP=$RUN/app
      mkdir -p "$APP"
      cp -r "$ZOLVAN_APP/." "$APP"
    fi
    return
  fi
  local stamp=
  stamp=$(sources_stamp)
  if [ -f "$VAR/build.stamp" ] && [ "$(cat "$VAR/build.stamp")" = "$stamp $RUN_JAVA" ] && [ -f "$RUN/app/zolvan.jsa" ]; then
    return
  fi
  say "Building (a few minutes the first time) …"
  rm -f "$VAR/build.stamp"
  env -u PGPASSWORD -u ZOLVAN_DB_PASSWORD mvn -q -B -T 2 -Pquick -Dmaven.test.skip=true -pl core,demo,web,server package >"$VAR/log/build.log" 2>&1 9>&- ||
    { tail -n 40 "$VAR/log/build.log" >&2; fail "the build failed; see var/log/build.log"; }
  rm -rf "$RUN/app"
  "$RUN_JAVA" -Djarmode=tools -jar server/target/zolvan-server-*-app.jar extract --destination "$RUN/app" \
    >"$VAR/log/extract.log" 2>&1 || fail "the application could not be unpacked; see var/log/extract.log"
  mv "$RUN"/app/zolvan-server-*.jar "$RUN/app/zolvan.jar"
  "$RUN_JAVA" -cp "demo/target/classes:core/target/classes:$(ls "$RUN"/app/lib/jackson-core-3*.jar)" \
    app.zolvan.demo.DemoFiles "$RUN/demo" >"$VAR/log/demo.log" 2>&1 || fail "the demo could not be made; see var/log/demo.log"
  archive_classes
  own_application
  printf '%s' "$stamp $RUN_JAVA" >"$VAR/build.stamp"
}

# One start to its end, on a database of its own, so that later ones find their classes in an archive
# (by its whole path: newer Javas only use an archive for the very path it was made with).
archive_classes() {
  psql_quiet -d postgres -c 'drop database if exists zolvan_archive with (force)' -c 'create database zolvan_archive' 2>/dev/null
  ZOLVAN_DB_URL=jdbc:postgresql://$ZOLVAN_DB_HOST/zolvan_archive \
    "$RUN_JAVA" "${VECTORS[@]}" -XX:ArchiveClassesAtExit="$RUN/app/zolvan.jsa" -Dspring.context.exit=onRefresh -jar "$RUN/app/zolvan.jar" \
    >"$VAR/log/archive.log" 2>&1 9>&- || say "(no class archive; starting will take longer)"
  psql_quiet -d postgres -c 'drop database zolvan_archive with (force)'
  [ -f "$RUN/app/zolvan.jsa" ] || touch "$RUN/app/zolvan.jsa"
}

# The newest migration that is built.
newest_schema() { ls server/src/main/resources/db/migration | sed -n 's/^V\([0-9]*\)__.*/\1/p' | sort -n | tail -n 1; }

# There is no way back over a migration but a dump.
dump_before_migration() { # $1: database
  local from
  from=$(schema_of "$1")
  [ "$from" -le "$(newest_schema)" ] ||
    fail "this data was last used by a newer Zolvan. Update Zolvan first, or put a backup of before back; nothing was changed."
  if [ "$from" -gt 0 ] && [ "$from" -lt "$(newest_schema)" ]; then
    mkdir -p "$VAR/backups"
    say "Keeping the database as it is before it is brought up to date: var/backups/before-$(newest_schema)-from-$from.dump"
    backup_database "$1" "$VAR/backups/before-$(newest_schema)-from-$from.dump"
  fi
}

APP_PID=
READER_PID=
SUPPLIER_PID=
WITH_READER=no

stand_in() { # $1: class, $2: port, $3: memory, $4: log
  "$RUN_JAVA" -Xmx"$3" -cp "demo/target/classes:core/target/classes:$(ls "$APP"/lib/jackson-core-3*.jar)" \
    "app.zolvan.demo.$1" "$2" >"$VAR/log/$4.log" 2>&1 9>&- &
}

# The stand-in for a colour reader: a small service of its own.
start_reader() {
  local port
  port=$(free_port)
  stand_in ColourReader "$port" 32m colour-reader
  READER_PID=$!
  export ZOLVAN_COLOUR_READER=http://127.0.0.1:$port
}

# The stand-in for a supplier's catalogue, likewise.
start_supplier() {
  local port
  port=$(free_port)
  stand_in SupplierCatalogue "$port" 192m supplier
  SUPPLIER_PID=$!
  export ZOLVAN_SUPPLIER=http://127.0.0.1:$port
}

stop_all() {
  trap - INT TERM EXIT
  if [ -n "$READER_PID" ]; then kill "$READER_PID" 2>/dev/null || true; fi
  if [ -n "$SUPPLIER_PID" ]; then kill "$SUPPLIER_PID" 2>/dev/null || true; fi
  if [ -n "$APP_PID" ] && kill -0 "$APP_PID" 2>/dev/null; then
    kill "$APP_PID" 2>/dev/null || true
    wait "$APP_PID" 2>/dev/null || true
    rm -f "$VAR/port"
  fi
  stop_pg
}

APP_OPTIONS=()
# The application ends with its launcher, however that ends; its log is its own (see application.yaml).
launch_application() {
  local archive=()
  [ -s "$APP/zolvan.jsa" ] && archive=(-XX:SharedArchiveFile="$APP/zolvan.jsa" -Xshare:auto)
  (
    cd "$OWN"
    export ZOLVAN_DB_USER=zolvan_app ZOLVAN_DB_PASSWORD=$ZOLVAN_ROLE_PASSWORD ZOLVAN_DB_OWNER=zolvan ZOLVAN_DB_OWNER_PASSWORD=$PGPASSWORD
    export ZOLVAN_PORT=$PORT ZOLVAN_SET_UP=$OWN/set-up-word ZOLVAN_LOG=$OWN/zolvan.log ZOLVAN_LOG_FOLDER=$OWN
    exec setsid setpriv "${APP_AS[@]}" --pdeathsig TERM -- \
      "$RUN_JAVA" "${VECTORS[@]}" "${archive[@]}" -Xmx2g -XX:+ExitOnOutOfMemoryError -jar "$APP/zolvan.jar" "${APP_OPTIONS[@]}"
  ) >>"$VAR/log/zolvan.out" 2>&1 9>&- &
  APP_PID=$!
}

await_application() {
  local try
  for try in $(seq 1 600); do
    kill -0 "$APP_PID" 2>/dev/null || { tail -n 30 "$VAR/log/zolvan.out" >&2; fail "Zolvan did not start; see $OWN/zolvan.log"; }
    if answers "$PORT"; then return 0; fi
    sleep 0.1
  done
  fail "Zolvan does not answer; see $OWN/zolvan.log"
}

# Whoever makes the first account proves with this word that they started Zolvan.
write_set_up_word() {
  local file=$OWN/set-up-word
  if [ "$(psql_quiet -d zolvan -c 'select count(*) from account' 2>/dev/null || printf 0)" != 0 ]; then
    rm -f "$file"
  elif [ ! -s "$file" ]; then
    head -c 12 /dev/urandom | od -An -tx1 | tr -d ' \n' | as_app sh -c 'umask 077; cat >"$1"' - "$file"
  fi
}

# A published password opens nothing but the demo.
refuse_published_password() { # $1: database
  local hash
  hash=$(psql_quiet -d "$1" -c "select password_hash from account where login = '$DEMO_LOGIN' and disabled_at is null" 2>/dev/null || true)
  if [ -n "$hash" ] && "$RUN_JAVA" -cp "$APP/zolvan.jar:$APP/lib/*" app.zolvan.server.account.PublishedPassword "$hash" "$DEMO_PASSWORD"; then
    fail "the account “$DEMO_LOGIN” here still has the password that everybody can read in the README. Give it another first: ./zolvan password $DEMO_LOGIN"
  fi
}

run_application() { # $1: database, zolvan or zolvan_demo
  local database=$1
  mkdir -p "$VAR/log"
  set_up_machine
  start_pg postgres
  trap 'stop_all; exit 0' INT TERM
  trap stop_all EXIT
  prepare_application
  build
  use_database "$database"
  dump_before_migration "$database"
  if [ "$database" = zolvan ]; then
    refuse_published_password zolvan
    write_set_up_word
  fi
  PORT=${ZOLVAN_PORT:-8080}
  local try
  for try in $(seq 1 50); do
    (exec 3<>"/dev/tcp/127.0.0.1/$PORT") 2>/dev/null || break
    PORT=$((PORT + 1))
  done
  if [ "$WITH_READER" = yes ]; then
    start_reader
    start_supplier
  fi
  if [ "$database" = zolvan_demo ]; then APP_OPTIONS=(--zolvan.demo="$RUN/demo"); fi
  launch_application
  await_application
  printf '%s' "$PORT" >"$VAR/port"
  say ""
  say "  Zolvan is ready:  http://127.0.0.1:$PORT"
}

answers() { # $1: port
  local line
  { exec 3<>"/dev/tcp/127.0.0.1/$1"; } 2>/dev/null || return 1
  printf 'GET /actuator/health/readiness HTTP/1.0\r\nHost: 127.0.0.1\r\n\r\n' >&3
  read -r -t 5 line <&3 || line=
  exec 3>&-
  case $line in *" 200"*) return 0 ;; *) return 1 ;; esac
}

stay() {
  say "  Ctrl-C stops it."
  say ""
  watch_over
}

# Brings back whichever of the two dies. What dies over and over is left for somebody to look at.
watch_over() {
  local deaths=0 since=$SECONDS
  while true; do
    sleep 0.25
    if pg_runs && kill -0 "$APP_PID" 2>/dev/null; then continue; fi
    if [ $((SECONDS - since)) -gt 600 ]; then
      deaths=0
      since=$SECONDS
    fi
    deaths=$((deaths + 1))
    [ "$deaths" -le "${ZOLVAN_MOST_DEATHS:-10}" ] ||
      fail "Zolvan or its database died $deaths times within ten minutes; see var/log"
    if ! pg_runs; then
      say "$(date +%T)  The database died; bringing it back …"
      launch_pg || fail "the database does not start any more; see $PG_HOME/postgres.log"
    fi
    if ! kill -0 "$APP_PID" 2>/dev/null; then
      say "$(date +%T)  Zolvan died (see var/log/zolvan.out); starting it again …"
      launch_application
      await_application
      say "$(date +%T)  Zolvan is back."
    fi
  done
}

demo() {
  WITH_READER=yes
  run_application zolvan_demo
  say "  Sign in with:     $DEMO_LOGIN  /  $DEMO_PASSWORD"
  stay
}

start() {
  run_application zolvan
  if [ -s "$OWN/set-up-word" ]; then
    say "  Make the first account:  http://127.0.0.1:$PORT/sign-in#set-up=$(cat "$OWN/set-up-word")"
  fi
  stay
}

# A database that is kept may be running, or be started for this alone.
with_kept_database() {
  mkdir -p "$VAR/log"
  set_up_machine java-and-database
  prepare_pg postgres
  is_cluster || [ "${1:-}" = new ] || fail "there is no database here yet; start Zolvan once"
  if [ "${1:-}" != new ] && pg_runs; then
    PG_PORT=$(as_pg sed -n 4p "$PG_DATA/postmaster.pid")
    PGPASSWORD=$(cat "$PG_HOME/password")
    export PGPASSWORD
  else
    start_pg postgres
    trap stop_all EXIT
  fi
}

from_here() { case $1 in /*) printf '%s' "$1" ;; *) printf '%s' "$CALLED_FROM/$1" ;; esac; }

backup() { # $1: file
  [ -n "${1:-}" ] || fail "say into which file: ./zolvan backup FILE"
  local file=
  file=$(from_here "$1")
  with_kept_database
  backup_database zolvan "$file"
  say "Kept in $file ($(du -h "$file" | cut -f1)); what it holds is listed in $1.json beside it."
}

restore() { # $1: file
  [ -n "${1:-}" ] || fail "say from which file: ./zolvan restore FILE"
  local file=
  file=$(from_here "$1")
  with_kept_database new
  restore_database "$file" zolvan "$(newest_schema)"
  say "Put back as it was when the backup was made. Start Zolvan as usual."
}

# A password for one time, for somebody who can't get in and nobody else can help.
password() { # $1: the account's name
  local login=${1:-} made
  [[ $login =~ ^[a-z0-9][a-z0-9._@-]+$ ]] || fail "say for which account: ./zolvan password NAME"
  with_kept_database
  prepare_application
  build
  [ "$(psql_quiet -d zolvan -c "select 1 from account where login = '$login'")" = 1 ] || fail "nobody signs in as “$login”"
  made=$("$RUN_JAVA" -cp "$APP/zolvan.jar:$APP/lib/*" app.zolvan.server.account.OneTimePassword) || fail "no password could be made"
  psql_quiet -d zolvan -c "update account set password_hash = '${made#* }', password_due = true, disabled_at = null where login = '$login'" \
    -c "delete from spring_session where principal_name = '$login'" \
    -c "insert into audit (login, what, about) values ('(command line)', 'password replaced', '$login')"
  say "$login signs in once with  ${made%% *}  and chooses another password then."
}
