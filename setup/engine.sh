# The import engine and the ray tracer by themselves, without database and server. Sourced by ./zolvan.

# How the engine is started, in var/engine.flags: its classes stand ready in an archive (made on first use; where it can't
# be, starting only takes longer), and from Java 25 on with them what a first run showed the compilers.
engine_flags() {
  local java archive flags=(-Xmx2g -Xms1g -Xmn700m -XX:+UseSerialGC -Xlog:disable)
  java=$(newest_java)
  archive=$VAR/engine.aot
  "$java" -XX:AOTCache=none -version >/dev/null 2>&1 || archive=$VAR/engine.jsa
  local classes=$VAR/engine.jar:$(cat "$VAR/engine.classpath")
  rm -f "$VAR"/engine.{aot,jsa}
  engine_sample >"$VAR/sample.ply"
  local record=(-XX:AOTCacheOutput="$archive")
  [ "$archive" = "$VAR/engine.aot" ] || record=(-XX:ArchiveClassesAtExit="$archive")
  "$java" "${flags[@]}" "${record[@]}" -cp "$classes" app.zolvan.core.command.CommandLine read "$VAR/sample.ply" \
    >"$VAR/log/archive.log" 2>&1 || rm -f "$archive"
  rm -f "$VAR/sample.ply"
  if [ -f "$archive" ]; then
    [ "$archive" = "$VAR/engine.aot" ] && flags+=(-XX:AOTCache="$archive") || flags+=(-XX:SharedArchiveFile="$archive")
  fi
  printf '%s\n' "$java" "${flags[@]}" -cp "$classes" >"$VAR/engine.flags.$$"
  mv "$VAR/engine.flags.$$" "$VAR/engine.flags"
}

# A wavy sheet of 400,000 triangles, so large that a run over it shows what matters.
engine_sample() {
  awk 'BEGIN {
    n = 451
    printf "ply\nformat ascii 1.0\nelement vertex %d\nproperty float x\nproperty float y\nproperty float z\n", n * n
    printf "element face %d\nproperty list uchar int vertex_indices\nend_header\n", 2 * (n - 1) * (n - 1)
    for (y = 0; y < n; y++) for (x = 0; x < n; x++) printf "%g %.8g %g\n", x / 10, sin(x / 3) * cos(y / 4) / 10, y / 10
    for (y = 0; y + 1 < n; y++) for (x = 0; x + 1 < n; x++) {
      a = y * n + x
      printf "3 %d %d %d\n3 %d %d %d\n", a, a + n, a + 1, a + 1, a + n, a + n + 1
    }
  }'
}

# The import engine by itself: core's classes and the one library they need.
engine() { # $@: what to do
  mkdir -p "$VAR/log"
  set_up_machine java
  local stamp
  stamp=$({ echo "$ROOT"; find pom.xml core/pom.xml core/src/main -type f -printf '%p %s %T@\n' | LC_ALL=C sort; } | sha256sum)
  if [ ! -f "$VAR/engine.stamp" ] || [ "$(cat "$VAR/engine.stamp")" != "$stamp" ]; then
    mvn -q -B -Dmaven.test.skip=true -pl core package dependency:build-classpath \
      -DincludeScope=runtime -Dmdep.outputFile="$VAR/engine.classpath" >"$VAR/log/engine.log" 2>&1 ||
      fail "the build failed; see var/log/engine.log"
    rm -rf "$VAR"/engine "$VAR"/engine.{jar,aot,jsa,flags}
    cp core/target/zolvan-core-*.jar "$VAR/engine.jar"
    printf '%s' "$stamp" >"$VAR/engine.stamp"
  fi
  [ -f "$VAR/engine.flags" ] && [ -x "$(head -1 "$VAR/engine.flags")" ] || engine_flags
  cd "$CALLED_FROM"
  local what=$1 model=${2:-} vectors=()
  if [ "$what" = render ]; then vectors=("${VECTORS[@]}"); fi
  shift "$(($# < 2 ? $# : 2))"
  if [ -f "$model" ] && grep -aq -e 'ISO-10303-21' -e '^.\{72\}S *1' \
    -e KHR_draco_mesh_compression -e meshopt_compression \
    <(head -c 200000 "$model"); then
    # the same code that the browser runs, in Node
    (cd "$ROOT" && set_up_machine && { [ -d web/node_modules/web-ifc ] || npm --prefix web ci >"$VAR/log/npm.log" 2>&1; }) ||
      fail "Node and its packages are needed for this file; see var/log/npm.log"

    PREPARED=$(mktemp -d)
    trap 'rm -rf "$PREPARED"' EXIT
    local code=0
    node "$ROOT/web/scripts/tessellate.mjs" "$model" "$PREPARED/model.glb" >/dev/null || code=$?
    [ "$code" -eq 0 ] || [ "$code" -eq 3 ] || exit "$code"
    [ "$code" -eq 3 ] || model=$PREPARED/model.glb
  fi
  # binary glTF is read faster than the optimising compiler warms up; text is worth its while
  local compiler=()
  if [ "$what" != render ] && [ -f "$model" ] && [ "$(head -c 4 "$model" | tr -d '\0')" = glTF ]; then compiler=(-XX:TieredStopAtLevel=1); fi
  local launch
  mapfile -t launch <"$VAR/engine.flags"
  "${launch[@]}" "${compiler[@]}" "${vectors[@]}" app.zolvan.core.command.CommandLine "$what" ${model:+"$model"} "$@"
}
