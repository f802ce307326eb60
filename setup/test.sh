# Checks and walks. Sourced by ./zolvan.

with_test_database() {
  mkdir -p "$VAR/log"
  set_up_machine browser
  start_test_database
  trap 'stop_all; exit 130' INT TERM
  trap stop_all EXIT
}

start_test_database() {
  export ZOLVAN_LIBRARY=$VAR/library
  start_pg postgres-test throwaway
  psql_quiet -d postgres -c 'drop database if exists zolvan_test with (force)' \
    -c 'drop database if exists zolvan_e2e with (force)' 2>/dev/null
  use_database zolvan_e2e
  use_database zolvan_test
}

# For tests that are started from an editor: says where the throwaway database is, and leaves it running.
test_database() {
  mkdir -p "$VAR/log"
  set_up_machine java-and-database
  start_pg postgres-test throwaway
  use_database zolvan_test
  PG_STARTED=no
  printf '%s\n%s\n%s\n' "$ZOLVAN_DB_URL" "$PGPASSWORD" "$PG_BIN"
}

# Java and front end, without a browser. With names of test classes only those, of whatever module they are.
check() { # $@: test classes, or options for Maven
  with_test_database
  local which=
  which=$(classes "$@")
  if [ -n "$which" ]; then
    mvn -B -ntp -T 2 -Pquick -pl '!e2e,!bench/figures' -Dtest="$which" -Dsurefire.failIfNoSpecifiedTests=false verify $(options "$@")
  else
    mvn -B -ntp -T 2 -pl '!e2e,!bench/figures' verify "$@"
  fi
}

# What a designer does, in a headless browser. With names only those walks (ArrivalIT, FirstWalkIT#dropAdjust*).
walks() { # $@: walks, or options for Maven
  with_test_database
  local which=
  which=$(classes "$@")
  mvn -B -ntp -T 2 -Pquick -DskipUnit=true ${which:+-Dit.test="$which" -Dfailsafe.failIfNoSpecifiedTests=false} verify $(options "$@")
}

run_tests() { # $@: options for Maven
  local began=$SECONDS code=0
  with_test_database
  audit
  mvn -B -ntp -T 2 verify "$@" || code=$?
  slowest
  say "All together $((SECONDS - began)) s."
  return "$code"
}

# Known holes in what the page is made of, where the registry tells of them; a grave one fails.
audit() {
  local told
  told=$(cd web && npm audit --audit-level=high --omit=dev --json 2>/dev/null) && { say "No grave hole is known in what the page is made of."; return 0; }
  case $told in
    *'"auditReportVersion"'*) printf '%s\n' "$told" >&2; fail "a grave hole is known in what the page is made of" ;;
    *) say "(the package registry here tells nothing of known holes)" ;;
  esac
}

classes() {
  local word out=
  for word in "$@"; do case $word in -*) ;; *) out=${out:+$out,}$word ;; esac done
  printf '%s' "$out"
}

options() {
  local word
  for word in "$@"; do case $word in -*) printf '%s ' "$word" ;; esac done
}

slowest() {
  say ""
  say "The 20 slowest test classes (seconds):"
  find . -path ./var -prune -o -path '*/target/*-reports/TEST-*.xml' -print0 |
    xargs -0 -r grep -ho '<testsuite [^>]*' |
    sed -n 's/.* name="\([^"]*\)".* time="\([^"]*\)".*/\2 \1/p' | sort -rn | sed -n '1,20p'
}

screenshots() {
  with_test_database
  mvn -q -B -T 2 -Pquick -DskipUnit=true -Dit.test=ScreenshotsIT -Dfailsafe.failIfNoSpecifiedTests=false \
    -Dzolvan.screenshots="$ROOT/docs/screenshots" verify
  ls -1 docs/screenshots
}

api() {
  with_test_database
  mvn -q -B -T 2 -Pquick -pl core,demo,web,server -Dtest=OpenApiTest -Dsurefire.failIfNoSpecifiedTests=false \
    -Dzolvan.openapi.write="$ROOT/web/openapi.json" verify
}
