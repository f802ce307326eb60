# Measurements. Sourced by ./zolvan.

# On the newest Java, or on the one that ZOLVAN_JAVA names.
bench_rays() { # $@: file and options
  set_up_machine java
  [ -f bench/target/classes/app/zolvan/bench/RayThroughput.class ] ||
    mvn -q -B -Dmaven.test.skip=true -pl core,demo,bench package >&2 || fail "the build failed"
  cd "$CALLED_FROM"
  "${ZOLVAN_JAVA:-$(newest_java)}" "${VECTORS[@]}" -Xmx4g \
    -cp "$ROOT/bench/target/classes:$ROOT/core/target/classes" app.zolvan.bench.RayThroughput "$@" 2> >(grep -v incubator >&2)
}

bench_looks() {
  set_up_machine java
  mkdir -p "$VAR"
  mvn -q -B -Dmaven.test.skip=true -pl core,demo,bench -am package dependency:build-classpath \
    -Dmdep.outputFile="$VAR/bench.classpath" >&2 || fail "the build failed"
  "${ZOLVAN_JAVA:-$(newest_java)}" -cp "$ROOT/bench/target/classes:$ROOT/core/target/classes:$(cat "$VAR/bench.classpath")" \
    app.zolvan.bench.LookBenchmark
}

# Kills application and database at random moments while somebody edits; says what was lost.
bench_kills() { # $1: how often, $2: seed
  mkdir -p "$VAR/log"
  set_up_machine
  start_pg postgres
  trap stop_all EXIT
  prepare_application
  build
  stop_all
  exec 9>&-
  mvn -q -B -Pquick -Dmaven.test.skip=true -pl core,demo,bench package dependency:build-classpath \
    -Dmdep.outputFile="$VAR/bench.classpath" >&2 || fail "the build failed"
  "$JAVA_HOME/bin/java" -cp "bench/target/classes:core/target/classes:$(cat "$VAR/bench.classpath")" \
    app.zolvan.bench.kill.KillRun "${1:-200}" "${2:-1}" "$APP"
}

bench() {
  set_up_machine java
  mkdir -p "$VAR"
  mvn -q -B -Pquick -Dmaven.test.skip=true -pl core,demo,bench -am package dependency:build-classpath \
    -Dmdep.outputFile="$VAR/bench.classpath" >&2 || fail "the build failed"
  "$JAVA_HOME/bin/java" -cp "bench/target/classes:core/target/classes:demo/target/classes:$(cat "$VAR/bench.classpath")" \
    org.openjdk.jmh.Main
}

# Finding, assigning, many designers at once, backups, and the page; or only the named ones.
figures() { # $@: classes of bench/figures (TogetherFigures), or options for Maven
  with_test_database
  mkdir -p "$VAR/many"
  local which=
  which=$(classes "$@")
  mvn -q -B -Pquick -Dmaven.test.skip=true -pl core,demo,bench package dependency:build-classpath \
    -Dmdep.outputFile="$VAR/bench.classpath" >&2 || fail "the build failed"
  "$JAVA_HOME/bin/java" -cp "bench/target/classes:core/target/classes:demo/target/classes:$(cat "$VAR/bench.classpath")" \
    app.zolvan.bench.LargeFiles "$VAR/many" 60000 5000 glb
  mvn -B -ntp -T 2 -Pquick -DskipUnit=true -DskipITs -Dfigures.skip=false -Dzolvan.figures.many="$VAR/many/large.glb" \
    -Dzolvan.figures.large="${ZOLVAN_LARGE:-}" ${which:+-Dtest="$which" -Dsurefire.failIfNoSpecifiedTests=false} verify $(options "$@") |
    grep -E "FIGURE|Tests run|ERROR|BUILD"
}
